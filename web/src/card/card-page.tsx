import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect } from "react";
import { useParams } from "react-router";
import { ApiError, api, need, type OpenedCook } from "../api/client";
import { usePrefs } from "../prefs";
import { left } from "../record/leaving";
import { Nothing } from "../shared/nothing";
import { CardActs } from "./card-acts";
import "./card.css";

/** The pit card: what to do when, on paper of A5, black on white. */
export default function CardPage() {
	const { id = "" } = useParams();
	const [prefs] = usePrefs();
	const card = useQuery({
		queryKey: ["card", id, prefs.units, prefs.spoons],
		gcTime: 0,
		queryFn: async () => {
			await left(id);
			const { record, facts } = need(
				await api.GET("/api/cooks/{id}/opened", { params: { path: { id } } }),
			) as OpenedCook;
			const cook = record.doc;
			const { units, spoons } = prefs;
			const query = { units, spoons, cook: id, plain: true };
			const body = { ...cook, facts };
			return { cook, sheet: need(await api.POST("/api/sheet", { params: { query }, body })) };
		},
	});
	const name = card.data?.cook.name;
	useEffect(() => {
		if (name) document.title = `${name}: pit card`;
	}, [name]);
	if (card.isError) {
		const gone = card.error instanceof ApiError && card.error.status === 404;
		return (
			<Nothing title={gone ? "There is no such cook-out" : "The card cannot be opened"}>
				{!gone && <p>{card.error.message}</p>}
				{!gone && <Button onClick={() => card.refetch()}>Try again</Button>}
			</Nothing>
		);
	}
	if (!card.data) return <p className="loading">Opening…</p>;
	const { cook, sheet } = card.data;
	const plan = sheet.plan;
	const days = [...new Set(plan?.tasks.map((t) => t.day))];
	const grave = sheet.pieces.flatMap((p) =>
		p.cautions.filter((c) => c.severity !== "note").map((c) => ({ ...c, title: p.title })),
	);
	const once = grave.filter((c, i) => grave.findIndex((o) => o.id === c.id) === i);
	return (
		<>
			<CardActs back={`/cooks/${id}/plan`} to="Back to the plan" />
			<article className="card">
				<header>
					<h1>{cook.name}</h1>
					<p>
						{sheet.serve ? <>Serving {sheet.serve}</> : "No serving time"} · {sheet.stages.occasion}
					</p>
				</header>
				<table>
					<thead>
						<tr>
							<th scope="col">piece</th>
							<th scope="col">rub</th>
							<th scope="col">pit</th>
							<th scope="col">off at</th>
						</tr>
					</thead>
					<tbody>
						{sheet.pieces.map((p, i) => (
							<tr key={cook.pieces[i]?.key ?? i}>
								<th scope="row">
									{p.count > 1 && `${p.count} × `}
									{p.title}
									{p.meat && <small>{p.meat.all_green.text}</small>}
								</th>
								<td>
									{p.season && `${p.season.on_meat.text} ${p.season.on_meat.unit}`}
									<small>{cook.pieces[i]?.season.formula.name}</small>
								</td>
								<td>
									{p.clock?.pit_at || p.usual_pit}
									<small>{cook.pits?.[cook.pieces[i]?.fire.on ?? 0]?.name}</small>
								</td>
								<td>
									{p.clock?.off_at || p.usual_core}
									{p.grain_note && <small>grain {cook.pieces[i]?.grain}°</small>}
								</td>
							</tr>
						))}
					</tbody>
				</table>
				{sheet.pieces.some((p) => p.recipes.length > 0) && (
					<section>
						<h2>Mix</h2>
						<ul>
							{sheet.pieces.flatMap((p) =>
								p.recipes.map((line) => (
									<li key={p.key + line}>
										<b>{p.title}:</b> {line}
									</li>
								)),
							)}
						</ul>
					</section>
				)}
				{sheet.errors.length > 0 && (
					<section>
						<h2>Not worked out</h2>
						<ul>
							{sheet.errors.map((e) => (
								<li key={e.pointer + e.message}>
									<b>{sheet.pieces[Number(e.pointer.split("/")[2])]?.title ?? "This cook-out"}:</b>{" "}
									{e.message}
								</li>
							))}
						</ul>
					</section>
				)}
				{days.map((day) => (
					<section key={day}>
						<h2>{day}</h2>
						<ol>
							{plan?.tasks
								.filter((t) => t.day === day)
								.map((t) => (
									<li key={t.id}>
										<b>{t.time}</b>
										<span>
											{t.label}
											{t.note && <small> {t.note}</small>}
										</span>
										<i aria-hidden />
									</li>
								))}
						</ol>
					</section>
				))}
				{once.length > 0 && (
					<section>
						<h2>Care</h2>
						<ul>
							{once.map((c) => (
								<li key={c.id}>
									<b>{c.title}:</b> {c.action}
								</li>
							))}
						</ul>
					</section>
				)}
				<footer>{sheet.disclaimer}</footer>
			</article>
		</>
	);
}
