import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect, useState } from "react";
import { ApiError, api, type GuessAnswer, need } from "../api/client";
import { BenchNav } from "../bench/bench-nav";
import { usePrefs } from "../prefs";
import { Ask } from "../shared/ask";
import { TypedField } from "../shared/typed-field";
import { CoatedPiece } from "./coated-piece";
import "./guess.css";

const key = "verjuice.guess";
const fresh = () => ({ seed: crypto.getRandomValues(new Uint32Array(1))[0] ?? 1, guesses: [] as string[] });

/** Ten quick rounds: see a piece with its coat, guess the grams or the salt, see how close. */
export default function GuessPage() {
	const [prefs] = usePrefs();
	const [game, setGame] = useState(() => {
		const kept = localStorage.getItem(key);
		return kept ? (JSON.parse(kept) as ReturnType<typeof fresh>) : fresh();
	});
	const [typed, setTyped] = useState("");
	// The last answer stays on the screen until the cook goes on.
	const [seen, setSeen] = useState(game.guesses.length);
	useEffect(() => localStorage.setItem(key, JSON.stringify(game)), [game]);
	const stand = useQuery({
		queryKey: ["guess", game, prefs.units, prefs.spoons],
		retry: false,
		placeholderData: keepPreviousData,
		queryFn: async () =>
			need(await api.POST("/api/guess", { params: { query: { units: prefs.units } }, body: game })),
	});
	const bad = stand.error instanceof ApiError ? stand.error.problem?.errors?.[0]?.message : undefined;
	// A guess that cannot be read is taken back, with what is wrong beside it.
	const [refused, setRefused] = useState("");
	useEffect(() => {
		if (!bad) return;
		setRefused(bad);
		setTyped(game.guesses.at(-1) ?? "");
		setGame((g) => ({ ...g, guesses: g.guesses.slice(0, -1) }));
	}, [bad, game.guesses]);
	const s = stand.data;
	if (!s) return <p className="loading">Laying out…</p>;
	const last = s.answers.at(-1);
	const showing = last && s.answers.length > seen ? last : undefined;
	const again = () => {
		setGame(fresh());
		setSeen(0);
		setTyped("");
	};
	const question = s.next;
	return (
		<>
			<BenchNav />
			<div className="formula-head">
				<h1>Guess the salt</h1>
				<p className="muted" role="status">
					{s.score}
				</p>
				{s.answers.length > 0 && <Button onClick={again}>Start over</Button>}
			</div>
			{showing ? (
				<Judged answer={showing} onNext={() => setSeen(s.answers.length)} over={!question} />
			) : question ? (
				<>
					<p className="guess-says">{question.question}</p>
					<div className="guess">
						<CoatedPiece question={question} />
						<div>
							<dl className="pairs">
								<div>
									<dt>piece</dt>
									<dd>
										{question.cut}, {question.weight}
									</dd>
								</div>
								<div>
									<dt>coat</dt>
									<dd>
										{question.coat}
										{question.one_bare && ", one face bare"}
									</dd>
								</div>
								<div>
									<dt>rub</dt>
									<dd>{question.rub_note}</dd>
								</div>
							</dl>
							<form
								className="guess-form"
								onSubmit={(e) => {
									e.preventDefault();
									if (!typed.trim()) return;
									setRefused("");
									setGame((g) => ({ ...g, guesses: [...g.guesses, typed.trim()] }));
									setTyped("");
								}}
							>
								<TypedField
									label={`Your guess, ${question.unit}`}
									size="large"
									inputMode="decimal"
									autoFocus
									value={typed}
									usual={question.unit === "%" ? "1.0" : "40"}
									error={refused || undefined}
									onChange={(v) => {
										setRefused("");
										setTyped(v);
									}}
								/>
								<Button type="primary" size="large" htmlType="submit" disabled={!typed.trim()}>
									That is my guess
								</Button>
							</form>
						</div>
					</div>
				</>
			) : (
				<div className="amounts">
					<div>
						<p className="guess-points">{s.points}</p>
						<p>points of 100. {s.message}</p>
						<Button type="primary" size="large" onClick={again}>
							Ten more
						</Button>
					</div>
				</div>
			)}
			{s.answers.length > 0 && !showing && <Past answers={s.answers} says={s.message} />}
		</>
	);
}

/** How close a guess came. */
function Judged({ answer: a, over, onNext }: { answer: GuessAnswer; over: boolean; onNext: () => void }) {
	const most = Math.max(a.guess, a.answer.value);
	return (
		<>
			<p className="guess-says" role="status">
				{a.verdict} {a.scored}.
			</p>
			<div className="guess">
				<CoatedPiece question={a} />
				<div className="guess-bars">
					<p>
						<b>{a.guess}</b> {a.unit} guessed
						<span style={{ width: `${(a.guess / most) * 100}%` }} className="guess-yours" />
					</p>
					<p>
						<Ask size="huge" name={a.question} figure={a.answer} /> it is
						<span style={{ width: `${(a.answer.value / most) * 100}%` }} className="guess-true" />
					</p>
					<p className="says">{a.answer.where?.explanation}</p>
					<Button type="primary" size="large" autoFocus onClick={onNext}>
						{over ? "See how it went" : "Next piece"}
					</Button>
				</div>
			</div>
		</>
	);
}

/** The rounds so far. */
function Past({ answers, says }: { answers: GuessAnswer[]; says: string }) {
	return (
		<section className="guess-past">
			<h2>So far</h2>
			<p className="says">{says}</p>
			<ul>
				{answers.map((a) => (
					<li key={a.round}>
						<span>
							{a.cut}, {a.coat}
						</span>
						<span>
							<b>{a.guess}</b> for {a.answer.text} {a.unit}
						</span>
						<b>{a.points}</b>
					</li>
				))}
			</ul>
		</section>
	);
}
