import { useQueries, useQuery } from "@tanstack/react-query";
import { Select } from "antd";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, type Formula, need } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { Strata } from "../cook/strata";
import { usePrefs } from "../prefs";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { Nothing } from "../shared/nothing";
import { layerFills } from "../theme";
import "./bench.css";

/** Two or three formulas on a common footing: per 100 g, by the spoon, and on the same piece. */
export default function ComparePage() {
	const [params] = useSearchParams();
	const [prefs] = usePrefs();
	const [cut, setCut] = useState("pork-shoulder-bone-in");
	const [coat, setCoat] = useState("medium");
	const ids = (params.get("of") ?? "equal-parts,pepper-forward,pepper-heavy").split(",").slice(0, 3);
	const catalogue = useCatalogue();
	const own = useQueries({
		queries: ids.map((id) => ({
			queryKey: ["formula", id],
			enabled: /^\d+$/.test(id),
			queryFn: async () => need(await api.GET("/api/formulas/{id}", { params: { path: { id } } })),
		})),
	});
	const formulas = ids.map(
		(id, i) => own[i]?.data?.formula ?? catalogue.data?.formulas.find((f) => f.id === id),
	);
	const ready = formulas.every(Boolean);
	const result = useQuery({
		queryKey: ["compare", formulas, cut, coat, prefs.units, prefs.spoons],
		enabled: ready,
		queryFn: async () =>
			need(
				await api.POST("/api/calc/compare", {
					params: { query: { units: prefs.units, spoons: prefs.spoons } },
					body: { formulas: formulas as Formula[], cut, coat, weight: "" },
				}),
			),
	});
	if (result.isError) {
		return (
			<Nothing title="These cannot be set side by side">
				<p>{result.error.message}</p>
				<Link to="/bench">Back to the bench</Link>
			</Nothing>
		);
	}
	const c = result.data;
	if (!c) return <p className="loading">Weighing…</p>;
	const names = [...new Set(c.columns.flatMap((col) => col.totals.map((t) => t.name)))];
	return (
		<>
			<div className="formula-head">
				<h1>Side by side</h1>
				<Link to="/bench">Choose others</Link>
			</div>
			<div className="compare-on">
				<Select
					aria-label="Piece they are put on"
					variant="underlined"
					value={cut}
					showSearch={{ optionFilterProp: "label" }}
					onChange={setCut}
					options={catalogue.data?.cuts.map((k) => ({ value: k.id, label: k.name }))}
				/>
				<Choice
					label="Coat"
					quiet
					value={coat}
					onChange={setCoat}
					options={(catalogue.data?.coats ?? []).map((k) => ({ value: k.name, label: k.name }))}
				/>
				<p className="muted">{c.on}</p>
			</div>
			<div className="compare">
				{c.columns.map((col) => (
					<section key={col.name}>
						<h2>{col.name}</h2>
						<Strata season={col} fills={layerFills(col.rows.map((r) => r.kind))} />
						<Ask size="huge" name={`Salt that ${col.name} leaves in the meat`} figure={col.percent} />
						<p className="muted">salt in the meat</p>
						<Ask size="large" name={`${col.name} on the meat`} figure={col.on_meat} />
						<p className="muted">on the meat</p>
						<Ask size="large" name={`Salt in a level tablespoon of ${col.name}`} figure={col.spoon} />
						<p className="muted">salt in a level Tbsp</p>
					</section>
				))}
			</div>
			<ul className="compare-says">
				{c.differences.map((s) => (
					<li key={s}>{s}</li>
				))}
			</ul>
			<table className="compare-table">
				<caption>% by weight</caption>
				<thead>
					<tr>
						<th scope="col">holds</th>
						{c.columns.map((col) => (
							<th key={col.name} scope="col">
								{col.name}
							</th>
						))}
					</tr>
				</thead>
				<tbody>
					{names.map((n) => (
						<tr key={n}>
							<th scope="row">{n}</th>
							{c.columns.map((col) => (
								<td key={col.name}>{col.totals.find((t) => t.name === n)?.share.text ?? "–"}</td>
							))}
						</tr>
					))}
				</tbody>
				<tbody>
					{c.rows.map((r) => (
						<tr key={r.name}>
							<th scope="row">{r.name}</th>
							{r.texts.map((v, i) => (
								// biome-ignore lint/suspicious/noArrayIndexKey: columns are told apart by their place
								<td key={i}>{v}</td>
							))}
						</tr>
					))}
				</tbody>
			</table>
		</>
	);
}
