import { useMemo } from "react";
import type { Fact } from "../api/client";
import { uuid } from "../shared/uuid";
import { post } from "./outbox";
import { clockOf, type LivePiece, type Press, type Standing } from "./use-live";

/** Who presses on this device. */
export const person = {
	get: () => localStorage.getItem("verjuice.person") ?? "",
	set: (name: string) => localStorage.setItem("verjuice.person", name.trim()),
};

/** Who presses, and on which screen: kept on this device. */
const who = () => ({ author: person.get(), device: deviceName() });

function deviceName(): string {
	let name = localStorage.getItem("verjuice.screen");
	if (!name) {
		name = `screen ${uuid().slice(0, 4)}`;
		localStorage.setItem("verjuice.screen", name);
	}
	return name;
}

type Said = Omit<Fact, "id" | "at" | "author" | "device"> & { at?: string };

/** Says what was done, seen or read: kept on this device, then handed in. */
export function useSay(cook: string, standing: Standing) {
	return useMemo(() => {
		const fact = (label: string, said: Said) => {
			const at = said.at ?? new Date(clockOf(standing)).toISOString();
			return post({ cook, to: "facts", label, body: { ...said, ...who(), id: uuid(), at } as Fact });
		};
		return {
			fact,
			done: (p: Press, piece: LivePiece, values?: Press["values"], at?: string) =>
				fact(p.label, {
					at,
					kind: "done",
					what: p.what,
					piece: p.pit ? "" : piece.key,
					values: { ...p.values, ...values },
				}),
			/** Takes back what was pressed or read last, or before. */
			undo(l: { id: string; label: string; probe?: string; from?: string }) {
				if (l.probe) return this.counts(`Undo: ${l.label}`, l, false);
				return fact(`Undo: ${l.label}`, { kind: "withdrawn", what: l.id });
			},
			/** Readings of a probe from one time to another count, or do not. */
			counts: (label: string, r: { probe?: string; from?: string; to?: string }, yes: boolean) =>
				fact(label, {
					kind: yes ? "counted" : "uncounted",
					what: r.probe ?? "",
					values: { from: r.from, to: r.to ?? r.from },
				}),
			reading(label: string, probe: string, typed: string, when?: string) {
				const at = when ?? new Date(clockOf(standing)).toISOString();
				const body = { id: uuid(), device: who().device, readings: [{ probe, at, typed }] };
				return post({ cook, to: "readings", label, body });
			},
		};
	}, [cook, standing]);
}

export type Say = ReturnType<typeof useSay>;
