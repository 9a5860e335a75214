import { UploadOutlined, WarningFilled } from "@ant-design/icons";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { ApiError, api, type Formula, type Found, need, type Row } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { BenchNav } from "../bench/bench-nav";
import { whole } from "../bench/formula";
import { RowsEditor, rowFills } from "../bench/rows-editor";
import { useOwnFormulas } from "../bench/use-formulas";
import { ChooseFile } from "../shared/choose-file";
import { useMessage } from "../shared/messages";
import { TypedField } from "../shared/typed-field";
import { useUndo } from "../shared/use-undo";
import "./exchange.css";

interface Reading {
	formula: Formula;
	asks: Found["asks"];
}

interface Here {
	text: string;
	found?: Reading[];
}

const key = "verjuice.read";

function kept(): Here {
	try {
		return { text: "", ...JSON.parse(localStorage.getItem(key) ?? "{}") };
	} catch {
		return { text: "" };
	}
}

/** Formulas from a file: what is clear stands there, what is not is asked. */
export default function ReadPage() {
	const undo = useUndo();
	const [{ text, found }, setHere] = useState<Here>(kept);
	const setText = (text: string) => setHere((old) => ({ ...old, text }));
	const setFound = (next: Reading[] | undefined | ((old?: Reading[]) => Reading[] | undefined)) =>
		setHere((old) => ({ ...old, found: typeof next === "function" ? next(old.found) : next }));
	// What is read and answered stays when the cook goes to the larder for it.
	useEffect(() => localStorage.setItem(key, JSON.stringify({ text, found })), [text, found]);
	const catalogue = useCatalogue();
	const mine = useOwnFormulas();
	const queries = useQueryClient();
	const navigate = useNavigate();
	const message = useMessage();
	const read = useMutation({
		mutationFn: async (data: Blob | string) =>
			need(
				await api.POST("/api/exchange/read", {
					// biome-ignore lint/suspicious/noExplicitAny: bytes as they are
					body: data as any,
					bodySerializer: (b) => b as never,
					headers: { "Content-Type": "application/octet-stream" },
				}),
			),
		onSuccess: (got) => {
			keep.reset();
			setFound((got ?? []).map((f) => ({ formula: whole(f.formula), asks: f.asks })));
		},
	});
	const keep = useMutation({
		mutationFn: async (all: Reading[]) =>
			need(await api.POST("/api/exchange/keep", { body: all.map((f) => f.formula) })),
		onSuccess: (kept) => {
			const made = kept ?? [];
			queries.invalidateQueries({ queryKey: ["formulas"] });
			message.success(
				made.length === 1 ? "It is on your bench." : `${made.length} formulas are on your bench.`,
			);
			navigate(made.length === 1 ? `/bench/${made[0]?.id}` : "/bench");
		},
	});
	const problem = read.error instanceof ApiError ? read.error : undefined;
	const refused = keep.error instanceof ApiError ? keep.error : undefined;
	const put = (i: number, next: Partial<Formula>) =>
		setFound((old) => old?.map((f, at) => (at === i ? { ...f, formula: { ...f.formula, ...next } } : f)));
	const open = (found ?? []).reduce((n, f) => n + unanswered(f).length, 0);
	return (
		<>
			<BenchNav />
			<div className="formula-head">
				<h1>Read a file</h1>
				<p />
				{found && (
					<Button
						size="large"
						onClick={() => {
							setFound(undefined);
							read.reset();
						}}
					>
						Another file
					</Button>
				)}
				{found && (
					<Button type="primary" size="large" loading={keep.isPending} onClick={() => keep.mutate(found)}>
						{found.length === 1 ? "Put it on the bench" : `Put all ${found.length} on the bench`}
					</Button>
				)}
			</div>
			{!found && (
				<>
					<p className="says">
						A formula from elsewhere: our own JSON, a recipe as schema.org JSON-LD, or a table (CSV) with the
						columns amount and ingredient. What is not clear is asked; nothing is dropped.
					</p>
					<div className="read-in">
						<ChooseFile
							label="File to read"
							accept=".json,.jsonld,.csv,.txt,application/json,application/ld+json,text/csv"
							onChoose={read.mutate}
						>
							<Button type="primary" size="large" icon={<UploadOutlined />} loading={read.isPending}>
								Choose a file
							</Button>
						</ChooseFile>
						<label htmlFor="read-text">or paste it here</label>
						<Input.TextArea
							id="read-text"
							rows={9}
							value={text}
							maxLength={1_000_000}
							placeholder={"amount,ingredient,form\n2,kosher salt,dense flake\n3,black pepper,coarse"}
							onChange={(e) => setText(e.target.value)}
						/>
						<Button size="large" disabled={!text.trim()} onClick={() => read.mutate(text)}>
							Read what is pasted
						</Button>
					</div>
				</>
			)}
			{problem && (
				<p className="typed-error" role="alert">
					<WarningFilled aria-hidden /> {problem.message}{" "}
					{problem.problem?.errors?.map((e) => [e.pointer, e.message].filter(Boolean).join(": ")).join(" ")}
				</p>
			)}
			{found && open > 0 && (
				<p className="read-open" role="status">
					<WarningFilled aria-hidden /> {open === 1 ? "One line is" : `${open} lines are`} not clear. Answer
					below, or leave a line out with its cross.
				</p>
			)}
			{refused && (
				<p className="typed-error" role="alert">
					<WarningFilled aria-hidden /> {refused.message}
				</p>
			)}
			{catalogue.data &&
				found?.map((f, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: formulas of a file are told apart by their place
					<section key={i} className="read-one">
						<TypedField
							label="Name"
							size="large"
							value={f.formula.name}
							error={refused?.problem?.errors?.find((e) => e.pointer === `/${i}/name`)?.message}
							onChange={(name) => put(i, { name })}
						/>
						<p className="muted">
							{f.formula.kind}, a bare number counts {f.formula.basis === "volume" ? "teaspoons" : "grams"}
						</p>
						<Asked reading={f} onAnswer={(row, r) => put(i, { rows: swap(f.formula.rows, row, r) })} />
						<RowsEditor
							rows={f.formula.rows}
							fills={rowFills(f.formula.rows, catalogue.data)}
							catalogue={catalogue.data}
							nestable={[
								...found.map((o, n) => ({ id: `file-${n}`, name: o.formula.name })).filter((_, n) => n !== i),
								...mine.map((o) => ({ id: String(o.id), name: o.name })),
								...catalogue.data.formulas.map((o) => ({ id: o.id ?? "", name: o.name })),
							]}
							wrong={(place) =>
								refused?.problem?.errors?.find((e) => e.pointer === `/${i}/rows${place}`)?.message
							}
							onChange={(rows) => {
								setFound((old) =>
									old?.map((o, at) =>
										at === i ? { formula: { ...o.formula, rows }, asks: shift(o, rows) } : o,
									),
								);
								return () => setFound((old) => old?.map((o, at) => (at === i ? f : o)));
							}}
							onRemoved={(name, back) => undo(`${name} is left out.`, back)}
						/>
					</section>
				))}
		</>
	);
}

const swap = (rows: Row[], at: number, next: Partial<Row>): Row[] =>
	rows.map((r, i) => (i === at ? { ...r, ...next } : r));

/** The questions that still have no answer. */
const unanswered = (f: Reading) =>
	f.asks.filter((a) => {
		const r = f.formula.rows[a.row];
		return r && ((!r.ingredient && !r.formula) || r.parts.trim() === "");
	});

/** Keeps the questions at their rows when one row is left out. */
function shift(f: Reading, rows: Row[]): Found["asks"] {
	if (rows.length >= f.formula.rows.length) return f.asks;
	const gone = f.formula.rows.findIndex((r, i) => r !== rows[i]);
	return f.asks.filter((a) => a.row !== gone).map((a) => (a.row > gone ? { ...a, row: a.row - 1 } : a));
}

/** What was written and is not clear, with what it may be. */
function Asked({
	reading,
	onAnswer,
}: {
	reading: Reading;
	onAnswer: (row: number, r: Partial<Row>) => void;
}) {
	return (
		<ul className="read-asks">
			{unanswered(reading).map((a) => (
				<li key={a.row}>
					<p>
						<b>“{a.written}”</b> {a.why}{" "}
						{a.maybe.length === 0 && (
							<>
								Choose it in the list below, or put it in <Link to="/larder">your larder</Link> first.
							</>
						)}
					</p>
					{!reading.formula.rows[a.row]?.ingredient &&
						a.maybe.map((m) => (
							<Button
								key={m.name}
								onClick={() => onAnswer(a.row, { ingredient: m.ingredient, form: m.form })}
							>
								{m.name}
							</Button>
						))}
				</li>
			))}
		</ul>
	);
}
