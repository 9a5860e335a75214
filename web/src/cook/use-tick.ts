import { now } from "../shared/clock";
import { useInHand } from "./context";

/** Ticks a line of a list off, or withdraws its ticks. */
export function useTick() {
	const { facts, say } = useInHand();
	return (line: { tick: string; ticked: boolean }) => {
		const at = new Date(now() ?? 0).toISOString();
		if (!line.ticked) say({ kind: "ticked", what: line.tick, at });
		else
			for (const f of facts.filter((f) => f.kind === "ticked" && f.what === line.tick))
				say({ kind: "withdrawn", what: f.id, at });
	};
}
