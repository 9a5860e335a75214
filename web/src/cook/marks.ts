import type { Cook } from "../api/client";

/** Fixes the time of a stage of a piece; what was fixed for it before is gone. */
export function fix(cook: Cook, piece: string, stage: string, at: string) {
	cook.wishes = [
		...(cook.wishes ?? []).filter((w) => w.piece !== piece || w.stage !== stage),
		{ piece, stage, at },
	];
}

/** Serves it at another time: what is eaten at a time of its own stays as much sooner or later. */
export function serveAt(cook: Cook, at: string) {
	const by = Date.parse(`${at}Z`) - Date.parse(`${cook.serve_at}Z`);
	cook.serve_at = at;
	if (!by) return;
	for (const p of cook.pieces) if (p.serve_at) p.serve_at = local(Date.parse(`${p.serve_at}Z`) + by, "UTC");
}

/** Lets the time of a stage move again. */
export function unfix(cook: Cook, piece: string, stage: string) {
	cook.wishes = (cook.wishes ?? []).filter((w) => w.piece !== piece || w.stage !== stage);
}

/** A moment as the place's own clock shows it, the way times are typed. */
export function local(at: number, zone: string): string {
	return new Date(at)
		.toLocaleString("sv", { timeZone: zone || "UTC", dateStyle: "short", timeStyle: "short" })
		.replace(" ", "T");
}

/** A moment as the place's own clock shows it, hours and minutes. */
export function clock(at: number, zone: string): string {
	return new Date(at).toLocaleTimeString("sv", { timeZone: zone || "UTC", timeStyle: "short" });
}
