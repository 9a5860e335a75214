import { WarningFilled } from "@ant-design/icons";
import { Button } from "antd";
import { Ask } from "../shared/ask";
import { useInHand } from "./context";
import "./counted-back.css";

const big = new Set(["salt", "fire", "serve"]);

/** The clock of each piece, counted back from serving: folded to when it is salted and when it goes on. */
export function CountedBack() {
	const { cook, sheet } = useInHand();
	const clocks = cook.pieces.flatMap((p, i) => {
		const of = sheet?.pieces[i];
		return of?.clock?.known
			? [{ key: p.key, index: i, title: of.title, line: of.stages.clock, clock: of.clock }]
			: [];
	});
	if (clocks.length === 0) return null;
	return (
		<section className="counted-back">
			<h3>Counted back from serving</h3>
			{clocks.map(({ key, ...c }) => (
				<Clock key={key} {...c} open={clocks.length === 1} />
			))}
		</section>
	);
}

type Sheet = NonNullable<ReturnType<typeof useInHand>["sheet"]>;

interface ClockProps {
	index: number;
	title: string;
	line: string;
	clock: NonNullable<Sheet["pieces"][number]["clock"]>;
	open: boolean;
}

function Clock({ index, title, line, clock, open }: ClockProps) {
	const { goto } = useInHand();
	return (
		<details open={open}>
			<summary>
				<h4>{title}</h4> <span className="muted">{line}</span>
			</summary>
			{clock.late_note && (
				<p className="typed-error" role="alert">
					<WarningFilled aria-hidden /> {clock.late_note}
				</p>
			)}
			<ol className="clock">
				{clock.steps.map((s) => (
					<li key={s.key} className={big.has(s.key) ? "clock-big" : undefined}>
						<span className="clock-label">{s.label}</span>
						<Ask
							size={big.has(s.key) ? "large" : "usual"}
							name={`${s.label}: ${title}`}
							figure={{ ...s.figure, unit: "" }}
						/>
						<span className="clock-note">{s.note}</span>
					</li>
				))}
			</ol>
			<p className="says">
				<b>
					On the fire {clock.fire} ({clock.fire_range}).
				</b>{" "}
				From {clock.source}.{" "}
				<Button type="link" onClick={() => goto("fire", index)}>
					Pit, wrap and rest
				</Button>
			</p>
		</details>
	);
}
