/**
 * This tab, among several that may show the same record: each keeps its own draft. A
 * tab that is reloaded is the same tab; one that was closed or killed leaves its drafts
 * to the next that opens the record.
 */
const store = "verjuice.tab";
const stillThere = 10 * 60_000;

const fresh = () => crypto.getRandomValues(new Uint32Array(2)).join("");

/** Held for as long as the tab lives, where the browser has locks. */
async function hold(id: string): Promise<boolean> {
	if (!navigator.locks) return true;
	// A reloaded page has to wait a moment for itself to be gone.
	const given = AbortSignal.timeout(400);
	return new Promise((resolve) => {
		navigator.locks
			.request(`${store}.${id}`, { signal: given }, () => {
				resolve(true);
				return new Promise(() => {});
			})
			.catch(() => resolve(false));
	});
}

/** The id of this tab. A copy of a tab is another one. */
export const tab: Promise<string> = (async () => {
	const before = sessionStorage.getItem(store);
	if (before && (await hold(before))) return before;
	const id = fresh();
	sessionStorage.setItem(store, id);
	await hold(id);
	return id;
})();

let known: string | undefined;
tab.then((id) => {
	known = id;
});

/** What is typed and not on record, and what it was typed over. */
export interface Draft<T> {
	doc: T;
	base: T;
	version: number;
	at: number;
	/** Under which a new one is made, however often it is sent. */
	key?: string;
}

const key = (record: string, of: string) => `verjuice.draft.${record}.${of}`;

function read<T>(name: string): Draft<T> | undefined {
	try {
		return JSON.parse(localStorage.getItem(name) ?? "null") ?? undefined;
	} catch {
		return undefined;
	}
}

/** The draft of this tab, or else that of a tab which is no longer there. */
export async function findDraft<T>(record: string): Promise<Draft<T> | undefined> {
	const mine = await tab;
	const own = read<T>(key(record, mine));
	if (own) return own;
	const held = await navigator.locks?.query();
	const alive = new Set(held?.held?.map((l) => l.name));
	const left = Object.keys(localStorage)
		.filter((name) => name.startsWith(key(record, "")))
		.map((name) => ({ name, draft: read<T>(name) }))
		.filter(({ name, draft }) => {
			const of = name.slice(key(record, "").length);
			return draft && (held ? !alive.has(`${store}.${of}`) : Date.now() - draft.at > stillThere);
		})
		.sort((a, b) => (b.draft?.at ?? 0) - (a.draft?.at ?? 0));
	const [found] = left;
	if (!found?.draft) return undefined;
	localStorage.setItem(key(record, mine), JSON.stringify(found.draft));
	localStorage.removeItem(found.name);
	return found.draft;
}

/** Keeps what is typed on this device: at once, since the page may be going. */
export function keepDraft<T>(record: string, draft: Draft<T>) {
	if (known) localStorage.setItem(key(record, known), JSON.stringify(draft));
}

/** Forgets it, because it is on record or was given up. */
export function dropDraft(record: string) {
	if (known) localStorage.removeItem(key(record, known));
}
