import { useEffect, useRef } from "react";
import { Link, useParams } from "react-router";
import { useInHand } from "./context";
import "./rail.css";

/** The working order: each stage folded to its one line. */
export function Rail({ stage, piece }: { stage: string; piece: number }) {
	const { cook, sheet } = useInHand();
	const { id } = useParams();
	const p = cook.pieces[piece];
	const f = sheet?.pieces[piece];
	const salt = f?.clock?.steps.find((s) => s.key === "salt");
	const fire = f?.clock?.steps.find((s) => s.key === "fire");
	const at = `/${piece + 1}`;
	const steps = [
		{
			key: "occasion",
			label: "Occasion",
			line: cook.guests > 0 ? `${cook.guests + (cook.children ?? 0)} at table` : "who eats, and when",
			to: "occasion",
		},
	];
	if (cook.pieces.length > 0) {
		const plan = sheet?.plan;
		steps.push(
			{
				key: "plan",
				label: "Plan",
				line: plan
					? `${plan.options.find((o) => o.chosen)?.name ?? ""}, ${plan.chance.text} %`
					: "when you serve",
				to: "plan",
			},
			{
				key: "shopping",
				label: "Shopping",
				line: sheet?.cost ? `${sheet.cost.total.text} ${sheet.cost.total.unit}` : "what to buy",
				to: "shopping",
			},
		);
	}
	if (p) {
		steps.push(
			{
				key: "piece",
				label: "Piece and trim",
				line: f?.meat
					? `${p.count > 1 ? `${p.count} × ` : ""}${f.meat.green.text}, ${f.meat.thickness.text}`
					: "weight needed",
				to: `piece${at}`,
			},
			{
				key: "brine",
				label: "Brine and inject",
				line:
					[f?.bath && `bath ${f.bath.takes.text} %`, f?.inject && `${f.inject.volume.text} mL injected`]
						.filter(Boolean)
						.join(", ") || "neither",
				to: `brine${at}`,
			},
			{
				key: "season",
				label: "Salt and season",
				line: f?.season ? `${f.season.on_meat.text} g on the meat` : "to choose",
				to: `season${at}`,
			},
			{
				key: "wait",
				label: "Wait",
				line:
					[salt && `salt ${salt.figure.text.slice(-5)}`, f?.depth && `${f.depth.depth.text} deep`]
						.filter(Boolean)
						.join(", ") || "how long",
				to: `wait${at}`,
			},
			{
				key: "fire",
				label: "Fire and rest",
				line: f?.clock ? (f.clock.fire.split(" (")[0] ?? "") : "which pit",
				to: `fire${at}`,
			},
			{
				key: "clock",
				label: "Clock",
				line: fire ? `on at ${fire.figure.text}` : "counted back",
				to: `clock${at}`,
			},
		);
	}
	const now = steps.findIndex((s) => s.key === (stage === "weigh" ? "season" : stage));
	const here = useRef<HTMLOListElement>(null);
	// On a phone the stages run off the side: bring the open one into sight.
	useEffect(() => {
		const list = here.current;
		const step = list?.children[now] as HTMLElement | undefined;
		if (list && step)
			list.scrollLeft = step.offsetLeft - list.offsetLeft - (list.clientWidth - step.clientWidth) / 2;
	}, [now]);
	return (
		<nav className="rail" aria-label="Stages">
			<ol ref={here}>
				{steps.map((s, i) => (
					<li key={s.key} className={i === now ? "rail-now" : i < now ? "rail-done" : undefined}>
						{s.key === "piece" && cook.pieces.length > 1 && <em>{f?.title}</em>}
						<Link to={`/cooks/${id}/${s.to}`} aria-current={i === now ? "step" : undefined}>
							<b>{s.label}</b>
							<span>{s.line}</span>
						</Link>
					</li>
				))}
			</ol>
		</nav>
	);
}
