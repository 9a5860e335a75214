import { describe, expect, it } from "vitest";
import { applied, at, merge, type Operation, patch, put, same, takeBack } from "./pointer";

/** Random numbers from a written seed (mulberry32), so that a failure can be repeated. */
function seeded(seed: number) {
	let state = seed;
	return () => {
		state = (state + 0x6d2b79f5) | 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
}

type Json = string | number | boolean | null | Json[] | { [key: string]: Json };

/** Any document: nested lists and objects, with keys that have to be escaped in a pointer. */
function any(random: () => number, deep = 3): Json {
	const kind = Math.floor(random() * (deep > 0 ? 6 : 4));
	const many = Math.floor(random() * 4);
	if (kind === 0) return ["", "85 mm", "½ cup", "a/b~c"][many] as string;
	if (kind === 1) return Math.floor(random() * 5);
	if (kind === 2) return random() < 0.5;
	if (kind === 3) return null;
	if (kind === 4) return Array.from({ length: many }, () => any(random, deep - 1));
	return Object.fromEntries(
		["name", "a/b", "~tilde", "pieces"].slice(0, many).map((key) => [key, any(random, deep - 1)]),
	);
}

/** What RFC 6902 says of the operations that patch makes. */
function apply(doc: unknown, operations: Operation[]): unknown {
	return operations.reduce<unknown>((now, { op, path, value }) => {
		if (path === "") return value;
		const cut = path.lastIndexOf("/");
		const [parent, last] = [path.slice(0, cut), path.slice(cut + 1)];
		const inside = at(now, parent);
		if (!Array.isArray(inside)) return put(now, path, op === "remove" ? undefined : value);
		if (op === "add") return put(now, parent, [...inside, value]);
		if (op === "remove") return put(now, parent, inside.toSpliced(Number(last), 1));
		return put(now, parent, inside.with(Number(last), value));
	}, doc);
}

describe("a patch", () => {
	it("makes any document into any other, and nothing where they are the same", () => {
		const random = seeded(11);
		for (let n = 0; n < 3000; n++) {
			const [from, to] = [any(random), any(random)];
			expect(apply(from, patch(from, to))).toEqual(to);
			expect(patch(from, from)).toEqual([]);
		}
	});

	it("says only what was changed", () => {
		const from = { name: "Supper", pieces: [{ key: "a", cut: "loin" }, { key: "b" }], "a/b~c": 1 };
		const to = put(put(from, "/pieces/0/cut", "shoulder"), "/a~1b~0c", 2);
		expect(patch(from, to)).toEqual([
			{ op: "replace", path: "/pieces/0/cut", value: "shoulder" },
			{ op: "replace", path: "/a~1b~0c", value: 2 },
		]);
		expect(to.pieces[1]).toBe(from.pieces[1]);
	});
});

describe("edits that the program offers", () => {
	it("are made one after the other, in lists and in objects", () => {
		const doc = { pieces: [{ key: "a" }, { key: "b", rest: "1 h" }] };
		const edits = [
			{ pointer: "/pieces/1/rest", value: "2 h" },
			{ pointer: "/pieces/0", value: "", remove: true },
		];
		expect(applied(doc, edits)).toEqual({ pieces: [{ key: "b", rest: "2 h" }] });
		expect(applied(doc, [{ pointer: "/pieces/1/rest", value: "", remove: true }]).pieces[1]).toEqual({
			key: "b",
		});
	});
});

describe("an edit that is taken back", () => {
	const supper = {
		guests: "34",
		pieces: [
			{ key: "a", trimmed: "2.4 kg", coat: "light" },
			{ key: "b", trimmed: "1.8 kg", coat: "light" },
			{ key: "c", trimmed: "2 kg", coat: "light" },
		],
	};

	it("leaves what was typed since in other places", () => {
		const after = put(supper, "/pieces/0/coat", "heavy");
		const now = put(put(after, "/guests", "40"), "/pieces/0/trimmed", "2.5 kg");
		expect(takeBack(supper, after, now)).toEqual(
			put(put(supper, "/guests", "40"), "/pieces/0/trimmed", "2.5 kg"),
		);
	});

	it("leaves what was typed since in the same place", () => {
		const after = put(supper, "/guests", "40");
		expect(takeBack(supper, after, put(after, "/guests", "44")).guests).toBe("44");
	});

	it("brings a removed piece back to its place, beside one that was added since", () => {
		const after = { ...supper, pieces: supper.pieces.toSpliced(1, 1) };
		const now = { ...after, pieces: [...after.pieces, { key: "d", trimmed: "1 kg", coat: "light" }] };
		expect(takeBack(supper, after, now).pieces.map((p) => p.key)).toEqual(["a", "b", "c", "d"]);
	});

	it("takes an added piece away, and keeps what was typed in the others", () => {
		const after = { ...supper, pieces: [...supper.pieces, { key: "d", trimmed: "", coat: "" }] };
		const now = put(after, "/pieces/2/coat", "medium");
		const back = takeBack(supper, after, now);
		expect(back.pieces.map((p) => p.key)).toEqual(["a", "b", "c"]);
		expect(back.pieces[2]?.coat).toBe("medium");
	});

	it("is as if it had never been, where nothing came after", () => {
		const random = seeded(12);
		for (let n = 0; n < 1000; n++) {
			const [before, after] = [any(random), any(random)];
			expect(takeBack(before, after, after)).toBe(before);
		}
	});
});

describe("two screens", () => {
	const base = { guests: "34", note: "", pieces: [{ key: "a", coat: "light", kg: "2" }] };
	type Doc = typeof base;
	const clashes: unknown[][] = [];
	const both = (theirs: Doc, mine: Doc): Doc => {
		clashes.length = 0;
		return merge(base, theirs, mine, (...two) => {
			clashes.push(two);
			return two[1];
		});
	};

	it("keep what each has changed elsewhere", () => {
		const longer = { ...base, pieces: [{ key: "b", coat: "", kg: "" }, ...base.pieces] };
		for (const theirs of [put(base, "/guests", "40"), put(base, "/pieces/0/kg", "3"), longer]) {
			const one = both(theirs, put(base, "/pieces/0/coat", "heavy"));
			expect(clashes).toEqual([]);
			expect(one).toEqual(put(theirs, `/pieces/${theirs.pieces.length - 1}/coat`, "heavy"));
			expect(both(one, theirs)).toEqual(one);
		}
		expect(both({ ...base, pieces: [] }, put(base, "/guests", "40"))).toEqual({
			...base,
			guests: "40",
			pieces: [],
		});
		expect(both({ ...base, note: "" }, base)).toBe(base);
	});

	it("are asked where both changed one place", () => {
		expect(both(put(base, "/guests", "40"), put(base, "/guests", "41")).guests).toBe("41");
		expect(clashes).toEqual([["40", "41"]]);
		both({ ...base, pieces: [] }, put(base, "/pieces/0/kg", "3"));
		expect(clashes).toEqual([[undefined, { key: "a", coat: "light", kg: "3" }]]);
	});

	it("lose nothing, whatever each has done", () => {
		const random = seeded(14);
		for (let n = 0; n < 1000; n++) {
			const [was, theirs, mine] = [any(random), any(random), any(random)];
			expect(merge(was, theirs, was, () => "clash")).toEqual(same(was, theirs) ? was : theirs);
			expect(merge(was, was, mine, () => "clash")).toBe(mine);
			expect(
				same(
					merge(was, mine, mine, () => "clash"),
					mine,
				),
			).toBe(true);
		}
	});
});

it("takes an empty field for none, and a count for its text", () => {
	expect(same({ a: "", b: [], c: 0, d: null, e: false, f: 3 }, { f: "3" })).toBe(true);
	expect(same({ a: "1" }, { a: "2" })).toBe(false);
	expect(same({ a: 1, b: 2 }, { b: 2, a: 1 })).toBe(true);
});
