import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { TypedField } from "../shared/typed-field";
import { Choices } from "./choices";
import { usePiece } from "./context";
import "./plan-page.css";

/** Fire, wrap and rest: which pit, how hot, what is done in between, and how long it holds. */
export function FireStage({ index }: { index: number }) {
	const { piece, figures, edit, wrong, cook } = usePiece(index);
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
							<Ask size="huge" name="On the fire at" figure={{ ...on.figure, text: on.time }} />
							<p>on the fire, {on.day}</p>
						</div>
					)}
					{off && (
						<div>
							<Ask size="huge" name="Off the fire about" figure={{ ...off.figure, text: off.time }} />
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
					onChange={(v) =>
						edit((p) => {
							p.fire.on = Number(v);
						})
					}
					options={(cook.pits ?? []).map((p, i) => ({ value: String(i), label: p.name }))}
				/>
			)}
			<div className="fields fields-four">
				<TypedField
					label="Pit at"
					value={fire.pit}
					usual={figures?.usual_pit}
					error={wrong("fire/pit")}
					onChange={(v) =>
						edit((p) => {
							p.fire.pit = v;
						})
					}
				/>
				<TypedField
					label="Take off at (core)"
					value={fire.done ?? ""}
					usual={figures?.usual_core}
					error={wrong("fire/done")}
					onChange={(v) =>
						edit((p) => {
							p.fire.done = v;
						})
					}
				/>
				<TypedField
					label="Time, if you know it"
					value={fire.time}
					usual={c?.fire}
					error={wrong("fire/time")}
					onChange={(v) =>
						edit((p) => {
							p.fire.time = v;
						})
					}
				/>
				<TypedField
					label="Rest"
					value={fire.rest}
					usual={figures?.usual_rest}
					error={wrong("fire/rest")}
					onChange={(v) =>
						edit((p) => {
							p.fire.rest = v;
						})
					}
				/>
				<TypedField
					label="Temper on the counter"
					value={fire.temper}
					usual="none"
					error={wrong("fire/temper")}
					onChange={(v) =>
						edit((p) => {
							p.fire.temper = v;
						})
					}
				/>
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
