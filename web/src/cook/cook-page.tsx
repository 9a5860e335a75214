import { WarningFilled } from "@ant-design/icons";
import { App, Button } from "antd";
import { useCallback, useEffect, useMemo } from "react";
import { useNavigate, useParams } from "react-router";
import type { Cook } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { Nothing } from "../shared/nothing";
import { useUndo } from "../shared/use-undo";
import { AddPiece } from "./add-piece";
import { BrineStage } from "./brine-stage";
import { Cautions } from "./cautions";
import { ClockStage } from "./clock-stage";
import { CookContext, type InHand } from "./context";
import { FireStage } from "./fire-stage";
import { Occasion } from "./occasion";
import { PieceStage } from "./piece-stage";
import { PlanPage } from "./plan-page";
import { Rail } from "./rail";
import { SaltColumn } from "./salt-column";
import { SeasonStage } from "./season-stage";
import { ShoppingPage } from "./shopping-page";
import { Strip } from "./strip";
import { type Standing, useCook } from "./use-cook";
import type { NewFact } from "./use-facts";
import { WaitStage } from "./wait-stage";
import { WeighStage } from "./weigh-stage";
import "./cook-page.css";

const stages = {
	piece: PieceStage,
	brine: BrineStage,
	season: SeasonStage,
	weigh: WeighStage,
	wait: WaitStage,
	fire: FireStage,
	clock: ClockStage,
} as const;

/** One cook, read in working order. */
export default function CookPage() {
	const params = useParams();
	const navigate = useNavigate();
	const undo = useUndo();
	const id = params.id ?? "new";
	const stage = params.stage ?? (id === "new" ? "occasion" : "season");
	const onCreated = useCallback(
		(made: string) =>
			navigate(`/cooks/${made}/${stage}${params.piece ? `/${params.piece}` : ""}`, { replace: true }),
		[navigate, stage, params.piece],
	);
	const hand = useCook(id, onCreated);
	const catalogue = useCatalogue();
	const { cook, change, sheet, error, isNew, facts, say: record } = hand;
	const { message } = App.useApp();
	const say = useCallback(
		(fact: NewFact) => {
			record(fact).catch((e: Error) => message.error(`Not noted. ${e.message}`));
		},
		[record, message],
	);
	const name = cook?.name;
	useEffect(() => {
		document.title = name ? `${name} · Verjuice` : "Verjuice";
	}, [name]);

	const context = useMemo<InHand | null>(
		() =>
			cook && catalogue.data
				? {
						cook,
						sheet,
						catalogue: catalogue.data,
						change,
						error,
						isNew,
						facts,
						say,
						goto: (to, piece) => navigate(`/cooks/${id}/${to}${piece === undefined ? "" : `/${piece + 1}`}`),
						undoable: (what: string, before: Cook) =>
							undo(what, () => change((c) => Object.assign(c, before))),
					}
				: null,
		[cook, sheet, catalogue.data, change, error, isNew, facts, say, id, navigate, undo],
	);

	const failure = hand.failure ?? catalogue.error;
	if (failure && !cook) {
		return (
			<Nothing title={hand.failure?.status === 404 ? "There is no such cook" : "This cook cannot be opened"}>
				<p>{failure.message}</p>
				<Button type="primary" onClick={() => navigate("/")}>
					Back to your cooks
				</Button>
			</Nothing>
		);
	}
	if (!context || !cook) return <p className="loading">Opening…</p>;

	const index = Math.min(Math.max(0, Number(params.piece ?? 1) - 1 || 0), cook.pieces.length - 1);
	const open = cook.pieces.length === 0 && !["occasion", "plan", "shopping"].includes(stage) ? "add" : stage;
	const Stage = open in stages ? stages[open as keyof typeof stages] : undefined;
	return (
		<CookContext value={context}>
			<header className="cook-head">
				<h1>{cook.name || "A new cook"}</h1>
				<p className="cook-serve">
					{sheet?.serve ? (
						<>
							<b>{sheet.serve}</b> <span className="muted">{sheet.away}</span>
						</>
					) : (
						<span className="muted">{!cook.serve_at && "no serving time yet"}</span>
					)}
				</p>
				<StandingLine standing={hand.standing} />
			</header>
			{hand.standing === "conflict" && (
				<div className="conflict" role="alert">
					<p>
						<WarningFilled aria-hidden /> <b>This cook was changed on another screen.</b> What you typed here
						is still here, and not on record.
					</p>
					<Button onClick={hand.reload}>Take theirs</Button>
					<Button type="primary" onClick={hand.overwrite}>
						Keep mine
					</Button>
				</div>
			)}
			<Strip selected={Stage ? index : -1} stage={Stage ? stage : "piece"} adding={open === "add"} />
			<div className={Stage ? "sheet" : "sheet sheet-wide"}>
				<Rail stage={open} piece={open === "add" || (!Stage && cook.pieces.length > 1) ? -1 : index} />
				<section className="stage" aria-live="off">
					{open === "occasion" && <Occasion />}
					{open === "plan" && <PlanPage />}
					{open === "shopping" && <ShoppingPage />}
					{open === "add" && <AddPiece />}
					{Stage && (
						<>
							<Stage key={index} index={index} />
							<Cautions piece={index} stage={stage} />
						</>
					)}
				</section>
				{Stage && <SaltColumn index={index} />}
			</div>
		</CookContext>
	);
}

const words: Record<Standing, string> = {
	saved: "saved",
	saving: "saving…",
	waiting: "saving…",
	mistakes: "not saved: see the marked fields",
	conflict: "not saved: changed elsewhere",
	unreachable: "not saved: the program does not answer; kept on this screen",
};

function StandingLine({ standing }: { standing: Standing }) {
	const bad = standing === "mistakes" || standing === "conflict" || standing === "unreachable";
	return (
		<p className={bad ? "standing standing-bad" : "standing"} role="status" data-standing={standing}>
			{bad && <WarningFilled aria-hidden />} {words[standing]}
		</p>
	);
}
