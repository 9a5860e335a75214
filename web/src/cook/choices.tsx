import { Fragment } from "react";
import { ChoiceField, Field } from "../record/field";
import { usePaused } from "../shared/pace";
import { usePiece } from "./context";

/** What the list of moves says instead of a decision, where the cook wrote it there. */
const instead: Record<string, string> = { "wrap-at": "when/wrap", spritz: "when/spritz" };

/** The decisions of a stage, each with its schools and what they do to the numbers. */
export function Choices({ index, stage }: { index: number; stage: "piece" | "fire" | "rest" | "forecast" }) {
	const { figures, at, catalogue } = usePiece(index);
	const decided = usePaused(figures?.decisions);
	return (
		<div className="decisions">
			{(decided ?? [])
				.filter((c) => c.stage === stage)
				.map((c) => (
					<Fragment key={c.key}>
						<ChoiceField
							label={c.label}
							at={at(`choices/${c.key}`)}
							usual={c.value}
							folds={stage !== "piece"}
							options={c.options}
							instead={instead[c.key] && at(instead[c.key] ?? "")}
						/>
						{c.key === "wood" && c.value === "mixed" && (
							<Field label="Woods in parts" at={at("fire/wood")} usual={catalogue.usual.woods} />
						)}
					</Fragment>
				))}
		</div>
	);
}
