import type { Cook } from "../api/client";

/** Fixes or notes the time of a stage of a piece; what was wished for it before is gone. */
export function mark(cook: Cook, piece: string, stage: string, at: string, done: boolean) {
	cook.marks = [
		...(cook.marks ?? []).filter((m) => m.piece !== piece || m.stage !== stage || (m.done && done)),
		{ piece, stage, at, done },
	];
}

/** Takes back what was fixed or noted of a stage. */
export function unmark(cook: Cook, piece: string, stage: string) {
	cook.marks = (cook.marks ?? []).filter((m) => m.piece !== piece || m.stage !== stage);
}

/** A moment as the place's own clock shows it, the way marks are kept. */
export function local(at: number, zone: string): string {
	return new Date(at)
		.toLocaleString("sv", { timeZone: zone || "UTC", dateStyle: "short", timeStyle: "short" })
		.replace(" ", "T");
}
