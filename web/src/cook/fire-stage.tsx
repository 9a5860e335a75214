import { Field } from "../record/field";
import { useField } from "../record/use-field";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { Choices } from "./choices";
import { usePiece } from "./context";
import "./plan-page.css";

/** Fire, wrap and rest: which pit, how hot, what is done in between, and how long it holds. */
export function FireStage({ index }: { index: number }) {
	const { piece, figures, at, wrong, cook } = usePiece(index);
	const pit = useField(at("fire/on"));
	const c = figures?.clock;
	const fire = piece.fire;
	const off = c?.steps.find((s) => s.key === "off");
	const on = c?.steps.find((s) => s.key === "fire");
	return (
		<>
			<h2>Fire, wrap and rest</h2>
			{c && (
				<div className="amounts">
					<div>
						<p className="fire-big">{c.fire}</p>
						<p>on the fire, {c.fire_range}</p>
					</div>
					{on && (
						<div>
							<Ask
								size="huge"
								name="On the fire at"
								figure={{ ...on.figure, text: on.time }}
								of={on.figure}
							/>
							<p>on the fire, {on.day}</p>
						</div>
					)}
					{off && (
						<div>
							<Ask
								size="huge"
								name="Off the fire about"
								figure={{ ...off.figure, text: off.time }}
								of={off.figure}
							/>
							<p>off, {off.note}</p>
						</div>
					)}
				</div>
			)}
			{(cook.pits?.length ?? 0) > 1 && (
				<Choice
					label="On which pit"
					value={String(fire.on ?? 0)}
					error={wrong("fire/on")}
					onChange={(v) => pit.set(Number(v))}
					options={(cook.pits ?? []).map((p, i) => ({ value: String(i), label: p.name }))}
				/>
			)}
			<div className="fields fields-five">
				<Field
					label="Pit at"
					at={at("fire/pit")}
					usual={figures?.usual_pit}
					hint={piece.fire.pit ? undefined : figures?.pit_note}
				/>
				<Field
					label="Take off at (core)"
					at={at("fire/done")}
					usual={piece.when?.off || figures?.usual_core}
					instead={at("when/off")}
				/>
				<Field label="Time, if known" at={at("fire/time")} usual={c?.fire} />
				<Field label="Rest" at={at("fire/rest")} usual={figures?.usual_rest} />
				<Field label="Out of the fridge" at={at("fire/temper")} usual="none" />
			</div>
			<Choices index={index} stage="fire" />
			<Choices index={index} stage="rest" />
			{c && (
				<p className="says">
					The time on the fire is from {c.source}. {figures?.grain_note}
				</p>
			)}
		</>
	);
}
