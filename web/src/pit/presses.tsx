import { Button, Input } from "antd";
import { useId, useState } from "react";
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
				<button
					type="button"
					className="press"
					onClick={() => say.fact(`Undo: ${last.label}`, { kind: "withdrawn", what: last.id })}
				>
					Undo
					<small>
						{last.label}, {last.time}
					</small>
				</button>
			)}
		</div>
	);
}

/** What would make up for being late, each by one press. */
export function CatchUp({ piece, say }: { piece: LivePiece; say: Say }) {
	if (piece.catch.length === 0) return null;
	return (
		<section className="pit-catch" aria-label="To catch up">
			<h2>To catch up</h2>
			{piece.catch.map((c) => (
				<button key={c.label} type="button" className="press" onClick={() => say.done(c.press, piece)}>
					{c.label}
					<small>{c.note}</small>
				</button>
			))}
		</section>
	);
}

/** One press for each thing that was done or seen; what was planned stands first. */
export function Presses({ piece, say }: { piece: LivePiece; say: Say }) {
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
			{asking && (
				<Temperature
					unit={piece.unit}
					onDone={(typed) => {
						ask(undefined);
						if (typed) say.done(asking, piece, { typed });
					}}
				/>
			)}
			{piece.seen.length > 0 && <h2>Seen</h2>}
			{piece.seen.map((s) => (
				<fieldset key={s.sign} className="pit-sign">
					<legend>{s.label}</legend>
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
									values: { how: h.how },
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
