import { PlusOutlined, SearchOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { useDeferredValue, useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { api, need } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { BenchNav } from "../bench/bench-nav";
import { OwnIngredients } from "./own-ingredients";
import { ThingLine } from "./thing-line";
import "./larder.css";

/** What is in stock and what it cost, and ingredients of the cook's own. */
export default function LarderPage() {
	const catalogue = useCatalogue();
	const [asked, setAsked] = useSearchParams();
	const [typed, setTyped] = useState(asked.get("find") ?? "");
	const called = asked.get("add") ?? "";
	const [making, setMaking] = useState(called !== "");
	const search = useDeferredValue(typed.trim().toLowerCase());
	const larder = useQuery({
		queryKey: ["larder"],
		queryFn: async () => need(await api.GET("/api/larder")),
	});
	const things = useMemo(
		() => [
			...(catalogue.data?.ingredients ?? []).map((i) => ({
				id: i.id,
				name: i.name,
				kind: i.kind as string,
				also: i.also ?? [],
			})),
			...(catalogue.data?.cuts ?? []).map((c) => ({
				id: c.id,
				name: c.name,
				kind: c.species as string,
				also: c.also,
			})),
			...(catalogue.data?.supplies ?? []).map((s) => ({
				id: s.id,
				name: s.name,
				kind: s.kind as string,
				also: [] as string[],
			})),
		],
		[catalogue.data],
	);
	if (!catalogue.data || !larder.data) return <p className="loading">Opening…</p>;
	const known = larder.data.things;
	const fits = things.filter((t) => `${t.name} ${t.kind} ${t.also.join(" ")}`.toLowerCase().includes(search));
	const kept = fits.filter((t) => known[t.id]);
	const rest = fits.filter((t) => !known[t.id]);
	const shown = search ? rest : rest.slice(0, kept.length > 0 ? 8 : 16);
	return (
		<>
			<BenchNav />
			<div className="bench-head">
				<h1>Larder</h1>
				<Input
					variant="underlined"
					prefix={<SearchOutlined aria-hidden />}
					placeholder="Find an ingredient, a cut, fuel or a wrap"
					aria-label="Find an ingredient, a cut, fuel or a wrap"
					value={typed}
					maxLength={60}
					allowClear
					onChange={(e) => setTyped(e.target.value)}
				/>
				<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => setMaking(true)}>
					New ingredient
				</Button>
			</div>
			<p className="says">
				Enter a price and every formula and cook-out shows what it costs: meat, mixes, fuel and wraps. Enter
				what you have and the shopping list leaves it out. Write both as on the packet.
			</p>
			<OwnIngredients
				own={larder.data.own}
				making={making}
				called={called}
				onDone={() => {
					setMaking(false);
					setAsked({}, { replace: true });
				}}
			/>
			<div className="larder-head" aria-hidden>
				<span>ingredient</span>
				<span>price</span>
				<span>in stock</span>
			</div>
			<ul className="larder-lines">
				{[...kept, ...shown].map((t) => (
					<ThingLine key={t.id} id={t.id} name={t.name} kind={t.kind} thing={known[t.id]} />
				))}
			</ul>
			{fits.length === 0 && (
				<p className="says">
					Nothing here is called that. If you have it, press New ingredient and say what is in it.
				</p>
			)}
			{!search && <p className="says">{rest.length - shown.length} more: find them by name.</p>}
		</>
	);
}
