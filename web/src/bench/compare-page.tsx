import { useQuery } from "@tanstack/react-query";
import { Table } from "antd";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, type Catalogue, need } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { Strata } from "../cook/strata";
import { usePrefs } from "../prefs";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { FindSelect } from "../shared/find-select";
import { Nothing } from "../shared/nothing";
import { layerFills } from "../theme";
import "./bench.css";
import { fetchFormula } from "./use-formulas";

/** Two or three formulas on a common footing: per 100 g, by the spoon, and on the same piece. */
export default function ComparePage() {
	const [params] = useSearchParams();
	const [prefs] = usePrefs();
	const [cut, setCut] = useState("pork-shoulder-bone-in");
	const [coat, setCoat] = useState("medium");
	const ids = (params.get("of") ?? "equal-parts,pepper-forward,pepper-heavy").split(",").slice(0, 3);
	const catalogue = useCatalogue();
	const formulas = useQuery({
		queryKey: ["formulas", "compared", ids],
		enabled: catalogue.data !== undefined,
		queryFn: () => Promise.all(ids.map((id) => fetchFormula(id, catalogue.data as Catalogue))),
	});
	const result = useQuery({
		queryKey: ["compare", formulas.data, cut, coat, prefs.units, prefs.spoons],
		enabled: formulas.isSuccess,
		queryFn: async () =>
			need(
				await api.POST("/api/calc/compare", {
					params: { query: { units: prefs.units, spoons: prefs.spoons } },
					body: { formulas: formulas.data ?? [], cut, coat, weight: "" },
				}),
			),
	});
	const failed = formulas.error ?? result.error;
	if (failed) {
		return (
			<Nothing title="These cannot be compared">
				<p>{failed.message}</p>
				<Link to="/bench">Back to the bench</Link>
			</Nothing>
		);
	}
	const c = result.data;
	if (!c) return <p className="loading">Weighing…</p>;
	const names = [...new Set(c.columns.flatMap((col) => col.totals.map((t) => t.name)))];
	const lines = [
		...names.map((name) => ({
			key: `in all ${name}`,
			name,
			texts: c.columns.map((col) => col.totals.find((t) => t.name === name)?.share.text ?? "–"),
		})),
		...c.rows.map((r) => ({ ...r, key: r.name })),
	];
	return (
		<>
			<div className="formula-head">
				<h1>Side by side</h1>
				<Link to="/bench">Choose others</Link>
			</div>
			<div className="compare-on">
				<FindSelect
					aria-label="Piece they are put on"
					variant="underlined"
					value={cut}
					onChange={setCut}
					options={(catalogue.data?.cuts ?? []).map((k) => ({
						value: k.id,
						label: k.name,
						names: [k.name, ...k.also],
					}))}
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
			<Table
				className="compare-table"
				pagination={false}
				dataSource={lines}
				rowClassName={(_, i) => (i === names.length ? "compare-parts" : "")}
				columns={[
					{ title: "% by weight", dataIndex: "name", rowScope: "row" as const },
					...c.columns.map((col, i) => ({ title: col.name, dataIndex: ["texts", i] })),
				]}
			/>
		</>
	);
}
