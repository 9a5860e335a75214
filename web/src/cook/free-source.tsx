import { ChoiceField } from "../record/field";
import { Ask } from "../shared/ask";
import { usePiece } from "./context";

/** Which of the doses gives way so that the target is met. */
export function FreeSource({ index }: { index: number }) {
	const { piece, figures, at, catalogue } = usePiece(index);
	const layers = piece.layers ?? [];
	if (!piece.bath && !piece.inject && layers.length === 0) return null;
	const freed = figures?.ledger?.freed;
	return (
		<div className="free-source">
			<ChoiceField
				label="What is adjusted to the target"
				at={at("season/free")}
				usual="rub"
				options={[
					{ value: "rub", label: "the rub" },
					...(piece.bath ? [{ value: "bath", label: "the bath" }] : []),
					...(piece.inject ? [{ value: "inject", label: "the injection" }] : []),
					...layers.map((l, i) => ({ value: `layer-${i}`, label: `the ${l.kind}: ${l.formula.name}` })),
				]}
			/>
			{freed && (
				<p className="says">
					The coat sets the rub; {freed.name} is adjusted:{" "}
					<Ask size="large" name={`How much ${freed.name}`} figure={freed.amount} />
				</p>
			)}
			{freed && (
				<ChoiceField
					label="Coat of the rub"
					at={at("season/coat")}
					usual={catalogue.usual.coat}
					options={catalogue.coats.map((c) => ({ value: c.name, label: c.name }))}
				/>
			)}
		</div>
	);
}
