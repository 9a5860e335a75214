import { WarningFilled } from "@ant-design/icons";
import { Button } from "antd";
import { Ask } from "../shared/ask";
import { usePiece } from "./context";
import "./clock-stage.css";

const big = new Set(["salt", "fire", "serve"]);

/** The clock, counted back from serving: salt at, not before, fire at. */
export function ClockStage({ index }: { index: number }) {
	const { figures, goto } = usePiece(index);
	const c = figures?.clock;
	return (
		<>
			<h2>The clock, back from serving</h2>
			{c && !c.known && (
				<div className="says">
					<p>Without a serving time there is nothing to count back from.</p>
					<Button type="primary" onClick={() => goto("occasion")}>
						Set the serving time
					</Button>
				</div>
			)}
			{c?.late_note && (
				<p className="typed-error" role="alert">
					<WarningFilled aria-hidden /> {c.late_note}
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
			{c && (
				<p className="says">
					<b>
						On the fire {c.fire} ({c.fire_range}).
					</b>{" "}
					From {c.source}.{" "}
					<Button type="link" onClick={() => goto("fire", index)}>
						Pit, wrap and rest
					</Button>
					<Button type="link" onClick={() => goto("plan")}>
						The plan for every piece
					</Button>
				</p>
			)}
		</>
	);
}
