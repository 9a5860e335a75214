import { CautionList } from "./cautions";
import { useInHand } from "./context";

/** Every rule that applies to any piece, the stops first. */
export function AllCautions() {
	const { sheet } = useInHand();
	const found = (sheet?.pieces ?? []).flatMap((p, piece) =>
		p.cautions.map((c) => ({ ...c, piece, title: p.title })),
	);
	// The same caution of several pieces is shown once.
	const once = found.filter(
		(c, i) =>
			found.findIndex(
				(o) => o.message === c.message && o.id === c.id && (c.severity !== "stop" || o.piece === c.piece),
			) === i,
	);
	const order = { stop: 0, care: 1, note: 2 };
	once.sort((a, b) => order[a.severity] - order[b.severity]);
	if (once.length === 0) return null;
	return (
		<section className="cautions" aria-label="All cautions">
			<h3>Cautions</h3>
			<CautionList found={once} named />
		</section>
	);
}
