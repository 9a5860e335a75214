import { expect, it } from "vitest";
import type { Cook } from "../api/client";
import { serveAt } from "./marks";

it("moves what is eaten at a time of its own with the serving time", () => {
	const cook = {
		serve_at: "2026-12-05T19:00",
		pieces: [{ serve_at: "2026-12-05T12:30" }, { serve_at: "" }],
	} as Cook;
	serveAt(cook, "2026-12-06T18:00");
	expect(cook.pieces.map((p) => p.serve_at)).toEqual(["2026-12-06T11:30", ""]);
	serveAt(cook, "");
	expect(cook.pieces[0]?.serve_at).toBe("2026-12-06T11:30");
	serveAt(cook, "2026-12-07T19:00");
	expect(cook.pieces[0]?.serve_at).toBe("2026-12-06T11:30");
});
