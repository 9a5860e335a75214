import { ArrowRightOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useCallback, useEffect, useMemo, useRef } from "react";
import { useLocation, useNavigate, useParams } from "react-router";
import { useCatalogue } from "../api/use-catalogue";
import { useFormulasWhenOpened } from "../bench/use-formulas";
import { type Written, WrittenContext } from "../record/use-field";
import { WhereContext } from "../shared/ask";
import { useMessage } from "../shared/messages";
import { Nothing } from "../shared/nothing";
import { useUndo } from "../shared/use-undo";
import { AddPiece } from "./add-piece";
import { BrineStage } from "./brine-stage";
import { Cautions } from "./cautions";
import { Conflict } from "./conflict";
import { CookContext, type InHand } from "./context";
import { FireStage } from "./fire-stage";
import { ForecastStage } from "./forecast-stage";
import { MovesStage } from "./moves-stage";
import { Occasion } from "./occasion";
import { PieceStage } from "./piece-stage";
import { PlanPage } from "./plan-page";
import { Rail } from "./rail";
import { SaltColumn } from "./salt-column";
import { SeasonStage } from "./season-stage";
import { ShoppingPage } from "./shopping-page";
import { Settled, Standing, useStale } from "./standing";
import { Strip } from "./strip";
import { useCook } from "./use-cook";
import type { NewFact } from "./use-facts";
import { WaitStage } from "./wait-stage";
import { WeighStage } from "./weigh-stage";
import { pieceStages, pointerTo } from "./where";
import "./cook-page.css";

const stages = {
	piece: PieceStage,
	brine: BrineStage,
	season: SeasonStage,
	weigh: WeighStage,
	wait: WaitStage,
	fire: FireStage,
	moves: MovesStage,
	forecast: ForecastStage,
} as const;

const titles: Record<string, string> = {
	occasion: "Occasion",
	plan: "Plan",
	shopping: "Shopping",
	add: "Add a piece",
	weigh: "Weigh it out",
	...Object.fromEntries(pieceStages.map((s) => [s.key, s.label])),
};

/** One cook, read in working order. */
export default function CookPage() {
	const params = useParams();
	const navigate = useNavigate();
	const undo = useUndo();
	const id = params.id ?? "new";
	// The clock of a piece is in the plan: its address was kept from before.
	const stage = params.stage === "clock" ? "plan" : (params.stage ?? (id === "new" ? "occasion" : "season"));
	const onMade = useCallback(
		(made: string) =>
			navigate(`/cooks/${made}/${stage}${params.piece ? `/${params.piece}` : ""}`, { replace: true }),
		[navigate, stage, params.piece],
	);
	// Only some stages draw what takes long to send.
	const hand = useCook(id, stage === "wait" || stage === "brine", onMade);
	const catalogue = useCatalogue();
	const { cook, typing, sheet, error, offers, isNew, onRecord, facts, say: record, where } = hand;
	const message = useMessage();
	const say = useCallback(
		(fact: NewFact) => {
			record(fact).catch((e: Error) => message.error(`Could not save. ${e.message}`));
		},
		[record, message],
	);
	// An address that was kept from before names the cook by its number.
	useEffect(() => {
		if (hand.id && hand.id !== id) onMade(hand.id);
	}, [hand.id, id, onMade]);

	const context = useMemo<InHand | null>(
		() =>
			cook && typing && catalogue.data
				? {
						cook,
						sheet,
						catalogue: catalogue.data,
						change: typing.edit,
						error,
						isNew,
						onRecord,
						facts,
						say,
						goto: (to, piece) => navigate(`/cooks/${id}/${to}${piece === undefined ? "" : `/${piece + 1}`}`),
						undoable: undo,
					}
				: null,
		[cook, typing, sheet, catalogue.data, error, isNew, onRecord, facts, say, id, navigate, undo],
	);
	const written = useMemo<Written | null>(
		() => (typing ? { typing: typing as Written["typing"], wrong: error, offers } : null),
		[typing, error, offers],
	);
	const ask = useCallback(
		(figure: object) => {
			const at = sheet && pointerTo(sheet, figure);
			if (!at) throw new Error("This figure is being worked out again.");
			return where(at);
		},
		[sheet, where],
	);

	const index = Math.min(Math.max(0, Number(params.piece ?? 1) - 1 || 0), (cook?.pieces.length ?? 1) - 1);
	// The forecast and the moves need the room of the salt column.
	const column = stage !== "forecast" && stage !== "moves";
	const empty = cook?.pieces.length === 0 && !["occasion", "plan", "shopping"].includes(stage);
	const open = empty ? "add" : stage;
	const Stage = open in stages ? stages[open as keyof typeof stages] : undefined;
	const name = cook?.name;
	const onward = pieceStages[pieceStages.findIndex((s) => s.key === open) + 1];
	const of = Stage ? `${sheet?.pieces[index]?.title ?? ""}` : "";
	useEffect(() => {
		document.title = [titles[open], of, name, "Verjuice"].filter(Boolean).join(" · ");
	}, [open, of, name]);
	const stale = useStale(hand);
	const dimmed = stale !== "" && (!hand.current || !Stage || hand.figures.old[index]);
	const lists = useFormulasWhenOpened();
	const here = useRef<HTMLElement>(null);
	useFocus(here, `${open} ${Stage ? index : ""}`, context !== null);

	const failure = hand.failure ?? catalogue.error;
	if (failure && !cook) {
		return (
			<Nothing
				title={hand.failure?.status === 404 ? "There is no such cook-out" : "This cook-out cannot be opened"}
			>
				<p>{failure.message}</p>
				<Button type="primary" onClick={() => navigate("/")}>
					Back to your cook-outs
				</Button>
			</Nothing>
		);
	}
	if (!context || !cook || !written) return <p className="loading">Opening…</p>;
	return (
		<CookContext value={context}>
			<WrittenContext value={written}>
				<WhereContext value={ask}>
					<a className="skip" href="#stages">
						skip to the stages
					</a>
					<header className="cook-head">
						<h1>{cook.name || "A new cook-out"}</h1>
						<p className="cook-serve">
							{sheet?.serve ? (
								<>
									<b>{sheet.serve}</b> <span className="muted">{sheet.away}</span>
								</>
							) : (
								<span className="muted">{!cook.serve_at && "no serving time yet"}</span>
							)}
						</p>
						<Standing hand={hand} stale={stale} />
					</header>
					{hand.standing === "conflict" && <Conflict hand={hand} />}
					{isNew && typing?.resumed && (
						<p className="cook-resumed">
							This goes on with the cook-out that you began here and did not name.{" "}
							<Button
								onClick={() => {
									undo("A new cook-out begins.", typing.anew());
									navigate("/cooks/new");
								}}
							>
								Begin a new one
							</Button>
						</p>
					)}
					<Strip
						selected={Stage ? index : -1}
						stage={Stage ? stage : "piece"}
						adding={open === "add"}
						whole={!Stage}
					/>
					<div className={`sheet${Stage && column ? "" : " sheet-wide"}${dimmed ? " stale" : ""}`}>
						<Rail
							stage={open}
							piece={open === "add" || (!Stage && cook.pieces.length > 1) ? -1 : index}
							mistakes={hand.mistakes}
						/>
						<section
							className="stage"
							ref={here}
							tabIndex={-1}
							aria-label={titles[open]}
							onFocusCapture={lists}
						>
							<div>
								{open === "occasion" && <Occasion />}
								{open === "plan" && <PlanPage />}
								{open === "shopping" && <ShoppingPage />}
								{open === "add" && <AddPiece />}
								{Stage && (
									<>
										<Stage key={index} index={index} />
										{open !== "weigh" && (
											<Button
												size="large"
												className="stage-on"
												onClick={() =>
													navigate(onward ? `/cooks/${id}/${onward.key}/${index + 1}` : `/cooks/${id}/plan`)
												}
											>
												On to: {onward?.label ?? "The plan"} <ArrowRightOutlined />
											</Button>
										)}
										<Cautions piece={index} stage={stage} />
									</>
								)}
							</div>
						</section>
						{Stage && column && <SaltColumn index={index} />}
					</div>
					<Settled hand={hand} stage={stage} piece={index} />
				</WhereContext>
			</WrittenContext>
		</CookContext>
	);
}

/** Whether a mistake at a pointer is one of a field, or of something that the field is part of. */
const leads = (mistake: string, field: string) =>
	mistake.startsWith(field) || field.startsWith(`${mistake}/`);

/** Moves the keyboard to a stage when it changes, or to the field that a mistake led to. */
function useFocus(here: React.RefObject<HTMLElement | null>, stage: string, ready: boolean) {
	const { state, key } = useLocation();
	const last = useRef(stage);
	// biome-ignore lint/correctness/useExhaustiveDependencies: each press of a mistake leads there again
	useEffect(() => {
		if (!ready) return;
		const moved = last.current !== stage;
		last.current = stage;
		const at = (state as { at?: string } | null)?.at;
		const field =
			at &&
			[...document.querySelectorAll<HTMLElement>("[data-at]")].find((e) => leads(at, e.dataset.at ?? ""));
		if (field) {
			(field.matches("input") ? field : (field.querySelector<HTMLElement>("input") ?? field)).focus();
			field.scrollIntoView({ block: "center" });
		} else if (moved && !here.current?.contains(document.activeElement)) {
			here.current?.focus({ preventScroll: true });
		}
	}, [stage, ready, key]);
}
