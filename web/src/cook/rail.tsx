import { WarningFilled } from "@ant-design/icons";
import { useEffect, useRef } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Mistake } from "../api/client";
import { useKeys } from "../shared/use-keys";
import { useInHand } from "./context";
import { pieceStages, placeOf } from "./where";
import "./rail.css";

/** The working order: each stage folded to its one line. */
export function Rail({ stage, piece, mistakes }: { stage: string; piece: number; mistakes: Mistake[] }) {
	const { cook, sheet } = useInHand();
	const { id } = useParams();
	const p = cook.pieces[piece];
	const f = sheet?.pieces[piece];
	const at = `/${piece + 1}`;
	const all = sheet?.stages;
	const own = f?.stages;
	const steps = [{ key: "occasion", label: "Occasion", line: all?.occasion, to: "occasion" }];
	if (cook.pieces.length > 0) {
		steps.push(
			{ key: "plan", label: "Plan", line: all?.plan, to: "plan" },
			{ key: "shopping", label: "Shopping", line: all?.shopping, to: "shopping" },
		);
	}
	if (p) {
		steps.push(
			...pieceStages.map((s) => ({ key: s.key, label: s.label, line: own?.[s.line], to: `${s.key}${at}` })),
		);
	}
	const wrong = new Set(
		mistakes
			.map((m) => placeOf(m, sheet))
			.filter((one) => one.piece === undefined || one.piece === piece)
			.map((one) => (one.stage === "weigh" ? "season" : one.stage)),
	);
	const now = steps.findIndex((s) => s.key === (stage === "weigh" ? "season" : stage));
	const navigate = useNavigate();
	// Quick presses are as many stages, even before the first of them is drawn.
	const pressed = useRef({ at: Number.NEGATIVE_INFINITY, on: 0 });
	const step = (by: number) => {
		const { at: last, on: going } = pressed.current;
		const on = (performance.now() - last < 1000 ? going : now) + by;
		const to = steps[on];
		if (!to) return;
		pressed.current = { at: performance.now(), on };
		navigate(`/cooks/${id}/${to.to}`);
	};
	useKeys({
		"]": () => step(1),
		"[": () => step(-1),
		w: () => p && navigate(`/cooks/${id}/weigh${at}`),
	});
	const here = useRef<HTMLOListElement>(null);
	// On a phone the stages run off the side: bring the open one into sight.
	useEffect(() => {
		const list = here.current;
		const step = list?.children[now] as HTMLElement | undefined;
		if (list && step)
			list.scrollLeft = step.offsetLeft - list.offsetLeft - (list.clientWidth - step.clientWidth) / 2;
	}, [now]);
	return (
		<nav className="rail" id="stages" tabIndex={-1} aria-label="Stages">
			<ol ref={here}>
				{steps.map((s, i) => (
					<li key={s.key} className={i === now ? "rail-now" : i < now ? "rail-done" : undefined}>
						{s.key === "piece" && cook.pieces.length > 1 && <em>{f?.title}</em>}
						<Link to={`/cooks/${id}/${s.to}`} aria-current={i === now ? "step" : undefined}>
							<b>
								{s.label}{" "}
								{wrong.has(s.key) && <WarningFilled className="rail-wrong" aria-label="has a mistake" />}
							</b>
							<span>{s.line ?? "…"}</span>
						</Link>
					</li>
				))}
			</ol>
		</nav>
	);
}
