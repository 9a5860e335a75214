import { type IDBPDatabase, openDB } from "idb";
import type { Problem } from "../api/client";

/** Something that was pressed or read, on its way to the program. */
export interface Parcel {
	/** In which order it was said; given when it is kept. */
	n?: number;
	cook: string;
	to: "facts" | "readings";
	/** With an id of its own, so that handing it in twice is once. */
	body: { id: string };
	label: string;
}

const again = 2_000;

const open = async () =>
	openDB("verjuice-pit", 1, {
		upgrade(db) {
			db.createObjectStore("out", { keyPath: "n", autoIncrement: true });
			db.createObjectStore("last");
		},
	});

let opened: Promise<IDBPDatabase | undefined> | undefined;
/** The box on this device; none where the browser keeps nothing. */
const box = () => {
	opened ??= open().catch(() => undefined);
	return opened;
};

let held: Parcel[] = [];
let trouble = "";
const listeners = new Set<() => void>();
let shown: { waiting: Parcel[]; trouble: string } = { waiting: held, trouble };

function announce() {
	shown = { waiting: held, trouble };
	for (const tell of listeners) tell();
}

export const outbox = {
	subscribe(tell: () => void) {
		listeners.add(tell);
		return () => listeners.delete(tell);
	},
	now: () => shown,
};

async function load() {
	const db = await box();
	if (db) held = await db.getAll("out");
	announce();
}

/** Keeps what was said on this device, then hands it in: it is not lost when the program does not answer. */
export async function post(parcel: Parcel) {
	trouble = "";
	const db = await box();
	if (db) {
		parcel.n = Number(await db.add("out", parcel));
	} else parcel.n = Date.now() + Math.random();
	held = [...held, parcel];
	announce();
	void flush();
}

async function settle(parcel: Parcel) {
	const db = await box();
	await db?.delete("out", parcel.n ?? 0);
	held = held.filter((p) => p.n !== parcel.n);
	announce();
}

let running = false;
/** Something was said while the box was being emptied. */
let more = false;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Hands in what waits, in the order in which it was said, one page of this browser at a time. */
export async function flush() {
	if (running) {
		more = true;
		return;
	}
	running = true;
	more = false;
	clearTimeout(timer);
	const work = async () => {
		await load();
		for (let next = held[0]; next; next = held[0]) {
			if (!(await sent(next))) {
				timer = setTimeout(flush, again);
				more = false;
				return;
			}
			await settle(next);
		}
	};
	try {
		if (navigator.locks) await navigator.locks.request("verjuice-outbox", work);
		else await work();
	} finally {
		running = false;
	}
	if (more) await flush();
}

/** Whether a parcel has come to its end: it is on record, or it never can be. */
async function sent({ cook, to, body, label }: Parcel): Promise<boolean> {
	let response: Response;
	try {
		response = await fetch(`/api/cooks/${cook}/${to}`, {
			method: "POST",
			headers: { "Content-Type": "application/json" },
			body: JSON.stringify(body),
			signal: AbortSignal.timeout(10_000),
		});
	} catch {
		return false;
	}
	if (response.ok) return true;
	if (response.status >= 500 || response.status === 408 || response.status === 429) return false;
	const problem: Problem | undefined = await response.json().catch(() => undefined);
	trouble = `${label}: ${problem?.errors?.[0]?.message ?? problem?.detail ?? "the program refused it"}`;
	return true;
}

/** The last thing that was shown of a cook, kept for when the program does not answer. */
export async function keepLast(key: string, value: unknown) {
	await (await box())?.put("last", value, key);
}

export async function last<T>(key: string): Promise<T | undefined> {
	return (await box())?.get("last", key);
}

window.addEventListener("online", () => void flush());
void flush();
