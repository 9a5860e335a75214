import { Choice } from "../shared/choice";
import { usePiece } from "./context";

/** The decisions of a stage, each with its schools and what they do to the numbers. */
export function Choices({ index, stage }: { index: number; stage: "piece" | "fire" | "rest" }) {
	const { figures, edit, wrong } = usePiece(index);
	return (
		<div className="decisions">
			{(figures?.decisions ?? [])
				.filter((c) => c.stage === stage)
				.map((c) => (
					<Choice
						key={c.key}
						label={c.label}
						value={c.value}
						error={wrong(`choices/${c.key}`)}
						options={c.options}
						onChange={(v) =>
							edit((p) => {
								p.choices = { ...p.choices, [c.key]: v };
							})
						}
					/>
				))}
		</div>
	);
}
