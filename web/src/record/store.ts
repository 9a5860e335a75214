import { produce } from "immer";
import { uuid } from "../shared/uuid";
import { merge, put, same, takeBack } from "./pointer";
import { type Draft, dropDraft, keepDraft } from "./tab";

/** A record as it is saved. */
export interface Saved<T> {
	id: string;
	version: number;
	doc: T;
}

/** How often what is typed is kept on this device, ms. */
const keepEvery = 250;

/** What is typed of a record, and what is on record, at one moment. */
export interface Typed<T> {
	readonly doc: T;
	/** As it is on record, or as a new one begins. */
	readonly base: T;
	/** Empty until it is on record. */
	readonly id: string;
	readonly version: number;
	/** How often more than a field was changed: rows that came or went have to be drawn at once. */
	readonly edits: number;
}

/**
 * What is typed of one record, whoever looks at it. Everything that is not changed
 * stays the same object, so that only what shows it is drawn again.
 */
export class Typing<T> {
	now: Typed<T>;
	/** Under which a new one is made, however often it is sent. */
	readonly key: string;
	/** A new one was sent before: what is on record may be what was typed then. */
	sent = false;
	readonly #kind: string;
	/** Where it was opened: that of a new one stays for a moment after it has an id. */
	readonly address: string;
	#listeners = new Set<() => void>();
	#kept?: ReturnType<typeof setTimeout>;

	/** It goes on with what was typed before, on this device. */
	resumed: boolean;

	constructor(kind: string, address: string, saved: Saved<T>, draft?: Draft<T>) {
		this.#kind = kind;
		this.resumed = draft !== undefined;
		this.address = address;
		this.key = draft?.key ?? uuid();
		this.sent = draft?.key !== undefined;
		this.now = {
			id: saved.id,
			base: draft?.base ?? saved.doc,
			version: draft?.version ?? saved.version,
			doc: draft?.doc ?? saved.doc,
			edits: 0,
		};
	}

	/** Under which it is kept on this device: that of a new one is its address. */
	get name() {
		return `${this.#kind}.${this.now.id || this.address}`;
	}

	subscribe = (tell: () => void) => {
		this.#listeners.add(tell);
		return () => this.#listeners.delete(tell);
	};

	#set(next: Partial<Typed<T>>) {
		if (next.doc === this.now.doc) return;
		this.now = { ...this.now, ...next };
		if (next.doc !== undefined) this.#kept ??= setTimeout(this.keep, keepEvery);
		for (const tell of this.#listeners) tell();
	}

	/** Writes what is typed down on this device, unless it is what is on record. */
	keep = () => {
		clearTimeout(this.#kept);
		this.#kept = undefined;
		const { doc, base, version } = this.now;
		if (same(doc, base)) dropDraft(this.name);
		else keepDraft(this.name, { doc, base, version, at: Date.now(), key: this.sent ? this.key : undefined });
	};

	/** Types at a JSON pointer. */
	put = (pointer: string, value: unknown) => this.#set({ doc: put(this.now.doc, pointer, value) });

	/** Makes a change of several parts, and returns what takes that one change back. */
	edit = (change: (doc: T) => void): (() => void) => {
		const before = this.now.doc;
		const after = produce(before, change as (doc: unknown) => void) as T;
		this.#set({ doc: after, edits: this.now.edits + 1 });
		return () => this.#set({ doc: takeBack(before, after, this.now.doc), edits: this.now.edits + 1 });
	};

	/** Begins anew, and returns what puts back what was typed. */
	anew = (): (() => void) => {
		const before = this.now.doc;
		const put = (doc: T, resumed: boolean) => {
			this.resumed = resumed;
			this.#set({ doc, edits: this.now.edits + 1 });
		};
		put(this.now.base, false);
		return () => put(before, true);
	};

	/** Notes that a new one is being sent, and returns whether it was before. */
	sends(): boolean {
		const before = this.sent;
		this.sent = true;
		this.keep();
		return before;
	}

	/** Notes that sent is on record now; what was typed meanwhile is not. */
	saved(sent: T, done: Saved<T>) {
		this.forget();
		this.sent = false;
		this.#set({ id: done.id, version: done.version, base: sent });
		this.keep();
	}

	/**
	 * Takes what another screen has put on record meanwhile as what this was typed over, with what it changed. Where both
	 * changed one place it does so only when it is said whose stands there.
	 */
	catchUp({ doc, version }: Saved<T>, keep?: "theirs" | "mine"): boolean {
		let clash = false;
		const both = merge(this.now.base, doc, this.now.doc, (theirs, mine) => {
			clash = true;
			return keep === "theirs" ? theirs : mine;
		});
		if (clash && !keep) return false;
		this.now = { ...this.now, base: doc, version };
		this.#set({ doc: both, edits: this.now.edits + 1 });
		for (const tell of this.#listeners) tell();
		this.keep();
		return true;
	}

	/** What stands here with what another screen changed elsewhere: where both changed a place, what is typed here. */
	beside(doc: T): T {
		return merge(this.now.base, doc, this.now.doc, (_, mine) => mine);
	}

	/** Gives up what is typed. */
	giveUp() {
		this.now = { ...this.now, doc: this.now.base };
		this.forget();
	}

	/** Forgets what was kept on this device. */
	forget() {
		clearTimeout(this.#kept);
		this.#kept = undefined;
		dropDraft(this.name);
	}
}
