import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useLocation, useParams } from "react-router";
import { api, type Batch, type Formula, need } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { CardActs } from "../card/card-acts";
import "../card/card.css";
import { usePrefs } from "../prefs";
import { Nothing } from "../shared/nothing";
import { whole } from "./formula";
import { onRecord } from "./formula-kind";
import "./formula-card.css";

const share = new Intl.NumberFormat("en-GB", { maximumSignificantDigits: 2 });
const usual: Batch = { fix: "", amount: "", row: 0, guests: 8, round: "", meat: "", cut: "" };

/** A formula on paper of A5, weighed out for the batch that stood on its page. */
export default function FormulaCard() {
	const { id = "" } = useParams();
	const { state } = useLocation() as { state: { formula: Formula; batch: Batch } | null };
	const [{ units, spoons }] = usePrefs();
	const catalogue = useCatalogue();
	const shipped = catalogue.data?.formulas.find((f) => f.id === id);
	const card = useQuery({
		queryKey: ["formula-card", id, state, units, spoons, Boolean(shipped)],
		enabled: catalogue.data !== undefined,
		gcTime: 0,
		queryFn: async () => {
			const formula =
				state?.formula ??
				(onRecord(id)
					? need(await api.GET("/api/formulas/{id}", { params: { path: { id } } })).doc
					: shipped);
			if (!formula) throw new Error("There is no such formula.");
			const body = { formula: whole(formula), batch: state?.batch ?? usual };
			const sheet = need(await api.POST("/api/calc/formula", { params: { query: { units, spoons } }, body }));
			return { formula, sheet };
		},
	});
	const name = card.data?.formula.name;
	useEffect(() => {
		if (name) document.title = `${name}: formula card`;
	}, [name]);
	if (card.isError) {
		return (
			<Nothing title="The card cannot be opened">
				<p>{card.error.message}</p>
				<Link to="/bench">Back to the bench</Link>
			</Nothing>
		);
	}
	if (!card.data) return <p className="loading">Opening…</p>;
	const { formula, sheet } = card.data;
	return (
		<>
			<CardActs back={`/bench/${id}`} to="Back to the formula" />
			<article className="card">
				<header>
					<h1>{formula.name || "A formula"}</h1>
					<p>
						{formula.kind || "rub"}
						{formula.note && ` · ${formula.note}`}
					</p>
				</header>
				{sheet.ready ? (
					<>
						<p className="formula-card-size">
							<b>
								{sheet.batch.text} {sheet.batch.unit}
							</b>{" "}
							this batch, {sheet.spoons}
						</p>
						<table>
							<thead>
								<tr>
									<th scope="col">ingredient</th>
									<th scope="col">weigh</th>
									<th scope="col">or measure</th>
									<th scope="col">by weight</th>
								</tr>
							</thead>
							<tbody>
								{sheet.rows.map((r) => (
									<tr key={`${r.name} ${r.form}`}>
										<th scope="row">
											{r.name}
											<small>{r.form}</small>
										</th>
										<td className="formula-card-weigh">
											{r.mass.text} {r.mass.unit}
										</td>
										<td>{r.spoons.text}</td>
										<td>{share.format(r.weight_share)} %</td>
									</tr>
								))}
							</tbody>
						</table>
						<section>
							<h2>Good to know</h2>
							<ul>
								<li>
									A level tablespoon weighs {sheet.spoon.text} {sheet.spoon.unit} and holds{" "}
									{sheet.spoon_salt.text} {sheet.spoon_salt.unit} of salt.
								</li>
								<li>Largest grain: {sheet.coarse}.</li>
								<li>{sheet.keeping}</li>
								<li>{sheet.contains}</li>
								<li>What has touched raw meat is thrown away: portion it first.</li>
							</ul>
						</section>
					</>
				) : (
					<p>Fix the formula to see the numbers: {sheet.errors.map((e) => e.message).join("; ")}.</p>
				)}
				<footer>Made on ____________________ by ____________________</footer>
			</article>
		</>
	);
}
