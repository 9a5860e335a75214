import { WarningFilled } from "@ant-design/icons";
import { Button } from "antd";
import { Ask } from "../shared/ask";
import { TypedField } from "../shared/typed-field";
import { usePiece } from "./context";
import "./clock-stage.css";

const big = new Set(["salt", "fire", "serve"]);

/** The clock, counted back from serving: salt at, not before, fire at. */
export function ClockStage({ index }: { index: number }) {
	const { piece, figures, edit, wrong, goto } = usePiece(index);
	const c = figures?.clock;
	const fire = piece.fire;
	return (
		<>
			<h2>The clock, back from serving</h2>
			{c && !c.known && (
				<div className="says">
					<p>Without a serving time there is nothing to count back from.</p>
					<Button type="primary" onClick={() => goto("occasion")}>
						Say when you serve
					</Button>
				</div>
			)}
			{c?.late && (
				<p className="typed-error" role="alert">
					<WarningFilled aria-hidden /> {c.late}
				</p>
			)}
			{c?.known && (
				<ol className="clock">
					{c.steps.map((s) => (
						<li key={s.key} className={big.has(s.key) ? "clock-big" : undefined}>
							<span className="clock-label">{s.label}</span>
							<Ask
								size={big.has(s.key) ? "large" : "usual"}
								name={s.label}
								figure={{ ...s.figure, unit: "" }}
							/>
							<span className="clock-note">{s.note}</span>
						</li>
					))}
				</ol>
			)}
			<div className="fields fields-four">
				<TypedField
					label="Pit"
					value={fire.pit}
					usual={c?.usual_pit}
					error={wrong("fire/pit")}
					onChange={(v) =>
						edit((p) => {
							p.fire.pit = v;
						})
					}
				/>
				<TypedField
					label="Time on the fire"
					value={fire.time}
					usual={c?.fire.split(" (")[0]}
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
					usual={c?.usual_rest}
					error={wrong("fire/rest")}
					onChange={(v) =>
						edit((p) => {
							p.fire.rest = v;
						})
					}
				/>
				<TypedField
					label="On the counter first"
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
			{c && (
				<p className="says">
					<b>On the fire {c.fire}.</b> From {c.from}.
				</p>
			)}
		</>
	);
}
