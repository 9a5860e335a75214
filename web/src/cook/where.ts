import type { Mistake, Sheet } from "../api/client";

/** The JSON pointer of a part of the sheet. */
export function pointerTo(sheet: Sheet, part: object): string | undefined {
	const look = (v: unknown, path: string): string | undefined => {
		if (v === part) return path;
		if (typeof v !== "object" || v === null) return undefined;
		for (const [key, one] of Object.entries(v)) {
			const found = look(one, `${path}/${key}`);
			if (found) return found;
		}
		return undefined;
	};
	return look(sheet, "");
}

/** The stages of a piece in working order, each with its name and the line of the sheet that says how far it is. */
export const pieceStages = [
	{ key: "piece", label: "Piece and trim", line: "piece" },
	{ key: "brine", label: "Brine and inject", line: "brine" },
	{ key: "season", label: "Salt and season", line: "season" },
	{ key: "wait", label: "Wait", line: "wait" },
	{ key: "fire", label: "Fire and rest", line: "fire" },
	{ key: "moves", label: "The moves", line: "moves" },
	{ key: "forecast", label: "Forecast", line: "ahead" },
] as const;

/** The page that shows a field: its stage, and its piece if it is one's. */
export interface Place {
	stage: string;
	piece?: number;
}

const plan = ["pits", "quiet", "hands", "plan", "wishes"];
const stages: Record<string, string> = {
	bath: "brine",
	inject: "brine",
	season: "season",
	layers: "season",
	weighed: "weigh",
	wait: "wait",
	fire: "fire",
	when: "moves",
	moves: "moves",
};

/** Where the field is that a mistake is in. */
export function placeOf({ pointer }: Mistake, sheet: Sheet | undefined): Place {
	const [head = "", piece = "", field = "", key] = pointer.split("/").slice(1);
	if (head !== "pieces") return { stage: plan.includes(head) ? "plan" : "occasion" };
	const decision = sheet?.pieces[Number(piece)]?.decisions.find((d) => d.key === key);
	const of =
		field === "choices"
			? decision?.stage === "piece" || decision?.stage === "forecast"
				? decision.stage
				: "fire"
			: (stages[field] ?? "piece");
	return { stage: of, piece: Number(piece) };
}

/** The address of a place. */
export const addressOf = (id: string, { stage, piece }: Place) =>
	`/cooks/${id}/${stage}${piece === undefined ? "" : `/${piece + 1}`}`;
