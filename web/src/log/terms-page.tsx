import { useMutation, useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect } from "react";
import { useLocation, useNavigate } from "react-router";
import { api, need } from "../api/client";
import { usePrefs } from "../prefs";
import { hereZone } from "../shared/clock";
import { keys } from "../shared/use-keys";
import "./terms.css";

/** The words of the trade, the schools where cooks disagree, and an example to look at. */
export default function TermsPage() {
	const navigate = useNavigate();
	const [{ units, spoons }] = usePrefs();
	const terms = useQuery({ queryKey: ["terms"], queryFn: async () => need(await api.GET("/api/terms")) });
	const example = useMutation({
		mutationFn: async () =>
			need(await api.POST("/api/new/example", { params: { query: { units, spoons, zone: hereZone() } } })),
		onSuccess: (made) => navigate(`/cooks/${made.id}/season/1`),
	});
	const t = terms.data;
	// What the address points at is there once the words are.
	const { hash } = useLocation();
	const ready = t !== undefined;
	useEffect(() => {
		if (ready && hash) document.getElementById(decodeURIComponent(hash.slice(1)))?.scrollIntoView();
	}, [ready, hash]);
	if (!t) return <p className="loading">{terms.error ? terms.error.message : "Opening…"}</p>;
	return (
		<article className="terms">
			<h1>Help</h1>
			<p className="says">
				What cooks call things here, and where they disagree. None of the answers is wrong: each buys
				something and costs something.
			</p>
			<p>
				<Button type="primary" size="large" loading={example.isPending} onClick={() => example.mutate()}>
					Open a worked example
				</Button>
			</p>
			{example.error && <p role="alert">{example.error.message}</p>}
			<nav aria-label="On this page" className="terms-index">
				<a href="#words">Words</a>
				<a href="#schools">Schools</a>
				<a href="#keys">Keys</a>
			</nav>
			<h2 id="words">Words</h2>
			<p className="terms-index">
				{t.words.map((w) => (
					<a key={w.word} href={`#${encodeURIComponent(w.word)}`}>
						{w.word}
					</a>
				))}
			</p>
			<dl>
				{t.words.map((w) => (
					<div key={w.word} id={w.word}>
						<dt>{w.word}</dt>
						<dd>{w.means}</dd>
					</div>
				))}
			</dl>
			<h2 id="schools">Schools</h2>
			{t.schools.map((s) => (
				<section key={s.question}>
					<h3>{s.question}</h3>
					<ul>
						{s.answers.map((a) => (
							<li key={a.answer}>
								<b>{a.answer}</b>
								{a.does && `: ${a.does}`}
							</li>
						))}
					</ul>
				</section>
			))}
			<h2 id="keys">Keys</h2>
			<p className="says">They do this wherever you are not typing.</p>
			<dl>
				{keys.map((k) => (
					<div key={k.key}>
						<dt>
							<kbd>{k.key}</kbd>
						</dt>
						<dd>{k.does}</dd>
					</div>
				))}
			</dl>
		</article>
	);
}
