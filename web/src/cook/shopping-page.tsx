import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, need } from "../api/client";
import { usePrefs } from "../prefs";
import { Ask } from "../shared/ask";
import { useInHand } from "./context";
import "./shopping-page.css";

/** What to buy over all pieces and mixes, less what is in the larder and in jars. */
export function ShoppingPage() {
	const { cook } = useInHand();
	const { id } = useParams();
	const [prefs] = usePrefs();
	const key = `verjuice.bought.${id}`;
	const [bought, setBought] = useState<string[]>(() => JSON.parse(localStorage.getItem(key) ?? "[]"));
	const tick = (line: string) => {
		const now = bought.includes(line) ? bought.filter((b) => b !== line) : [...bought, line];
		localStorage.setItem(key, JSON.stringify(now));
		setBought(now);
	};
	const list = useQuery({
		queryKey: ["shopping", cook, prefs.units, prefs.spoons],
		placeholderData: (old) => old,
		queryFn: async () =>
			need(
				await api.POST("/api/shopping", {
					params: { query: { units: prefs.units, spoons: prefs.spoons, served_at: cook.serve_at } },
					body: cook,
				}),
			),
	}).data;
	if (!list) return <p className="loading">Adding up…</p>;
	const missing = list.shelf.filter((l) => l.buy);
	const here = list.shelf.filter((l) => !l.buy);
	return (
		<>
			<h2>Shopping</h2>
			{list.total && (
				<div className="amounts">
					<div>
						<Ask size="huge" name="What it costs" figure={list.total} />
						<p>
							{list.no_cost.length > 0
								? `without ${list.no_cost.slice(0, 4).join(", ")}${list.no_cost.length > 4 ? " and others" : ""}`
								: "for all of it"}
						</p>
					</div>
				</div>
			)}
			{list.meat.length === 0 && (
				<p className="says">Add a piece of meat, and what it takes is listed here.</p>
			)}
			<Lines title="Meat" lines={list.meat} bought={bought} tick={tick} />
			<Lines title="Everything else" lines={missing} bought={bought} tick={tick} />
			{list.jars.length > 0 && (
				<>
					<h3>From jars</h3>
					<ul className="shop-plain">
						{list.jars.map((j) => (
							<li key={j}>{j}</li>
						))}
					</ul>
				</>
			)}
			{here.length > 0 && (
				<p className="says">
					Enough is here of {here.map((l) => `${l.name} (${l.need} of ${l.have})`).join(", ")}.
				</p>
			)}
			<p className="says">
				Prices and what is here stand in <Link to="/larder">the larder</Link>.
			</p>
		</>
	);
}

interface Line {
	thing: string;
	name: string;
	buy: string;
	have: string;
	cost: string;
	for: string[];
	frozen: boolean;
}

interface LinesProps {
	title: string;
	lines: Line[];
	/** What is ticked off, by name and amount: a line that needs another amount is open again. */
	bought: string[];
	tick: (line: string) => void;
}

function Lines({ title, lines, bought, tick }: LinesProps) {
	if (lines.length === 0) return null;
	return (
		<>
			<h3>{title}</h3>
			<ul className="shop">
				{lines.map((l) => (
					<li key={l.name + l.thing}>
						<label>
							<input
								type="checkbox"
								checked={bought.includes(`${l.name} ${l.buy}`)}
								onChange={() => tick(`${l.name} ${l.buy}`)}
							/>
							<span>
								<b>{l.name}</b>
								{l.frozen && " (frozen)"}
								<small>
									{[l.have && `${l.have} here`, l.for.length > 0 && `for ${l.for.join(", ")}`]
										.filter(Boolean)
										.join("; ")}
								</small>
							</span>
						</label>
						<b>{l.buy}</b>
						<span className="muted">{l.cost}</span>
					</li>
				))}
			</ul>
		</>
	);
}
