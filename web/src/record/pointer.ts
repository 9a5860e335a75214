/** One step of a JSON patch (RFC 6902). */
export interface Operation {
	op: "add" | "replace" | "remove";
	path: string;
	value?: unknown;
}

type Tree = Record<string, unknown>;

const isTree = (v: unknown): v is Tree => typeof v === "object" && v !== null;
const parts = (pointer: string) => pointer.split("/").slice(1).map(unescaped);
const unescaped = (part: string) => part.replaceAll("~1", "/").replaceAll("~0", "~");
const escaped = (part: string) => part.replaceAll("~", "~0").replaceAll("/", "~1");

/** What stands at a JSON pointer; undefined when there is nothing. */
export function at(doc: unknown, pointer: string): unknown {
	return parts(pointer).reduce<unknown>((v, part) => (isTree(v) ? v[part] : undefined), doc);
}

/**
 * A document with something else at a pointer. Only what is on the way there is
 * made anew; undefined takes it away.
 */
export function put<T>(doc: T, pointer: string, value: unknown): T {
	const set = (v: unknown, [part, ...rest]: string[]): unknown => {
		if (part === undefined) return value;
		const out: Tree = Array.isArray(v) ? ([...v] as unknown as Tree) : { ...(v as Tree) };
		out[part] = set(isTree(v) ? v[part] : undefined, rest);
		if (out[part] === undefined && !Array.isArray(v)) delete out[part];
		return out;
	};
	return set(doc, parts(pointer)) as T;
}

/** What the program offers to type: a value at a pointer, or to take away what is there. */
export interface Edit {
	pointer: string;
	value: string;
	remove?: boolean;
}

/** A document with edits made, one after the other. */
export function applied<T>(doc: T, edits: Edit[]): T {
	return edits.reduce((now, e) => {
		if (!e.remove) return put(now, e.pointer, e.value);
		const last = e.pointer.lastIndexOf("/");
		const list = at(now, e.pointer.slice(0, last));
		return Array.isArray(list)
			? put(now, e.pointer.slice(0, last), list.toSpliced(Number(e.pointer.slice(last + 1)), 1))
			: put(now, e.pointer, undefined);
	}, doc);
}

/** Whether two values are the same, with empty fields as good as none and a count as good as its text. */
export function same(a: unknown, b: unknown): boolean {
	return a === b || canonical(a) === canonical(b);
}

/** A value as text with its keys in order and empty fields left out. */
function canonical(value: unknown): string {
	return (
		JSON.stringify(value, (_, v) => {
			if (v === "" || v === false || v === 0 || v === null) return undefined;
			if (typeof v === "number") return String(v);
			if (Array.isArray(v)) return v.length === 0 ? undefined : v;
			if (typeof v === "object")
				return Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)));
			return v;
		}) ?? ""
	);
}

/** What makes one document into another. What both share is not looked into. */
export function patch(from: unknown, to: unknown, path = ""): Operation[] {
	if (from === to) return [];
	if (!isTree(from) || !isTree(to) || Array.isArray(from) !== Array.isArray(to))
		return [{ op: "replace", path, value: to }];
	const out: Operation[] = [];
	if (Array.isArray(from) && Array.isArray(to)) {
		const both = Math.min(from.length, to.length);
		for (let i = 0; i < both; i++) out.push(...patch(from[i], to[i], `${path}/${i}`));
		for (let i = from.length - 1; i >= both; i--) out.push({ op: "remove", path: `${path}/${i}` });
		for (let i = both; i < to.length; i++) out.push({ op: "add", path: `${path}/-`, value: to[i] });
		return out;
	}
	for (const key of new Set([...Object.keys(from), ...Object.keys(to)])) {
		const place = `${path}/${escaped(key)}`;
		const [a, b] = [(from as Tree)[key], (to as Tree)[key]];
		if (b === undefined) {
			if (a !== undefined) out.push({ op: "remove", path: place });
		} else if (a === undefined) out.push({ op: "add", path: place, value: b });
		else out.push(...patch(a, b, place));
	}
	return out;
}

/** What tells an element of a list from another: its key or id, or all of it. */
const known = (v: unknown) =>
	(isTree(v) && ((v.key ?? v.id) ? String(v.key ?? v.id) : undefined)) || canonical(v);

/**
 * Takes back one edit, that made before into after, from what stands now: what was
 * typed since stays.
 */
export function takeBack<T>(before: T, after: T, now: T): T {
	if (after === now) return before;
	if (before === after) return now;
	if (Array.isArray(before) && Array.isArray(after) && Array.isArray(now)) {
		if (before.length === after.length && after.length === now.length)
			return now.map((v, i) => takeBack(before[i], after[i], v)) as T;
		const was = before.map(known);
		const is = after.map(known);
		const out = now.filter((v) => !is.includes(known(v)) || was.includes(known(v)));
		before.forEach((v, i) => {
			if (!is.includes(was[i] as string)) out.splice(Math.min(i, out.length), 0, v);
		});
		return out as T;
	}
	if (isTree(before) && isTree(after) && isTree(now) && !Array.isArray(now)) {
		const out: Tree = { ...now };
		for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
			const v = takeBack((before as Tree)[key], (after as Tree)[key], now[key]);
			if (v === undefined) delete out[key];
			else out[key] = v;
		}
		return out as T;
	}
	return same(after, now) ? before : now;
}

/**
 * What two screens made of one document, each in its own places. Where both have changed one place, each its own way,
 * pick is asked which of the two stands there.
 */
export function merge<T>(base: T, theirs: T, mine: T, pick: (theirs: unknown, mine: unknown) => unknown): T {
	if (same(base, theirs) || same(theirs, mine)) return mine;
	if (same(base, mine)) return theirs;
	const all = [base, theirs, mine];
	if (all.every(Array.isArray)) {
		const [b, t, m] = all as unknown as [unknown[], unknown[], unknown[]];
		if (b.length === t.length && t.length === m.length)
			return m.map((v, i) => merge(b[i], t[i], v, pick)) as T;
		return (keyed(b) && keyed(t) && keyed(m) ? mergeLists(b, t, m, pick) : pick(theirs, mine)) as T;
	}
	if (all.every((v) => isTree(v) && !Array.isArray(v))) {
		const out: Tree = {};
		for (const key of new Set(all.flatMap((v) => Object.keys(v as Tree)))) {
			const [b, t, m] = all.map((v) => (v as Tree)[key]);
			const v = merge(b, t, m, pick);
			if (v !== undefined) out[key] = v;
		}
		return out as T;
	}
	return pick(theirs, mine) as T;
}

/** Whether each element of a list has a key of its own. */
const keyed = (list: unknown[]) =>
	list.every((v) => isTree(v) && Boolean(v.key ?? v.id)) && new Set(list.map(known)).size === list.length;

/** Lists of elements with keys: what one screen added or took away stays so. */
function mergeLists(
	base: unknown[],
	theirs: unknown[],
	mine: unknown[],
	pick: (theirs: unknown, mine: unknown) => unknown,
): unknown[] {
	const of = (list: unknown[]) => new Map(list.map((v) => [known(v), v]));
	const [b, t, m] = [of(base), of(theirs), of(mine)];
	const kept = (key: string) => merge(b.get(key), t.get(key), m.get(key), pick);
	const out = [...m.keys()].map(kept);
	theirs.forEach((v, i) => {
		if (!m.has(known(v))) out.splice(Math.min(i, out.length), 0, kept(known(v)));
	});
	return out.filter((v) => v !== undefined);
}
