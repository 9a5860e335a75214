import { WarningFilled } from "@ant-design/icons";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { CookInHand } from "./use-cook";
import { addressOf, placeOf } from "./where";

/** How what is on the screen stands to what is on record. A mistake that stops the saving is linked. */
export function Standing({ hand, stale }: { hand: CookInHand; stale: string }) {
	const { id = "new" } = useParams();
	const { standing, mistakes, sheet } = hand;
	const words = {
		saved: "saved",
		saving: "saving…",
		waiting: "saving…",
		unnamed: "not saved yet:",
		mistakes: "not saved:",
		conflict: "not saved: changed on another screen",
		unreachable: "not saved: the program does not answer. It is kept on this screen.",
	}[standing];
	const bad = standing === "mistakes" || standing === "conflict" || standing === "unreachable";
	const [first] = mistakes;
	return (
		<p
			className={bad ? "standing standing-bad" : "standing"}
			role={bad ? "alert" : undefined}
			data-standing={standing}
		>
			{bad && <WarningFilled aria-hidden />} {words}{" "}
			{standing === "unnamed" && (
				<Link to={`/cooks/${id}/occasion`} state={{ at: "/name" }}>
					give it a name
				</Link>
			)}
			{standing === "mistakes" && first && (
				<>
					<Link to={addressOf(id, placeOf(first, sheet))} state={{ at: first.pointer }}>
						{first.message}
					</Link>
					{mistakes.length > 1 && ` (and ${mistakes.length - 1} more)`}.
				</>
			)}{" "}
			{stale}
		</p>
	);
}

/** How long figures may be behind what is typed before the page says so, ms. */
const patience = 500;

/** Why the figures are not those of what is typed, and since when; empty while they are. */
export function useStale(hand: CookInHand): string {
	const { figures, current } = hand;
	const [late, setLate] = useState(false);
	useEffect(() => {
		setLate(false);
		if (current) return;
		const timer = setTimeout(() => setLate(true), patience);
		return () => clearTimeout(timer);
	}, [current]);
	const since = (at: number) => new Date(at).toLocaleTimeString("en-GB");
	if (figures.at === 0) return "";
	if (current)
		return figures.old.some(Boolean) && figures.good
			? `What depends on it is from ${since(figures.good)}.`
			: "";
	if (figures.trouble) return `The figures are from ${since(figures.at)}.`;
	return late ? `Working it out. The figures are from ${since(figures.at)}.` : "";
}

/** Tells those who listen what came of what they typed, once it has settled. */
export function Settled({ hand, stage, piece }: { hand: CookInHand; stage: string; piece: number }) {
	const { sheet, current, mistakes } = hand;
	const line = sheet?.pieces[piece]?.stages[stage as "season"] ?? sheet?.stages[stage as "occasion"] ?? "";
	const [said, setSaid] = useState("");
	useEffect(() => {
		if (!current || mistakes.length > 0) return;
		const typing = document.activeElement?.matches("input, textarea");
		const timer = setTimeout(() => typing && setSaid(line), 900);
		return () => clearTimeout(timer);
	}, [line, current, mistakes]);
	return (
		<p className="unseen" role="status">
			{said}
		</p>
	);
}
