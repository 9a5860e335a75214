import { PlusOutlined } from "@ant-design/icons";
import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { Button, Checkbox } from "antd";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type Formula, type FormulaSummary, need } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { Choice } from "../shared/choice";
import { LineActions, ListHead, ListPages, useSearch } from "../shared/record-list";
import { useRemoval } from "../shared/use-removal";
import { BenchNav } from "./bench-nav";
import "./bench.css";

/** The bench: every formula, the house's and the cook's own. */
export default function BenchPage() {
	const found = useSearch(30);
	const { page, perPage, search } = found;
	const [kind, setKind] = useState("");
	const [picked, setPicked] = useState<string[]>([]);
	const navigate = useNavigate();
	const list = useQuery({
		queryKey: ["formulas", page, search, kind],
		queryFn: async () =>
			need(await api.GET("/api/formulas", { params: { query: { page, per: perPage, search, kind } } })),
		placeholderData: keepPreviousData,
	});
	const catalogue = useCatalogue();
	const house = (catalogue.data?.formulas ?? []).filter(
		(f) =>
			(!kind || kind === (f.kind ?? "rub")) &&
			`${f.name} ${f.note}`.toLowerCase().includes(search.toLowerCase()),
	);
	const pick = (id: string) =>
		setPicked((old) => (old.includes(id) ? old.filter((o) => o !== id) : [...old, id].slice(-3)));
	return (
		<>
			<BenchNav />
			<ListHead title="Bench" search={found} find="Find by name, note or tag" label="Find a formula">
				<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => navigate("/bench/new")}>
					New formula
				</Button>
			</ListHead>
			<Choice
				label="Kind of formula"
				quiet
				value={kind}
				onChange={(v) => {
					setKind(v);
					found.setPage(1);
				}}
				options={["", ...(catalogue.data?.usual.formula_kinds ?? [])].map((k) => ({
					value: k,
					label: k || "all",
				}))}
			/>
			<div className="bench-pick" role="status">
				{picked.length < 2 ? (
					<span className="muted">Tick two or three to compare them.</span>
				) : (
					<Button type="primary" onClick={() => navigate(`/compare?of=${picked.join(",")}`)}>
						Compare these {picked.length}
					</Button>
				)}
			</div>
			<section aria-label="Your own formulas">
				<h2>Your own</h2>
				{list.data?.total === 0 && (
					<p className="muted bench-none">
						{search || kind
							? "None of your formulas matches."
							: "Nothing yet. Open a ready-made formula below and make it yours, or start a new one."}
					</p>
				)}
				<ul className="formula-lines" hidden={list.data?.total === 0}>
					{list.data?.items.map((f) => (
						<OwnLine
							key={f.id}
							formula={f}
							picked={picked.includes(String(f.id))}
							pick={() => pick(String(f.id))}
						/>
					))}
				</ul>
				<ListPages search={found} total={list.data?.total} />
			</section>
			{house.length > 0 && (
				<section aria-label="Ready-made formulas">
					<h2>Ready-made</h2>
					<ul className="formula-lines">
						{house.map((f) => (
							<li key={f.id} className="formula-line">
								<Checkbox
									aria-label={`Compare ${f.name}`}
									checked={picked.includes(f.id ?? "")}
									onChange={() => pick(f.id ?? "")}
								/>
								<Link to={`/bench/${f.id}`}>
									<b>{f.name}</b>
									<span>{f.note}</span>
								</Link>
								<span className="formula-kind">{f.kind ?? "rub"}</span>
							</li>
						))}
					</ul>
				</section>
			)}
		</>
	);
}

/** One of the cook's own formulas: open it, tick it, copy it, take it off. */
function OwnLine({ formula, picked, pick }: { formula: FormulaSummary; picked: boolean; pick: () => void }) {
	const navigate = useNavigate();
	const path = { params: { path: { id: formula.id } } };
	const { refresh, onError, remove } = useRemoval("formulas", ["formulas"]);
	const copy = useMutation({
		mutationFn: async () => {
			const { doc: body } = need(await api.GET("/api/formulas/{id}", path));
			return need(
				await api.POST("/api/formulas", {
					body: { ...(body as Formula), name: `${body.name}, again`.slice(0, 120) },
				}),
			);
		},
		onSuccess: (made) => {
			refresh();
			navigate(`/bench/${made.id}`);
		},
		onError,
	});
	return (
		<li className="formula-line">
			<Checkbox aria-label={`Compare ${formula.name}`} checked={picked} onChange={pick} />
			<Link to={`/bench/${formula.id}`}>
				<b>{formula.name}</b>
				<span>{[formula.note, formula.tags.join(", ")].filter(Boolean).join(" · ")}</span>
			</Link>
			<span className="formula-kind">{formula.kind}</span>
			<span className="formula-salt">{formula.salt}</span>
			<LineActions
				name={formula.name}
				onCopy={() => copy.mutate()}
				onDelete={() => remove({ ...formula, said: `${formula.name} is off the bench.` })}
			/>
		</li>
	);
}
