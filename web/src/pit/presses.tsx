import { Button, Input } from "antd";
import { useId, useState } from "react";
import { PickTime } from "../shared/time-field";
import { serveAt } from "./serve-at";
import type { Live, LivePiece, Press } from "./use-live";
import type { Say } from "./use-say";

/** What comes next and what was pressed last, where the thumb is. */
export function Thumb({ live, piece, say }: { live: Live; piece: LivePiece; say: Say }) {
	const next = piece.done.find((p) => !p.asks);
	const last = live.log[0];
	if (!next) return null;
	return (
		<div className="pit-thumb">
			<button
				type="button"
				className={next.planned ? "press press-planned" : "press"}
				onClick={() => say.done(next, piece)}
			>
				{next.label}
				{next.last && <small>{next.last}</small>}
			</button>
			{last && (
				<button type="button" className="press" onClick={() => say.undo(last)}>
					Undo
					<small>
						{last.label}, {last.time}
					</small>
				</button>
			)}
		</div>
	);
}

/** What would make up for being late or early, each by one press. */
export function CatchUp({ piece, say, cook }: { piece: LivePiece; say: Say; cook: string }) {
	const [trouble, setTrouble] = useState("");
	if (piece.catch.length === 0) return null;
	return (
		<section className="pit-catch" aria-label="To be ready in time">
			<h2>To be ready in time</h2>
			{trouble && <p role="alert">{trouble}</p>}
			{piece.catch.map((c) => (
				<button
					key={c.label}
					type="button"
					className="press"
					onClick={() =>
						c.edits.length > 0 ? void serveAt(cook, c.edits).then(setTrouble) : say.done(c.press, piece)
					}
				>
					{c.label}
					<small>{c.note}</small>
				</button>
			))}
		</section>
	);
}

interface PressesProps {
	piece: LivePiece;
	say: Say;
	/** The clock of the cook-out, as local time. */
	now: () => string;
	/** Where in the piece the probe is now; empty is anywhere. */
	place: string;
	setPlace: (place: string) => void;
}

/** One press for each thing that was done or seen; what was planned stands first. */
export function Presses({ piece, say, now, place, setPlace }: PressesProps) {
	const [asking, ask] = useState<Press>();
	return (
		<section className="pit-presses" aria-label="What was done and seen">
			{piece.done.length > 0 && <h2>Done</h2>}
			<div className="pit-done">
				{piece.done.map((p) => (
					<button
						key={p.what}
						type="button"
						className={p.planned ? "press press-planned" : "press"}
						onClick={() => (p.asks ? ask(p) : say.done(p, piece))}
					>
						{p.label}
						{p.last && <small>{p.last}</small>}
					</button>
				))}
			</div>
			{asking?.asks === "since" && (
				<Since
					press={asking}
					now={now()}
					onDone={(at) => {
						ask(undefined);
						if (at) say.done(asking, piece, {}, at);
					}}
				/>
			)}
			{asking?.asks === "temperature" && (
				<Temperature
					unit={piece.axis.unit}
					onDone={(typed) => {
						ask(undefined);
						if (typed) say.done(asking, piece, { typed });
					}}
				/>
			)}
			{piece.seen.length > 0 && <h2>Seen</h2>}
			{piece.seen.length > 0 && (
				<fieldset className="pit-sign pit-where">
					<legend>Where you probe</legend>
					{piece.probed.map((at) => (
						<button
							key={at}
							type="button"
							className={at === place ? "press press-seen" : "press"}
							aria-pressed={at === place}
							onClick={() => setPlace(at === place ? "" : at)}
						>
							{at}
						</button>
					))}
				</fieldset>
			)}
			{piece.seen.map((s) => (
				<fieldset key={s.sign} className="pit-sign">
					<legend>
						{s.label}
						{s.sign === "feel" && place && `, ${place}`}
					</legend>
					{s.hows.map((h) => (
						<button
							key={h.how}
							type="button"
							className={h.now ? "press press-seen" : "press"}
							aria-pressed={h.now}
							onClick={() =>
								say.fact(`${s.label}: ${h.label}`, {
									kind: "seen",
									what: s.sign,
									piece: piece.key,
									values: s.sign === "feel" && place ? { how: h.how, place } : { how: h.how },
								})
							}
						>
							{h.label}
						</button>
					))}
				</fieldset>
			))}
		</section>
	);
}

/** When something began that is noticed only now. */
function Since({ press, now, onDone }: { press: Press; now: string; onDone: (at?: string) => void }) {
	const [at, setAt] = useState(now);
	return (
		<div className="pit-asked">
			<p>
				<span>{press.label}: since when?</span>
				<PickTime ago past name={`${press.label} since`} value={at} onChange={(t) => setAt(t || now)} />
			</p>
			<Button type="primary" size="large" onClick={() => onDone(at)}>
				Since then
			</Button>
			<Button size="large" onClick={() => onDone()}>
				Leave it
			</Button>
		</div>
	);
}

/** What the pit is set to now, as it is typed. */
function Temperature({ unit, onDone }: { unit: string; onDone: (typed?: string) => void }) {
	const id = useId();
	const [typed, setTyped] = useState("");
	return (
		<form
			className="pit-asked"
			onSubmit={(e) => {
				e.preventDefault();
				if (typed.trim()) onDone(withUnit(typed, unit));
			}}
		>
			<p>
				<label htmlFor={id}>The pit is set to, {unit}</label>
				<Input
					id={id}
					variant="underlined"
					autoFocus
					inputMode="decimal"
					maxLength={20}
					value={typed}
					placeholder={unit === "°F" ? "250" : "120"}
					onChange={(e) => setTyped(e.target.value)}
				/>
			</p>
			<Button type="primary" size="large" htmlType="submit" disabled={!typed.trim()}>
				Set
			</Button>
			<Button size="large" onClick={() => onDone()}>
				Leave it
			</Button>
		</form>
	);
}

/** A temperature with the unit that is shown, where none is typed. */
export const withUnit = (typed: string, unit: string) =>
	/[cf]\s*$/i.test(typed) ? typed.trim() : `${typed.trim()} ${unit}`;
