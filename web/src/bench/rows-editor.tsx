import { CloseOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input } from "antd";
import { memo, type ReactNode, useCallback, useId, useLayoutEffect, useMemo, useRef } from "react";
import type { Catalogue, Row, Season } from "../api/client";
import { useField } from "../record/use-field";
import { Ask } from "../shared/ask";
import { type Findable, FindSelect, noIngredient } from "../shared/find-select";
import { pace, useHushed, usePaused } from "../shared/pace";
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

/** What a row is called of which nothing is known. */
const unnamed = "this ingredient";

/** The fill of each row's layer; "salt" stands for the hatch. */
export function rowFills(rows: Row[], catalogue: Catalogue): string[] {
	return layerFills(
		rows.map((r) =>
			r.formula ? "spice" : (catalogue.ingredients.find((i) => i.id === r.ingredient)?.kind ?? "spice"),
		),
	);
}

interface Props {
	/** Where the rows are in the record, when they are of one: then a letter is in its field at once. */
	at?: string;
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
	/** Called when an amount is typed that is in the record. */
	onTyped?: () => void;
	/** Called when a row has gone, with its name and what puts it back. */
	onRemoved: (name: string, back: () => void) => void;
	/** Rounded amounts, shown instead of spoons. */
	rounded?: string[];
	children?: ReactNode;
}

/** The ingredients of a mix: how much of what in which form, and what that weighs. */
export function RowsEditor(p: Props) {
	const options = useMemo<Findable[]>(
		() => [
			...p.catalogue.ingredients.flatMap((i) =>
				i.forms.map((f) => ({
					value: `${i.id}|${f.name}`,
					label: `${i.name}, ${f.name}`,
					names: [i.name, ...(i.also ?? [])],
				})),
			),
			...(p.nestable ?? []).map((f) => ({ value: `formula|${f.id}`, label: `${f.name} (a formula)` })),
		],
		[p.catalogue, p.nestable],
	);
	const now = useRef(p);
	useLayoutEffect(() => {
		now.current = p;
	});
	const put = useCallback((i: number, row: Row) => {
		const { rows, onChange } = now.current;
		onChange(rows.map((old, n) => (n === i ? row : old)));
	}, []);
	const typed = useCallback(() => now.current.onTyped?.(), []);
	const leaveOut = useCallback((i: number, name: string) => {
		const { rows, onChange, onRemoved } = now.current;
		onRemoved(`The ${name}`, onChange(rows.filter((_, n) => n !== i)));
	}, []);
	const rounded = (p.rounded?.length ?? 0) > 0;
	const wrong = usePaused(p.wrong(""));
	const byWeight = usePaused(p.figures?.length === p.rows.length && p.figures.every((f) => f.as_parts));
	return (
		<>
			<ul className="rows" aria-label="Ingredients">
				<li className="rows-head" aria-hidden>
					<span>amount</span>
					<span>ingredient</span>
					<span>{rounded ? "rounded" : "spoons"}</span>
					<span>weigh</span>
				</li>
				{p.rows.map((row, i) => (
					<OneRow
						// biome-ignore lint/suspicious/noArrayIndexKey: rows are told apart by their place
						key={i}
						at={p.at && `${p.at}/${i}`}
						index={i}
						row={row}
						figure={p.figures?.[i]}
						rounded={rounded ? p.rounded?.[i] : undefined}
						fill={p.fills[i] ?? ""}
						name={
							p.catalogue.ingredients.find((one) => one.id === row.ingredient)?.name ??
							p.nestable?.find((f) => f.id === row.formula)?.name ??
							unnamed
						}
						options={options}
						asks={p.catalogue.asks}
						wrongParts={p.wrong(`/${i}/parts`)}
						wrong={p.wrong(`/${i}/ingredient`) ?? p.wrong(`/${i}/form`) ?? p.wrong(`/${i}/formula`)}
						put={put}
						leaveOut={leaveOut}
						typed={typed}
					/>
				))}
			</ul>
			{wrong && <p className="typed-error">{wrong}</p>}
			{byWeight && (
				<p className="says">
					% counts by weight here.{" "}
					<Button
						onClick={() =>
							p.onChange(p.rows.map((r, i) => ({ ...r, parts: p.figures?.[i]?.as_parts ?? r.parts })))
						}
					>
						Count by volume instead, {p.figures?.map((f) => f.as_parts).join(" : ")}
					</Button>
				</p>
			)}
			<div className="rows-foot">
				<FindSelect
					variant="underlined"
					aria-label="Add an ingredient"
					unfound={noIngredient}
					asks={p.catalogue.asks}
					placeholder="Add an ingredient"
					popupMatchSelectWidth={320}
					value={null}
					suffixIcon={<PlusOutlined />}
					options={options}
					onChange={(v: string | null) => v && p.onChange([...p.rows, rowOf(v, "1")])}
				/>
				{p.children}
			</div>
		</>
	);
}

interface RowProps {
	at?: string;
	index: number;
	row: Row;
	figure?: Season["rows"][number];
	rounded?: string;
	fill: string;
	name: string;
	asks: Catalogue["asks"];
	options: Findable[];
	wrongParts?: string;
	wrong?: string;
	put: (i: number, row: Row) => void;
	leaveOut: (i: number, name: string) => void;
	typed: () => void;
}

/** One row. It is drawn again only when something of it has changed. */
const OneRow = memo(function OneRow(p: RowProps) {
	const { row, figure, name, index, put } = p;
	const id = useId();
	const { shown: bad, hushed } = useHushed(id, p.wrongParts ?? p.wrong);
	const salt = p.fill === "salt";
	const chosen = choiceOf(row);
	// One that no longer exists keeps its name.
	const known = chosen === "|" || p.options.some((o) => o.value === chosen);
	const options = useMemo(
		() =>
			known
				? p.options
				: [
						{ value: chosen, label: figure?.name ?? (name === unnamed ? "no longer in the larder" : name) },
						...p.options,
					],
		[known, p.options, chosen, figure?.name, name],
	);
	return (
		<li className="row">
			<span
				className={`swatch${salt ? " swatch-salt" : ""}`}
				style={salt ? undefined : { background: p.fill }}
				aria-hidden
			/>
			{p.at ? (
				<TypedParts id={id} at={`${p.at}/parts`} name={name} bad={Boolean(bad) && !hushed} typed={p.typed} />
			) : (
				<Parts
					id={id}
					name={name}
					bad={Boolean(bad) && !hushed}
					value={row.parts}
					onType={(parts) => put(index, { ...row, parts })}
				/>
			)}
			<FindSelect
				className="row-what"
				variant="borderless"
				aria-label={`Ingredient ${index + 1}`}
				unfound={noIngredient}
				asks={p.asks}
				value={chosen === "|" ? null : chosen}
				placeholder="What is it?"
				popupMatchSelectWidth={320}
				options={options}
				onChange={(v: string) => put(index, rowOf(v, row.parts))}
			/>
			<span className="row-spoons" hidden={Boolean(bad)}>
				{p.rounded ?? figure?.spoons.text}
				{p.rounded === undefined && figure?.spoons.note && <small>{figure.spoons.note}</small>}
			</span>
			<span className="row-grams" hidden={Boolean(bad)}>
				{figure && <Ask size="large" name={`${figure.name}, ${figure.form}`} figure={figure.mass} />}
			</span>
			{bad && (
				<p className={`typed-error row-error${hushed ? " row-hushed" : ""}`} role="alert">
					{bad} {p.at && p.wrongParts && <RowOffers at={`${p.at}/parts`} />}
				</p>
			)}
			<Button
				type="text"
				icon={<CloseOutlined />}
				aria-label={`Leave out ${name}`}
				onClick={() => p.leaveOut(index, name)}
			/>
		</li>
	);
});

interface PartsProps {
	id: string;
	name: string;
	bad: boolean;
	value: string;
	onType: (parts: string) => void;
	at?: string;
}

function Parts({ id, name, bad, value, onType, at }: PartsProps) {
	return (
		<Input
			id={id}
			variant="underlined"
			className="row-parts"
			value={value}
			status={bad ? "error" : undefined}
			aria-invalid={bad}
			aria-label={`Parts of ${name}`}
			data-at={at}
			maxLength={40}
			onChange={(e) => {
				pace.type(id);
				onType(e.target.value);
			}}
			onBlur={pace.rest}
		/>
	);
}

/** The amount of a row, in the record. */
function TypedParts({
	at,
	typed,
	...rest
}: Omit<PartsProps, "value" | "onType"> & { at: string; typed: () => void }) {
	const { text, set } = useField(at);
	const type = (parts: string) => {
		set(parts);
		typed();
	};
	return <Parts {...rest} at={at} value={text} onType={type} />;
}

/** What may have been meant by an amount, each a button. */
function RowOffers({ at }: { at: string }) {
	const { offers, take } = useField(at);
	return offers?.map((o) => (
		<Button key={o.text} size="small" className="row-offer" onClick={() => take(o)}>
			{o.text}
		</Button>
	));
}
