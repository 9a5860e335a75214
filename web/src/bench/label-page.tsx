import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { ApiError, api, type Figure, need } from "../api/client";
import { Ask } from "../shared/ask";
import { useMessage } from "../shared/messages";
import { TypedField } from "../shared/typed-field";
import { BenchNav } from "./bench-nav";
import "./bench.css";

const key = "verjuice.label";
const blank = { name: "", sodium: "", serving: "", weighs: "", sugar: "", powder: "", liquid: "" };

/** A shop-bought rub, sauce or injection: what its nutrition label says of its salt. */
export default function LabelPage() {
	const [label, setLabel] = useState<typeof blank>(() => ({
		...blank,
		...JSON.parse(localStorage.getItem(key) ?? "{}"),
	}));
	useEffect(() => localStorage.setItem(key, JSON.stringify(label)), [label]);
	const queries = useQueryClient();
	const message = useMessage();
	const keep = useMutation({
		mutationFn: async () => {
			if (!reading.data) throw new Error("There is nothing to keep yet.");
			const { salt, sugar } = reading.data;
			return need(
				await api.POST("/api/ingredients", {
					body: { name: label.name.trim(), salt: `${salt.text} %`, sugar: sugar ? `${sugar.text} %` : "" },
				}),
			);
		},
		onSuccess: () => {
			queries.invalidateQueries({ queryKey: ["catalogue"] });
			queries.invalidateQueries({ queryKey: ["larder"] });
			message.success(
				<>
					It is in <Link to="/larder">your larder</Link>, and any formula can use it.
				</>,
			);
		},
		onError: (e) => message.error(e.message),
	});
	const started = label.sodium !== "" && label.serving !== "";
	const reading = useQuery({
		queryKey: ["label", label],
		enabled: started,
		retry: false,
		placeholderData: keepPreviousData,
		queryFn: async () => need(await api.POST("/api/calc/label", { body: label })),
	});
	const problem = reading.error instanceof ApiError ? reading.error.problem : undefined;
	// A serving by volume needs the weight of a spoon.
	const byVolume = label.weighs !== "" || problem?.errors?.some((e) => e.pointer === "/weighs");
	const field = (name: keyof typeof blank, title: string, usual: string) => (
		<TypedField
			label={title}
			value={label[name]}
			usual={usual}
			error={started ? problem?.errors?.find((e) => e.pointer === `/${name}`)?.message : undefined}
			onChange={(v) => setLabel((old) => ({ ...old, [name]: v }))}
		/>
	);
	const r = reading.isError || !started ? undefined : reading.data;
	return (
		<>
			<BenchNav />
			<div className="formula-head">
				<h1>Read a label</h1>
			</div>
			<div className="label-sheet">
				<div>
					<p className="says">
						A shop-bought rub keeps its recipe to itself, but its label gives away the salt: sodium in a
						serving, and how big a serving is.
					</p>
					<div className="label-fields">
						{field("name", "What you call it", "the red jar")}
						{field("sodium", "Sodium of a serving, mg", "260")}
						{field("serving", "A serving is", "0.9 g, 1/4 tsp or 30 mL")}
						{byVolume && field("weighs", "A teaspoon of it weighs", "2.5 g for a rub")}
						{field("sugar", "Sugars of a serving, g", "0")}
						{field("powder", "Powder in the mix", "1/3 cup")}
						{field("liquid", "Liquid in the mix", "1 cup")}
					</div>
				</div>
				{r ? (
					<div aria-live="polite">
						<div className="amounts label-amounts">
							<Share name="Salt by weight" figure={r.salt} />
							<Share name="Sugar by weight" figure={r.sugar} />
							<Share name="Salt once mixed" figure={r.mixed} />
						</div>
						<div className="label-band" role="img" aria-label={`Between ${r.salt.range || r.salt.text} salt`}>
							<span
								className="label-range"
								style={{ left: `${r.salt.low}%`, width: `${Math.max(0.6, r.salt.high - r.salt.low)}%` }}
							/>
							<span className="label-mark" style={{ left: `${r.salt.value}%` }} />
							<i>0 %</i>
							<i>50 %</i>
							<i>pure salt</i>
						</div>
						<p className="says">{r.message}</p>
						<Button
							className="label-keep"
							size="large"
							loading={keep.isPending}
							disabled={!label.name.trim()}
							onClick={() => keep.mutate()}
						>
							Keep it as an ingredient
						</Button>
						{!label.name.trim() && <p className="muted">Give it a name to keep it.</p>}
					</div>
				) : (
					!started && (
						<div className="label-empty">
							<p className="muted">Type sodium and serving as the label prints them.</p>
							<Button
								size="large"
								onClick={() => setLabel((old) => ({ ...old, sodium: "260", serving: "0.9 g" }))}
							>
								Try it: 260 mg in 0.9 g
							</Button>
						</div>
					)
				)}
			</div>
		</>
	);
}

/** A share that the label gives away, with its likely range. */
function Share({ name, figure }: { name: string; figure?: Figure }) {
	if (!figure) return null;
	return (
		<div>
			<Ask size="huge" name={name} figure={figure} />
			<p>
				{name} <b>{figure.range}</b>
			</p>
		</div>
	);
}
