import { CloseOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input, Select } from "antd";
import { type ReactNode, useMemo } from "react";
import type { Catalogue, Row, Season } from "../api/client";
import { Ask } from "../shared/ask";
import { layerFills } from "../theme";
import "./rows-editor.css";

/** A formula that a row may be, besides the ingredients of the larder. */
export interface Nestable {
	id: string;
	name: string;
}

const choiceOf = (r: Row) => (r.formula ? `formula|${r.formula}` : `${r.ingredient}|${r.form}`);

const rowOf = (value: string, parts: string): Row => {
	const [head = "", tail = ""] = value.split("|");
	return head === "formula"
		? { ingredient: "", form: "", formula: tail, parts }
		: { ingredient: head, form: tail, formula: "", parts };
};

/** The fill of each row's layer; "salt" stands for the hatch. */
export function rowFills(rows: Row[], catalogue: Catalogue): string[] {
	return layerFills(
		rows.map((r) =>
			r.formula ? "spice" : (catalogue.ingredients.find((i) => i.id === r.ingredient)?.kind ?? "spice"),
		),
	);
}

interface Props {
	rows: Row[];
	/** Computed, in the same order; missing while something is wrong. */
	figures?: Season["rows"];
	fills: string[];
	catalogue: Catalogue;
	/** Other formulas that can be a row. */
	nestable?: Nestable[];
	/** The mistake at a place below the rows, such as "/2/parts". */
	wrong: (place: string) => string | undefined;
	/** Returns what takes the change back. */
	onChange: (rows: Row[]) => () => void;
	/** Called when a row has gone, with its name and what puts it back. */
	onRemoved: (name: string, back: () => void) => void;
	/** Rounded amounts, shown instead of spoons. */
	rounded?: string[];
	children?: ReactNode;
}

/** The ingredients of a mix: how much of what in which form, and what that weighs. */
export function RowsEditor(p: Props) {
	const options = useMemo(
		() => [
			...p.catalogue.ingredients.flatMap((i) =>
				i.forms.map((f) => ({ value: `${i.id}|${f.name}`, label: `${i.name}, ${f.name}` })),
			),
			...(p.nestable ?? []).map((f) => ({ value: `formula|${f.id}`, label: `${f.name} (a formula)` })),
		],
		[p.catalogue, p.nestable],
	);
	/** The row's option; one that no longer exists keeps its name. */
	const listed = (row: Row, name?: string) => {
		const value = choiceOf(row);
		return value === "|" || options.some((o) => o.value === value)
			? options
			: [{ value, label: name ?? "no longer in the larder" }, ...options];
	};
	const put = (i: number, row: Row) => p.onChange(p.rows.map((old, at) => (at === i ? row : old)));
	return (
		<>
			<ul className="rows" aria-label="Ingredients">
				<li className="rows-head" aria-hidden>
					<span>amount</span>
					<span>ingredient</span>
					<span>{p.rounded?.length ? "rounded" : "spoons"}</span>
					<span>weigh</span>
				</li>
				{p.rows.map((row, i) => {
					const r = p.figures?.[i];
					const bad =
						p.wrong(`/${i}/parts`) ??
						p.wrong(`/${i}/ingredient`) ??
						p.wrong(`/${i}/form`) ??
						p.wrong(`/${i}/formula`);
					const name =
						p.catalogue.ingredients.find((one) => one.id === row.ingredient)?.name ??
						p.nestable?.find((f) => f.id === row.formula)?.name ??
						"this ingredient";
					const salt = p.fills[i] === "salt";
					return (
						// biome-ignore lint/suspicious/noArrayIndexKey: rows are told apart by their place
						<li key={i} className="row">
							<span
								className={`swatch${salt ? " swatch-salt" : ""}`}
								style={salt ? undefined : { background: p.fills[i] }}
								aria-hidden
							/>
							<Input
								variant="underlined"
								className="row-parts"
								value={row.parts}
								status={p.wrong(`/${i}/parts`) ? "error" : undefined}
								aria-invalid={Boolean(bad)}
								aria-label={`Parts of ${name}`}
								maxLength={40}
								onChange={(e) => put(i, { ...row, parts: e.target.value })}
							/>
							<Select
								className="row-what"
								variant="borderless"
								aria-label={`Ingredient ${i + 1}`}
								value={choiceOf(row) === "|" ? null : choiceOf(row)}
								placeholder="What is it?"
								showSearch={{ optionFilterProp: "label" }}
								popupMatchSelectWidth={320}
								options={listed(row, r?.name)}
								onChange={(v: string) => put(i, rowOf(v, row.parts))}
							/>
							<span className="row-spoons">
								{p.rounded?.length ? p.rounded[i] : r?.spoons.text}
								{!p.rounded?.length && r?.spoons.note && <small>{r.spoons.note}</small>}
							</span>
							<span className="row-grams">
								{r && <Ask size="large" name={`${r.name}, ${r.form}`} figure={r.mass} />}
							</span>
							<Button
								type="text"
								icon={<CloseOutlined />}
								aria-label={`Leave out ${name}`}
								onClick={() => {
									p.onRemoved(`The ${name}`, p.onChange(p.rows.filter((_, at) => at !== i)));
								}}
							/>
							{bad && <p className="typed-error row-error">{bad}</p>}
						</li>
					);
				})}
			</ul>
			{p.wrong("") && <p className="typed-error">{p.wrong("")}</p>}
			<div className="rows-foot">
				<Select
					variant="underlined"
					aria-label="Add an ingredient"
					placeholder="Add an ingredient"
					value={null}
					suffixIcon={<PlusOutlined />}
					showSearch={{ optionFilterProp: "label" }}
					options={options}
					onChange={(v: string | null) => v && p.onChange([...p.rows, rowOf(v, "1")])}
				/>
				{p.children}
			</div>
		</>
	);
}
