import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import kept from "./outbox-2026.json";

/** What was sent: the id of each body, in order. */
let sent: string[];
/** How the program answers: a status, or "away". */
let answers: (id: string) => number | "away";

beforeEach(() => {
	sent = [];
	answers = () => 201;
	vi.stubGlobal("indexedDB", new IDBFactory());
	vi.stubGlobal("fetch", async (_: string, { body }: { body: string }) => {
		const { id } = JSON.parse(body);
		const status = answers(id);
		if (status === "away") throw new TypeError("Failed to fetch");
		sent.push(id);
		return new Response(JSON.stringify({ detail: "no such piece" }), { status });
	});
	vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
});

afterEach(() => {
	vi.useRealTimers();
	vi.unstubAllGlobals();
});

/** A page that is opened: the module anew, over what this device has kept. */
async function page() {
	vi.resetModules();
	return import("./outbox");
}

const press = (id: string) => ({ cook: "c", to: "facts" as const, body: { id }, label: `press ${id}` });

/** The next time that the box tries again by itself. */
const later = () => vi.advanceTimersByTimeAsync(2000);

it("hands in what was said in its order, each once", async () => {
	const { post, outbox } = await page();
	await Promise.all(["1", "2", "3"].map((id) => post(press(id))));
	await vi.waitFor(() => expect(outbox.now().waiting).toEqual([]));
	expect(sent).toEqual(["1", "2", "3"]);
});

it("hands in what is said while another is on its way", async () => {
	const { post, outbox } = await page();
	let answered = () => {};
	const slow = new Promise<void>((done) => {
		answered = done;
	});
	const there = fetch;
	vi.stubGlobal("fetch", async (at: string, what: RequestInit) => {
		await slow;
		return there(at, what);
	});
	await post(press("1"));
	await post(press("2"));
	expect(outbox.now().waiting.length).toBe(2);
	answered();
	await vi.waitFor(() => expect(outbox.now().waiting).toEqual([]));
	expect(sent).toEqual(["1", "2"]);
});

it("keeps what was said while the program does not answer, and hands it in by itself", async () => {
	answers = () => "away";
	const { post, outbox } = await page();
	await post(press("1"));
	await post(press("2"));
	await later();
	expect(outbox.now().waiting.map((p) => p.body.id)).toEqual(["1", "2"]);
	answers = () => 201;
	await later();
	await vi.waitFor(() => expect(outbox.now().waiting).toEqual([]));
	expect(sent).toEqual(["1", "2"]);
});

it("finds what a page left that was closed", async () => {
	answers = () => "away";
	const first = await page();
	await first.post(press("1"));
	answers = () => 201;
	const { outbox } = await page();
	await vi.waitFor(() => expect(sent).toEqual(["1"]));
	await vi.waitFor(() => expect(outbox.now().waiting).toEqual([]));
	const third = await page();
	await third.flush();
	expect(sent).toEqual(["1"]);
});

it("holds the order behind one that cannot be taken just now", async () => {
	for (const status of [500, 503, 507, 408, 429]) {
		answers = (id) => (id === "1" ? status : 201);
		const { post, outbox } = await page();
		await post(press("1"));
		await post(press("2"));
		await later();
		expect(sent).not.toContain("2");
		answers = () => 201;
		await later();
		await vi.waitFor(() => expect(outbox.now().waiting).toEqual([]));
		expect(sent.slice(-2)).toEqual(["1", "2"]);
		sent = [];
	}
});

it("says what the program refused, and goes on with the next", async () => {
	answers = (id) => (id === "1" ? 422 : 201);
	const { post, outbox } = await page();
	await Promise.all([post(press("1")), post(press("2"))]);
	await vi.waitFor(() => expect(outbox.now().waiting).toEqual([]));
	expect(sent).toEqual(["1", "2"]);
	expect(outbox.now().trouble).toBe("press 1: no such piece");
});

it("works where the browser keeps nothing", async () => {
	vi.stubGlobal("indexedDB", {
		open: () => {
			throw new Error("not here");
		},
	});
	const { post, outbox } = await page();
	await post(press("1"));
	await vi.waitFor(() => expect(outbox.now().waiting).toEqual([]));
	expect(sent).toEqual(["1"]);
});

it("hands in what a phone kept under the program of November 2026", async () => {
	const db = await new Promise<IDBDatabase>((done) => {
		const asked = indexedDB.open("verjuice-pit", 1);
		asked.onupgradeneeded = () => {
			asked.result.createObjectStore("out", { keyPath: "n", autoIncrement: true });
			asked.result.createObjectStore("last");
		};
		asked.onsuccess = () => done(asked.result);
	});
	await new Promise((done) => {
		const writing = db.transaction("out", "readwrite");
		for (const parcel of kept) writing.objectStore("out").add(parcel);
		writing.oncomplete = done;
	});
	db.close();
	const at: string[] = [];
	const there = fetch;
	vi.stubGlobal("fetch", async (address: string, what: RequestInit) => {
		at.push(address);
		return there(address, what);
	});
	const { outbox } = await page();
	await vi.waitFor(() => expect(sent.length).toBe(3));
	await vi.waitFor(() => expect(outbox.now().waiting).toEqual([]));
	expect(sent).toEqual(kept.map((p) => p.body.id));
	expect(at).toEqual(kept.map((p) => `/api/cooks/${p.cook}/${p.to}`));
});
