import { useQuery } from "@tanstack/react-query";
import { Checkbox } from "antd";
import { Link } from "react-router";
import { api, need, type ShopLine } from "../api/client";
import { usePrefs } from "../prefs";
import { Ask } from "../shared/ask";
import { useInHand } from "./context";
import { useTick } from "./use-tick";
import "./shopping-page.css";

/** What to buy over all pieces and mixes, less what is in the larder and in jars. */
export function ShoppingPage() {
	const { cook, facts, onRecord } = useInHand();
	const [prefs] = usePrefs();
	const list = useQuery({
		queryKey: ["shopping", cook, facts, onRecord, prefs.units, prefs.spoons],
		placeholderData: (old) => old,
		queryFn: async () =>
			need(
				await api.POST("/api/shopping", {
					params: { query: { units: prefs.units, spoons: prefs.spoons, ...onRecord } },
					body: { ...cook, facts },
				}),
			),
	}).data;
	if (!list) return <p className="loading">Adding up…</p>;
	return (
		<>
			<h2>Shopping</h2>
			{list.cost && (
				<div className="amounts">
					<div>
						<Ask size="huge" name="What it costs" figure={list.cost.total} />
						<p>{list.cost.note || "for all of it"}</p>
					</div>
				</div>
			)}
			{list.meat.length === 0 && <p className="says">Add a piece of meat to see what you need for it.</p>}
			<Lines title="Meat" lines={list.meat} />
			<Lines title="Everything else" lines={list.groceries} />
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
			{list.enough && <p className="says">{list.enough}</p>}
			<p className="says">
				Prices and stock are kept in <Link to="/larder">the larder</Link>.
			</p>
		</>
	);
}

function Lines({ title, lines }: { title: string; lines: ShopLine[] }) {
	const tick = useTick();
	if (lines.length === 0) return null;
	return (
		<>
			<h3>{title}</h3>
			<ul className="shop">
				{lines.map((l) => (
					<li key={l.tick + l.id}>
						<Checkbox checked={l.ticked} onChange={() => tick(l)}>
							<b>{l.buy}</b>
							<span>
								<b>{l.name}</b>
								{l.frozen && " (frozen)"}
								<small>{l.note}</small>
							</span>
							<span className="muted">{l.cost}</span>
						</Checkbox>
					</li>
				))}
			</ul>
		</>
	);
}
