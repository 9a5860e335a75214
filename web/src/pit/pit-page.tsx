import { WarningFilled } from "@ant-design/icons";
import { Button, ConfigProvider } from "antd";
import { useEffect, useState, useSyncExternalStore } from "react";
import { Link, useParams } from "react-router";
import { api } from "../api/client";
import { usePrefs } from "../prefs";
import { Nothing } from "../shared/nothing";
import { antTheme, paint } from "../theme";
import { Alarms, Bell, useBell } from "./alarms";
import { Clock, Countdown } from "./countdown";
import { Debrief } from "./debrief";
import { Devices } from "./devices";
import { keepPage } from "./kept";
import { Aside, Log } from "./log";
import { outbox } from "./outbox";
import { PitFan } from "./pit-fan";
import { CatchUp, Presses, Thumb } from "./presses";
import { ReadingByHand } from "./reading-by-hand";
import { type LivePiece, localOf, type Standing, useLive } from "./use-live";
import { useSay } from "./use-say";
import { Who } from "./who";
import "./devices.css";
import "./pit.css";
import "./pit-cautions.css";

/** Beside the fire: what it reads, what comes next, and one press for each thing done or seen. */
export default function PitPage() {
	const { id = "", piece: key } = useParams();
	const [prefs] = usePrefs();
	const { standing, away } = useLive(id);
	const { waiting, trouble } = useSyncExternalStore(outbox.subscribe, outbox.now);
	useAwake();
	const opened = standing !== undefined;
	useEffect(() => {
		if (opened) void keepPage();
	}, [opened]);
	useEffect(() => {
		paint("night");
		return () => paint(prefs.mode);
	}, [prefs.mode]);
	const mine = waiting.filter((p) => p.cook === id);
	return (
		<ConfigProvider theme={antTheme("night")}>
			<div className="pit">
				<p className="pit-told" role="status">
					{away}
					{mine.length > 0 && ` ${mine.length} waiting to be handed in.`}
					{trouble && ` ${trouble}`}
				</p>
				{standing ? (
					<Beside standing={standing} cook={id} chosen={key} />
				) : away ? (
					<Nothing title="Nothing to show of this cook-out yet">
						<p>{away}</p>
						<Link to="/">Back to your cook-outs</Link>
					</Nothing>
				) : (
					<p className="loading">Opening…</p>
				)}
			</div>
		</ConfigProvider>
	);
}

/** Asks the browser to leave the screen on while the page is looked at. */
function useAwake() {
	useEffect(() => {
		let lock: WakeLockSentinel | undefined;
		const ask = async () => {
			if (document.visibilityState === "visible")
				lock = await navigator.wakeLock?.request("screen").catch(() => undefined);
		};
		void ask();
		document.addEventListener("visibilitychange", ask);
		return () => {
			document.removeEventListener("visibilitychange", ask);
			void lock?.release();
		};
	}, []);
}

/** How fast the clock of a cook that is practised goes. */
function Speed({ cook, speed }: { cook: string; speed: number }) {
	return (
		<fieldset className="pit-speed">
			<legend>Practice on a simulated pit: how fast the clock goes</legend>
			{[1, 20, 60, 240].map((s) => (
				<button
					key={s}
					type="button"
					className={s === speed ? "press press-seen" : "press"}
					aria-pressed={s === speed}
					onClick={() =>
						void api.PUT("/api/cooks/{id}/practise", { params: { path: { id: cook } }, body: { speed: s } })
					}
				>
					{s} ×
				</button>
			))}
		</fieldset>
	);
}

function Beside({ standing, cook, chosen }: { standing: Standing; cook: string; chosen?: string }) {
	const { live } = standing;
	const [picked, pick] = useState(chosen);
	const [probed, probe] = useState("");
	const say = useSay(cook, standing);
	const bell = useBell(live.alarms);
	const usual = live.pieces.find((p) => p.state === "on") ?? live.pieces[0];
	const piece = live.pieces.find((p) => p.key === picked) ?? usual;
	const place = piece?.probed.includes(probed) ? probed : "";
	const next = live.next[0];
	return (
		<>
			<header className="pit-head">
				<Link to={`/cooks/${cook}/plan`}>back to the plan</Link>
				{live.pieces.some((p) => p.state === "resting" || p.state === "done") && (
					<Link to={`/cooks/${cook}/after`}>how it went</Link>
				)}
				<h1>{live.name}</h1>
				<p>
					<Clock standing={standing} /> {live.serve}
					{live.chance && `, ${live.chance} sure`}
					{live.practised && " · practice"}
				</p>
			</header>
			{live.problem && <p className="pit-problem">{live.problem}</p>}
			{live.bell && (
				<p className="pit-problem" role="alert">
					{live.bell}
				</p>
			)}
			{live.waits && <p className="pit-problem">{live.waits}</p>}
			<Alarms live={live} say={say} />
			<Aside live={live} say={say} />
			{next && (
				<section className="pit-next" aria-label="Next">
					<p className="pit-next-in">
						<Countdown standing={standing} at={next.at} />
					</p>
					<p>
						<b>{next.label}</b>
						<small>
							{next.time}
							{next.note && `; ${next.note}`}
						</small>
					</p>
				</section>
			)}
			{live.pieces.length > 1 && (
				<nav className="pit-tiles" aria-label="Pieces">
					{live.pieces.map((p) => (
						<button key={p.key} type="button" aria-pressed={p === piece} onClick={() => pick(p.key)}>
							<b>{p.core.text || "–"}</b>
							<span>{p.title}</span>
							<small>{p.since}</small>
						</button>
					))}
				</nav>
			)}
			{piece ? (
				<div className="pit-piece">
					<div>
						<Figures piece={piece} />
						<ReadingByHand piece={piece} say={say} place={place} />
						{piece.curve.length > 0 && <PitFan piece={piece} now={live.now} zone={live.zone} />}
						{piece.ready.note && (
							<p className="pit-ready">
								{piece.ready.text && <b>{piece.ready.text}</b>} {piece.ready.note}
								{piece.moved && <small>{piece.moved}</small>}
								{piece.narrows && <small>{piece.narrows}</small>}
							</p>
						)}
						{live.practised && <Debrief cook={cook} live={live} />}
						<CatchUp piece={piece} say={say} cook={cook} />
						{piece.cautions.length > 0 && (
							<section className="pit-cautions" aria-label="Cautions">
								<h2>Take care</h2>
								{piece.cautions.map((c) => (
									<div key={c.message} className={`pit-${c.severity}`}>
										<p>
											<WarningFilled aria-hidden /> <b>{c.severity}:</b> {c.message} {c.action}
										</p>
										{c.severity === "stop" && (
											<Button
												size="large"
												onClick={() =>
													say.fact("Read and understood", {
														kind: "acknowledged",
														what: c.id,
														piece: piece.key,
														values: c.values,
													})
												}
											>
												I understand the risk
											</Button>
										)}
									</div>
								))}
								<small>Guidance for home cooks; local food codes and licensed practice come first.</small>
							</section>
						)}
					</div>
					<div>
						<Presses
							key={piece.key}
							piece={piece}
							say={say}
							place={place}
							setPlace={probe}
							now={() => localOf(standing)}
						/>
						<Log live={live} say={say} />
						<Who />
						<Bell bell={bell} />
						<Devices cook={cook} piece={piece} />
						{live.practised && <Speed cook={cook} speed={live.speed} />}
					</div>
					<Thumb live={live} piece={piece} say={say} />
				</div>
			) : (
				<p>There is no piece in this cook-out yet: add one on the cook sheet.</p>
			)}
		</>
	);
}

/** Core and pit, to be read at arm's length, and whether to wrap. */
function Figures({ piece: p }: { piece: LivePiece }) {
	return (
		<section aria-label={p.title}>
			<p className="pit-title">
				<b>{p.title}</b> <span>{p.since}</span>
			</p>
			<div className="pit-figures">
				<p className="pit-core">
					{p.core.text ? <b>{p.core.text}</b> : <b className="pit-none">–</b>}
					<small>{p.core.note}</small>
				</p>
				<p className="pit-air">
					{p.pit.text ? <b>{p.pit.text}</b> : <b className="pit-none">–</b>}
					<small>pit, {p.pit.note}</small>
				</p>
			</div>
			{p.places.length > 0 && (
				<p className="pit-places">{p.places.map((at) => `${at.note} ${at.text}`).join(" · ")}</p>
			)}
			{p.verdict && <p className="pit-verdict">{p.verdict}</p>}
			{p.advice && (
				<div className={p.advice.now ? "pit-advice pit-advice-now" : "pit-advice"}>
					<p>{p.advice.head}</p>
					{p.advice.figure && (
						<p className="pit-advice-figure">
							{p.advice.figure} <small>{p.advice.at}</small>
						</p>
					)}
					{p.advice.why && <small>{p.advice.why}</small>}
				</div>
			)}
		</section>
	);
}
