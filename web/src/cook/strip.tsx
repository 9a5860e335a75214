import { DownOutlined, PlusOutlined, UpOutlined } from "@ant-design/icons";
import { scaleLinear } from "d3-scale";
import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { useField } from "../record/use-field";
import { useNow } from "../shared/clock";
import { useMedia } from "../shared/use-media";
import { useInHand } from "./context";
import { clock, fix, local, serveAt as servedAt } from "./marks";
import "./strip.css";

const hour = 3600_000;
const quarter = hour / 4;

/** What is being dragged, and how far, ms. */
interface Drag {
	what: string;
	moved: number;
}

/** Ticks of a ruler between two times, at whole hours of the place's own clock. */
function ticks(from: number, to: number, zone: string) {
	const span = (to - from) / hour;
	const step = span > 80 ? 24 : span > 36 ? 12 : span > 12 ? 6 : 2;
	const format = new Intl.DateTimeFormat("en-GB", {
		timeZone: zone || "UTC",
		weekday: "short",
		hour: "2-digit",
		hourCycle: "h23",
	});
	const out: { at: number; label: string }[] = [];
	for (let t = Math.ceil(from / hour) * hour; t < to; t += hour) {
		const parts = format.formatToParts(t);
		const h = Number(parts.find((p) => p.type === "hour")?.value);
		if (h % step !== 0) continue;
		const day = parts.find((p) => p.type === "weekday")?.value;
		const clock = `${String(h).padStart(2, "0")}:00`;
		out.push({ at: t, label: h === 0 || out.length === 0 ? `${day} ${clock}` : clock });
	}
	return out;
}

interface Props {
	selected: number;
	stage: string;
	adding: boolean;
	/** Every piece is shown until the cook says otherwise. */
	whole: boolean;
}

/** What the marks of a lane are, in words. */
const legend = [
	["thaw", "thawing"],
	["bath", "in the bath"],
	["wait", "salted"],
	["fire", "on the fire; it may end where it fades"],
	["chill", "cooked and cold"],
	["rest", "resting"],
	["serve", "sliced and served at a time of its own"],
	["quiet", "quiet hours"],
] as const;

/** Hours as a ruler, a lane for each piece, serving fixed at the right. Press a lane to work on it, a mark to read it. */
export function Strip({ selected, stage, adding, whole }: Props) {
	const { cook, sheet, catalogue, change } = useInHand();
	const { id } = useParams();
	const [drag, setDrag] = useState<Drag>();
	const [open, setOpen] = useState<boolean>();
	/** The mark that was pressed: its words follow the plan. */
	const [mark, setMark] = useState("");
	const dragged = useRef(false);
	const roomy = useMedia("(min-width: 641px) and (min-height: 521px)");
	const all = open ?? (whole && roomy);
	const lanes = cook.pieces.map((_, i) => sheet?.pieces[i]?.clock?.lane ?? []);
	const starts = lanes.flat().map((b) => Date.parse(b.from));
	const serves =
		sheet?.pieces.flatMap(
			(p) => p.clock?.steps.filter((s) => s.key === "serve").map((s) => Date.parse(s.at)) ?? [],
		) ?? [];
	const known = starts.length > 0 && serves.length > 0;
	const to = Math.max(...serves);
	// What is eaten at a time of its own may be the last.
	const shared = Math.max(
		...(sheet?.pieces.flatMap((p, i) =>
			cook.pieces[i]?.serve_at
				? []
				: (p.clock?.steps.filter((s) => s.key === "serve").map((s) => Date.parse(s.at)) ?? []),
		) ?? []),
	);
	const serving = Number.isFinite(shared) ? shared : to;
	const from = Math.min(...starts) - (to - Math.min(...starts)) * 0.015;
	const ruler = scaleLinear([from, to], [0, 100]);
	const place = (at: string | number) => ruler(typeof at === "number" ? at : Date.parse(at));
	const now = useNow();
	const quiet = (sheet?.plan?.quiet ?? [])
		.map((q) => ({
			...q,
			starts: Math.max(from, Date.parse(q.from)),
			ends: Math.min(to, Date.parse(q.to)),
		}))
		.filter((q) => q.ends > q.starts);
	const conflicts = (sheet?.plan?.conflicts ?? []).filter((c) => Date.parse(c.at) > from);
	const kinds = new Set<string>([...lanes.flat().map((b) => b.kind), quiet.length > 0 ? "quiet" : ""]);

	/** Follows the pointer over the ruler, and calls back when it is released. */
	const pull = (e: React.PointerEvent, what: string, step: number, done: (moved: number) => void) => {
		const wide = list.current?.querySelector(".lane-bars")?.getBoundingClientRect().width ?? 1;
		const start = e.clientX;
		let moved = 0;
		const move = (m: PointerEvent) => {
			moved = Math.round((((m.clientX - start) / wide) * (to - from)) / step) * step;
			setDrag({ what, moved });
		};
		const handle = e.currentTarget;
		const stop = (u: PointerEvent | KeyboardEvent) => {
			if (u instanceof KeyboardEvent && u.key !== "Escape") return;
			handle.removeEventListener("pointermove", move as EventListener);
			handle.removeEventListener("pointerup", stop as EventListener);
			handle.removeEventListener("pointercancel", stop as EventListener);
			window.removeEventListener("keydown", stop);
			setDrag(undefined);
			// A drag that the browser or the cook breaks off changes nothing.
			if (u.type !== "pointerup" || moved === 0) return;
			dragged.current = true;
			done(moved);
		};
		e.preventDefault();
		handle.setPointerCapture(e.pointerId);
		handle.addEventListener("pointermove", move as EventListener);
		handle.addEventListener("pointerup", stop as EventListener);
		handle.addEventListener("pointercancel", stop as EventListener);
		window.addEventListener("keydown", stop);
	};
	const serve = useField("/serve_at");
	// In local time, from the present value.
	const serveAt = (moved: number) =>
		change((c) => servedAt(c, local(Date.parse(`${serve.text}Z`) + moved, "UTC")));
	const pulled = drag?.what === "serve" ? drag.moved : 0;
	const list = useRef<HTMLOListElement>(null);
	useEffect(() => {
		const lane = list.current?.children[selected] as HTMLElement | undefined;
		if (list.current && lane) list.current.scrollLeft = lane.offsetLeft - list.current.offsetLeft - 16;
	}, [selected]);
	const meanings = new Map<string, string>([
		...quiet.map((q) => [`quiet ${q.from}`, q.says] as const),
		...lanes.flatMap((lane, i) => lane.map((b) => [`${i} ${b.kind}`, b.says] as const)),
		...conflicts.map((c) => [`${c.piece} ${c.message}`, c.message] as const),
	]);
	/** Says what a mark means, unless it was being dragged. */
	const read = (which: string) => {
		if (!dragged.current) setMark((old) => (old === which ? "" : which));
		dragged.current = false;
	};
	return (
		<div className={`strip ${all ? "strip-all" : "strip-one"}${selected < 0 ? " strip-none" : ""}`}>
			{known && (
				<div className="strip-ruler" aria-hidden>
					{ticks(from, to - (to - from) * (roomy ? 0.07 : 0.22), cook.zone).map((t) => (
						<span key={t.at} style={{ left: `${place(t.at)}%` }}>
							{t.label}
						</span>
					))}
					<b style={{ right: `${100 - place(serving)}%` }}>
						{pulled === 0 ? "serve" : clock(serving + pulled, cook.zone)}
					</b>
				</div>
			)}
			{known && (
				<div className="strip-serve">
					<button
						type="button"
						role="slider"
						aria-label="Serving time"
						aria-valuenow={Math.round((serving + pulled) / 60_000)}
						aria-valuemin={Math.round(from / 60_000)}
						aria-valuemax={Math.round((to + 48 * hour) / 60_000)}
						aria-valuetext={local(serving + pulled, cook.zone).replace("T", " ")}
						title="Drag it, or use the arrow keys: everything moves with it"
						style={{ transform: `translateX(${((serving - to + pulled) / (to - from)) * 100}cqw)` }}
						onPointerDown={(e) => pull(e, "serve", quarter, serveAt)}
						onKeyDown={(e) => {
							const by = { ArrowLeft: -quarter, ArrowRight: quarter, PageDown: -hour, PageUp: hour }[e.key];
							if (!by) return;
							e.preventDefault();
							serveAt(by);
						}}
					/>
				</div>
			)}
			<ol ref={list}>
				{cook.pieces.map((p, i) => {
					const f = sheet?.pieces[i];
					const title = f?.title || p.label || catalogue.cuts.find((c) => c.id === p.cut)?.name || "a piece";
					return (
						// biome-ignore lint/suspicious/noArrayIndexKey: pieces are told apart by their place
						<li key={i} className={i === selected ? "lane lane-now" : "lane"}>
							<Link
								to={`/cooks/${id}/${stage}/${i + 1}`}
								title={title}
								aria-current={i === selected ? "true" : undefined}
							>
								{f && f.count > 1 ? `${f.count} × ` : ""}
								{title}
							</Link>
							{/* biome-ignore lint/a11y/useSemanticElements: a group of marks is no group of fields */}
							<div
								className={known ? "lane-bars" : "lane-bars lane-empty"}
								role="group"
								aria-label={`Hours of ${title}`}
								onKeyDown={step}
							>
								{quiet.map((q) => (
									<Mark
										key={q.from}
										kind="quiet"
										says={q.says}
										read={() => read(`quiet ${q.from}`)}
										left={place(q.starts)}
										width={place(q.ends) - place(q.starts)}
									/>
								))}
								{(lanes[i] ?? []).map((b, n) => {
									const left = place(b.from);
									const wide = place(b.to) - left;
									const sure = wide > 0 ? ((place(b.sure) - left) / wide) * 100 : 100;
									if (wide <= 0) return null;
									const fixes = b.stage;
									const moved = drag?.what === `${i}${b.kind}` ? drag.moved : pulled;
									return (
										<Mark
											key={`${b.kind} ${b.from}`}
											kind={b.kind}
											says={b.says}
											read={() => read(`${i} ${b.kind}`)}
											first={n === 0}
											left={left + (moved / (to - from)) * 100}
											width={wide}
											sure={sure}
											label={wide > 8 ? b.label : undefined}
											onPull={
												fixes
													? (e) =>
															pull(e, `${i}${b.kind}`, hour / 12, (by) =>
																change((c) =>
																	fix(
																		c,
																		c.pieces[i]?.key ?? "",
																		fixes,
																		local(Date.parse(b.from) + by, c.zone),
																	),
																),
															)
													: undefined
											}
										/>
									);
								})}
								{conflicts
									.filter((c) => c.piece === i)
									.map((c) => (
										<Mark
											key={c.message}
											kind="conflict"
											says={c.message}
											read={() => read(`${i} ${c.message}`)}
											left={place(c.at)}
										/>
									))}
								{known && now !== undefined && now > from && now < to && (
									<span className="needle" style={{ left: `${place(now)}%` }} />
								)}
							</div>
						</li>
					);
				})}
				<li className={adding ? "lane lane-add lane-now" : "lane lane-add"}>
					<Link to={`/cooks/${id}/add`}>
						<PlusOutlined aria-hidden /> add a piece
					</Link>
				</li>
			</ol>
			{cook.pieces.length > 0 && (
				<button type="button" className="strip-open" aria-expanded={all} onClick={() => setOpen(!all)}>
					<span className="unseen">The hours of every piece</span>
					{all ? <UpOutlined aria-hidden /> : <DownOutlined aria-hidden />}
				</button>
			)}
			<p className="strip-said" role="status">
				{meanings.get(mark) ?? ""}
			</p>
			{all && known && (
				<p className="strip-legend">
					{legend
						.filter(([kind]) => kinds.has(kind))
						.map(([kind, words]) => (
							<span key={kind}>
								<i className={`bar-${kind}`} /> {words}
							</span>
						))}
				</p>
			)}
		</div>
	);
}

/** Arrow keys go from mark to mark of a lane. */
function step(e: React.KeyboardEvent<HTMLElement>) {
	const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
	if (!by) return;
	e.preventDefault();
	const marks = [...e.currentTarget.querySelectorAll("button")].sort((a, b) => a.offsetLeft - b.offsetLeft);
	marks[marks.indexOf(e.target as HTMLButtonElement) + by]?.focus();
}

interface MarkProps {
	kind: string;
	/** What it means, in a sentence. */
	says: string;
	read: () => void;
	/** The keyboard comes to this one first. */
	first?: boolean;
	/** Where it begins and how wide it is, % of the ruler; without a width it is a point. */
	left: number;
	width?: number;
	/** How much of it is certain, %. */
	sure?: number;
	label?: string;
	/** Its time is fixed by dragging it. */
	onPull?: (e: React.PointerEvent) => void;
}

/** A stretch or a point of a lane: press it to read what it means. */
function Mark({ kind, says, read, first, left, width, sure = 100, label, onPull }: MarkProps) {
	return (
		<button
			type="button"
			className={`bar${onPull ? " bar-pinnable" : ""}${width === undefined ? " bar-point" : ""}`}
			tabIndex={first ? 0 : -1}
			title={says}
			aria-label={label ? `${label}. ${says}` : says}
			// A finger scrolls the strip; the list of the plan fixes times.
			onPointerDown={(e) => e.pointerType !== "touch" && onPull?.(e)}
			onClick={read}
			style={{ left: `${left}%`, width: width && `${width}%`, "--sure": `${sure}%` } as React.CSSProperties}
		>
			<span className={`bar-${kind}`}>{label ? <i>{label}</i> : kind === "conflict" && "!"}</span>
		</button>
	);
}
