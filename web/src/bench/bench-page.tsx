import { CopyOutlined, DeleteOutlined, PlusOutlined, SearchOutlined } from "@ant-design/icons";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Checkbox, Input, Pagination } from "antd";
import { useDeferredValue, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, etag, type Formula, type FormulaSummary, need } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { Choice } from "../shared/choice";
import { useUndo } from "../shared/use-undo";
import { BenchNav } from "./bench-nav";
import "./bench.css";

const perPage = 30;

/** The bench: every formula, the house's and the cook's own. */
export default function BenchPage() {
	const [page, setPage] = useState(1);
	const [typed, setTyped] = useState("");
	const [kind, setKind] = useState("");
	const [picked, setPicked] = useState<string[]>([]);
	const search = useDeferredValue(typed.trim());
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
			<div className="bench-head">
				<h1>Bench</h1>
				<Input
					variant="underlined"
					prefix={<SearchOutlined aria-hidden />}
					placeholder="Find by name, note or tag"
					aria-label="Find a formula"
					value={typed}
					maxLength={100}
					allowClear
					onChange={(e) => {
						setTyped(e.target.value);
						setPage(1);
					}}
				/>
				<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => navigate("/bench/new")}>
					New formula
				</Button>
			</div>
			<Choice
				label="Kind of formula"
				quiet
				value={kind}
				onChange={(v) => {
					setKind(v);
					setPage(1);
				}}
				options={["", ...(catalogue.data?.usual.formula_kinds ?? [])].map((k) => ({
					value: k,
					label: k || "all",
				}))}
			/>
			<div className="bench-pick" role="status">
				{picked.length < 2 ? (
					<span className="muted">Tick two or three to set them side by side.</span>
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
				{(list.data?.total ?? 0) > perPage && (
					<Pagination
						current={page}
						pageSize={perPage}
						total={list.data?.total}
						onChange={setPage}
						showSizeChanger={false}
					/>
				)}
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
	const { message } = App.useApp();
	const undo = useUndo();
	const queries = useQueryClient();
	const navigate = useNavigate();
	const path = { params: { path: { id: formula.id } } };
	const refresh = () => queries.invalidateQueries({ queryKey: ["formulas"] });
	const failed = (error: Error) => message.error(error.message);
	const restore = useMutation({
		mutationFn: async () => need(await api.POST("/api/formulas/{id}/restore", path)),
		onSuccess: refresh,
		onError: failed,
	});
	const copy = useMutation({
		mutationFn: async () => {
			const { formula: body } = need(await api.GET("/api/formulas/{id}", path));
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
		onError: failed,
	});
	const remove = useMutation({
		mutationFn: async () => {
			const { error, response } = await api.DELETE("/api/formulas/{id}", {
				params: { path: { id: formula.id }, header: { "If-Match": etag(formula.version) } },
			});
			if (error) need({ error, response });
		},
		onSuccess: () => {
			refresh();
			undo(`${formula.name} is off the bench.`, () => restore.mutate());
		},
		onError: failed,
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
			<Button
				type="text"
				icon={<CopyOutlined />}
				aria-label={`Copy ${formula.name}`}
				title="Copy"
				onClick={() => copy.mutate()}
			/>
			<Button
				type="text"
				icon={<DeleteOutlined />}
				aria-label={`Delete ${formula.name}`}
				title="Delete"
				onClick={() => remove.mutate()}
			/>
		</li>
	);
}
