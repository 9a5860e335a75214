import { afterEach, expect, it, vi } from "vitest";

/** How the program answers a GET, then a PUT: a status and what it says. */
function answers(...all: [number, unknown][]) {
	vi.resetModules();
	vi.stubGlobal("fetch", async () => {
		const [status, body] = all.shift() ?? [500, {}];
		if (status === 0) throw new TypeError("Failed to fetch");
		return new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
	});
	// The client takes a whole address where there is no page.
	vi.stubGlobal(
		"Request",
		class extends Request {
			constructor(at: string, how?: RequestInit) {
				super(new URL(at, "http://127.0.0.1"), { ...how, signal: undefined });
			}
		},
	);
	return import("./serve-at").then(({ serveAt }) =>
		serveAt("c", [{ pointer: "/serve_at", value: "2026-11-28T19:30" }]),
	);
}

afterEach(() => vi.unstubAllGlobals());

const there: [number, unknown] = [200, { version: 3, cook: { name: "Supper" } }];

it("says what happened, whatever happened", async () => {
	expect(await answers(there, [200, {}])).toBe("");
	expect(await answers([404, { detail: "nothing on record" }])).toContain("this cook-out is gone");
	expect(await answers([503, { detail: "The database does not answer." }])).toContain(
		"The database does not answer.",
	);
	expect(await answers(there, [412, { detail: "changed" }])).toContain("somebody else changed");
	expect(await answers(there, [507, { detail: "The disk is full: nothing was saved." }])).toContain(
		"The disk is full",
	);
	expect(
		await answers(there, [
			422,
			{ detail: "not saved", errors: [{ pointer: "/serve_at", message: "this has passed" }] },
		]),
	).toContain("this has passed");
	expect(await answers([0, {}])).toContain("Verjuice is not responding");
	expect(await answers(there, [0, {}])).toContain("Verjuice is not responding");
});
