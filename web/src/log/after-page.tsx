import { WarningFilled } from "@ant-design/icons";
import { Button, Input } from "antd";
import { useId, useState } from "react";
import { Link, useParams } from "react-router";
import { CautionLine } from "../cook/cautions";
import { Who } from "../pit/who";
import { Unread } from "../shared/nothing";
import { Photos } from "../shared/photos";
import { Curves } from "./curves";
import { Foreign } from "./foreign";
import { Leftovers } from "./leftovers";
import { Repeat } from "./repeat";
import { ToldAgain } from "./told-again";
import { type After, type AfterPiece, useAfter, useWriteDown } from "./use-after";
import { Fuel, Weights } from "./weights";
import "./after.css";

type Write = ReturnType<typeof useWriteDown>;

/** How a cook-out went: plan against actual, forecast against readings, and what to write down. */
export default function AfterPage() {
	const { id = "" } = useParams();
	const after = useAfter(id);
	const write = useWriteDown(id);
	const went = after.data;
	if (!went) {
		return after.error ? (
			<Unread title="The review could not be loaded" error={after.error} again={after.refetch} />
		) : (
			<p className="loading">Adding up…</p>
		);
	}
	return (
		<article className="after">
			<header className="after-head">
				<p className="muted">
					<Link to={`/cooks/${id}`}>{went.name}</Link>
				</p>
				<h1>How it went</h1>
				<p className="says">
					{went.day}
					{went.served && ` · ${went.served}`}
				</p>
				{went.cost && <p>{went.cost}</p>}
			</header>
			{went.pieces.length === 0 ? (
				<>
					{went.tellings.length === 0 && (
						<p className="says">
							Nothing has gone on the fire yet. What you press <Link to={`/cooks/${id}/pit`}>at the pit</Link>{" "}
							is told here.
						</p>
					)}
					<ToldAgain id={id} went={went} />
				</>
			) : (
				<>
					{write.error && (
						<p className="typed-error" role="alert">
							<WarningFilled aria-hidden /> {write.error.message}
						</p>
					)}
					{went.pieces.map((p) => (
						<Went key={p.key} piece={p} write={write} />
					))}
					<ToldAgain id={id} went={went} />
					<Fuel fuel={went.fuel} write={write} />
					<Moves went={went} />
					<Notes notes={went.notes} write={write} label="To remember of the whole cook-out" />
					<p className="after-acts">
						<a href={`/api/cooks/${id}/log.csv`} download>
							Readings and moves as a table (CSV)
						</a>
						<Button onClick={() => window.print()}>Print this report</Button>
					</p>
					<Foreign id={id} pieces={went.pieces} />
					<Finish went={went} write={write} />
					<Repeat id={id} />
				</>
			)}
		</article>
	);
}

function Figure({ figure }: { figure: AfterPiece["hours"] }) {
	if (!figure.text) return null;
	return (
		<p className="after-figure">
			<b>{figure.text}</b>
			<small>{figure.note}</small>
		</p>
	);
}

function Went({ piece: p, write }: { piece: AfterPiece; write: Write }) {
	return (
		<section className="after-piece" aria-label={p.title}>
			<h2>{p.title}</h2>
			<div className="after-figures">
				<Figure figure={p.hours} />
				<Figure figure={p.yield} />
				<Figure figure={p.core} />
				<Figure figure={p.rub} />
				<Figure figure={p.salt} />
			</div>
			<div className="after-write">
				<Weights piece={p} write={write} />
				<Scores piece={p} write={write} />
			</div>
			{p.read.length > 0 && (
				<>
					<Curves
						curves={[{ id: p.key, label: p.title, read: p.read, off: p.off_h }]}
						thought={p.curve}
						target={p.target}
						axis={p.axis}
						label={`Core of ${p.title}: what was read, and the forecast when it went on`}
					/>
					<p className="muted after-key">
						<span className="after-key-read" /> as it was read <span className="after-key-thought" /> forecast
						when it went on, with the band in which eight in ten fall
					</p>
				</>
			)}
			{p.miss && <p>{p.miss}</p>}
			{p.cautions.length > 0 && (
				<section className="cautions" aria-label="Cautions">
					<ul>
						{p.cautions.map((c) => (
							<CautionLine
								key={c.id}
								caution={{ ...c, authority: "" }}
								title=""
								onRead={() =>
									write.mutate({ kind: "acknowledged", what: c.id, piece: p.key, values: c.values })
								}
							/>
						))}
					</ul>
					<p className="cautions-close">
						Guidance for home cooks; local food codes and licensed practice come first.
					</p>
				</section>
			)}
			<Notes notes={p.notes} piece={p.key} write={write} label={`What to change next time with ${p.title}`} />
			<Leftovers piece={p} write={write} />
			<Photos piece={p.key} title={p.title} />
		</section>
	);
}

/** How it tasted, from one to five, by each taster. */
function Scores({ piece: p, write }: { piece: AfterPiece; write: Write }) {
	return (
		<div className="after-scores">
			<h3>How it tasted</h3>
			<Who label="Who is tasting" />
			{p.lay && <p className="says">{p.lay}</p>}
			{p.scores.map((s) => (
				<fieldset key={s.aspect}>
					<legend>{s.label}</legend>
					{s.words.map((word, i) => (
						<button
							key={word}
							type="button"
							className="after-score"
							aria-pressed={s.given.some((g) => g.score === i + 1)}
							onClick={() =>
								write.mutate({ kind: "scored", what: s.aspect, piece: p.key, values: { score: i + 1 } })
							}
						>
							{word}
							<small>
								{s.given
									.filter((g) => g.score === i + 1)
									.map((g) => g.by || "you")
									.join(", ")}
							</small>
						</button>
					))}
				</fieldset>
			))}
		</div>
	);
}

interface NotesProps {
	notes: After["notes"];
	piece?: string;
	label: string;
	write: Write;
}

function Notes({ notes, piece = "", label, write }: NotesProps) {
	const id = useId();
	const [typed, setTyped] = useState("");
	return (
		<div className="after-notes">
			<ul>
				{notes.map((n) => (
					<li key={n.id}>
						<span>
							{n.text} {n.by && <small className="muted">{n.by}</small>}
						</span>
						<Button
							type="text"
							aria-label={`Take away: ${n.text}`}
							onClick={() => write.mutate({ kind: "withdrawn", what: n.id })}
						>
							take away
						</Button>
					</li>
				))}
			</ul>
			<form
				onSubmit={(e) => {
					e.preventDefault();
					const what = typed.trim();
					if (what) write.mutate({ kind: "noted", what, piece }, { onSuccess: () => setTyped("") });
				}}
			>
				<label htmlFor={id}>{label}</label>
				<Input
					id={id}
					variant="underlined"
					maxLength={300}
					value={typed}
					placeholder="wrap it later; less of the rub"
					onChange={(e) => setTyped(e.target.value)}
				/>
				<Button htmlType="submit" disabled={!typed.trim()} loading={write.isPending}>
					Write it down
				</Button>
			</form>
		</div>
	);
}

function Moves({ went }: { went: After }) {
	if (went.moves.length === 0) return null;
	return (
		<section className="after-moves" aria-label="Plan against actual">
			<h2>Plan against actual</h2>
			<table>
				<thead>
					<tr>
						<th scope="col">What</th>
						<th scope="col">Planned</th>
						<th scope="col">Done</th>
						<th scope="col">Difference</th>
					</tr>
				</thead>
				<tbody>
					{went.moves.map((m) => (
						<tr key={`${m.label} ${m.planned} ${m.actual}`} className={m.off ? "after-off" : undefined}>
							<th scope="row">{m.label}</th>
							<td>{m.planned || "not planned"}</td>
							<td>{m.actual || "not written down"}</td>
							<td>{m.late}</td>
						</tr>
					))}
				</tbody>
			</table>
		</section>
	);
}

function Finish({ went, write }: { went: After; write: Write }) {
	if (went.practice) return <p className="says">This was practice: nothing is learnt from it.</p>;
	return went.finished ? (
		<div className="after-acts">
			<p className="says" role="status">
				It is in the logbook, and the next forecast learns from it. Change anything above at any time.
			</p>
			<Button onClick={() => write.mutate({ kind: "withdrawn", what: went.over })}>It is not over yet</Button>
			<Link to="/log">To the logbook</Link>
		</div>
	) : (
		<p>
			<Button
				type="primary"
				size="large"
				loading={write.isPending}
				onClick={() => write.mutate({ kind: "done", what: "over", piece: "" })}
			>
				It is over: put it in the logbook
			</Button>
		</p>
	);
}
