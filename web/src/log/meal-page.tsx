import { CalendarOutlined, PlusOutlined, WarningFilled } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Select } from "antd";
import { useCallback, useEffect, useMemo } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { api, need } from "../api/client";
import { CautionLine } from "../cook/cautions";
import { usePrefs } from "../prefs";
import { ChoiceField, Field } from "../record/field";
import { useField, type Written, WrittenContext } from "../record/use-field";
import { now } from "../shared/clock";
import { Nothing } from "../shared/nothing";
import { TimeField } from "../shared/time-field";
import { useUndo } from "../shared/use-undo";
import { uuid } from "../shared/uuid";
import { MealItemPart } from "./meal-item";
import type { Meal, MealItem, MealSheet } from "./meal-kind";
import { useMeal } from "./use-meal";
import "./meal.css";

/** A later meal: what is warmed again, when, and how many it feeds. */
export default function MealPage() {
	const { id = "new" } = useParams();
	const [query] = useSearchParams();
	const navigate = useNavigate();
	const onMade = useCallback((made: string) => navigate(`/meals/${made}`, { replace: true }), [navigate]);
	const hand = useMeal(id, query.get("cook") ?? "", query.get("piece") ?? "", onMade);
	const { typing, meal, sheet, wrong } = hand;
	const written = useMemo<Written | null>(
		() => (typing ? { typing: typing as Written["typing"], wrong, offers: () => undefined } : null),
		[typing, wrong],
	);
	useEffect(() => {
		document.title = [meal?.name, "Later meal", "Verjuice"].filter(Boolean).join(" · ");
	}, [meal?.name]);
	if (hand.failure) {
		return (
			<Nothing title="This meal cannot be opened">
				<p>{hand.failure.message}</p>
				<Link to="/meals">All later meals</Link>
			</Nothing>
		);
	}
	if (!meal || !written) return <p className="loading">Opening…</p>;
	return (
		<WrittenContext.Provider value={written}>
			<article className="meal">
				<p className="meal-back">
					<Link to="/meals">Later meals</Link>{" "}
					<small className="muted" role="status">
						{standings[hand.standing] ?? (hand.dirty ? "not saved yet" : "saved")}
					</small>
					{hand.standing === "conflict" && <Button onClick={hand.reload}>Show what is saved</Button>}
				</p>
				<div className="meal-head">
					<Field at="/name" label="Meal" size="large" />
					<ServeAt />
				</div>
				{hand.trouble && (
					<p className="typed-error" role="alert">
						<WarningFilled aria-hidden /> {hand.trouble.message}
					</p>
				)}
				{sheet && <Sums sheet={sheet} dimmed={sheet.errors.length > 0} />}
				<div className="meal-parts">
					<div>
						<h2>What is warmed</h2>
						<Items meal={meal} sheet={sheet} change={typing?.edit} />
						<div className="fields">
							<ChoiceField at="/heater" label="Warmed in" usual="oven" options={heaters} />
							<Field at="/set" label="Set to" usual="150 °C / 300 °F" />
							<Field at="/fits" label="Trays that fit at once" usual="2" inputMode="numeric" />
						</div>
					</div>
					<div>{sheet && <When sheet={sheet} id={hand.id} />}</div>
				</div>
			</article>
		</WrittenContext.Provider>
	);
}

const heaters = [
	{ value: "oven", label: "oven" },
	{ value: "pit", label: "pit" },
];

const standings: Record<string, string> = {
	saving: "saving",
	conflict: "changed on another screen",
	mistakes: "fix the fields marked in red to save",
	unreachable: "cannot be saved just now; kept on this device",
};

function ServeAt() {
	const { text, set, wrong } = useField("/serve_at");
	return (
		<TimeField label="On the table" size="large" at="/serve_at" value={text} error={wrong} onChange={set} />
	);
}

/** The first thing to do, in one line. */
function Sums({ sheet, dimmed }: { sheet: MealSheet; dimmed: boolean }) {
	const { set } = useField("/serve_at");
	return (
		<div className={dimmed ? "meal-sums meal-dimmed" : "meal-sums"} role="status">
			{dimmed && (
				<p className="muted">
					{sheet.errors.every((e) => e.id === "reheat.weight-needed")
						? "Waiting for the weight or the portions"
						: "Fix the fields marked in red to see the numbers."}
				</p>
			)}
			{sheet.lead && <p className="meal-lead">{sheet.lead}</p>}
			{sheet.trays && <p>{sheet.trays}</p>}
			{sheet.sooner && (
				<p className="typed-error">
					<WarningFilled aria-hidden /> {sheet.sooner}{" "}
					<Button onClick={() => set(sheet.sooner_at)}>Serve at {sheet.sooner_at.slice(11)}</Button>
				</p>
			)}
		</div>
	);
}

interface ItemsProps {
	meal: Meal;
	sheet?: MealSheet;
	/** Changes the meal, and returns what takes that back. */
	change?: (how: (m: Meal) => void) => () => void;
}

/** Everything that is warmed, and what may be added. */
function Items({ meal, sheet, change }: ItemsProps) {
	const [{ units, spoons }] = usePrefs();
	const undo = useUndo();
	const choices = useQuery({
		queryKey: ["meal-choices", units, spoons],
		queryFn: async () => need(await api.GET("/api/meals/choices", { params: { query: { units, spoons } } })),
	});
	const add = (item: Partial<MealItem>) =>
		change?.((m) => void m.items.push({ key: uuid().slice(0, 8), ...blank, ...item }));
	if (!choices.data) return <p className="loading">Opening…</p>;
	const { kept, forms, dishes } = choices.data;
	return (
		<>
			{meal.items.map((item, n) => (
				<MealItemPart
					key={item.key}
					n={n}
					item={item}
					out={sheet?.items[n]}
					forms={forms}
					dishes={dishes}
					onRemove={() => {
						const back = change?.((m) => void m.items.splice(n, 1));
						if (back) undo(`${sheet?.items[n]?.title || "It"} is off the meal.`, back);
					}}
				/>
			))}
			<p className="meal-add">
				{kept.length > 0 && (
					<Select
						aria-label="Add something from a cook-out"
						placeholder="Add something from a cook-out"
						value={null}
						options={kept.map((k, i) => ({ value: i, label: `${k.title} · ${k.note}` }))}
						onChange={(i: number | null) => {
							const k = i === null ? undefined : kept[i];
							if (k) add({ cook: k.cook, piece: k.piece, title: k.title, form: k.form });
						}}
					/>
				)}
				<Button icon={<PlusOutlined />} onClick={() => add({})}>
					Add something else
				</Button>
			</p>
		</>
	);
}

const blank = {
	title: "",
	form: "",
	weight: "",
	deep: "",
	kept: "",
	cooked: "",
	dish: "",
	each: "",
	for: "",
};

/** What to do, by the clock, and what to take care of. */
function When({ sheet, id }: { sheet: MealSheet; id: string }) {
	const read = useField("/read");
	return (
		<>
			<h2>{sheet.serve || "When"}</h2>
			{sheet.tasks.length === 0 && (
				<p className="says">Say when it is on the table and what is warmed: the times are counted back.</p>
			)}
			<ol className="meal-tasks">
				{sheet.tasks.map((t) => (
					<li key={`${t.at} ${t.label}`}>
						<b>{t.time}</b>
						<span>
							{t.label}
							{t.note && <small>{t.note}</small>}
						</span>
					</li>
				))}
			</ol>
			{id && sheet.tasks.length > 0 && (
				<p className="meal-acts">
					<a href={`/api/meals/${id}/calendar.ics`} download>
						<CalendarOutlined aria-hidden /> To the calendar
					</a>
					<Button onClick={() => window.print()}>Print</Button>
				</p>
			)}
			<section aria-label="Cautions" className="cautions" hidden={sheet.cautions.length === 0}>
				<ul>
					{sheet.cautions.map((c) => (
						<CautionLine
							key={c.acknowledge}
							caution={c}
							title={c.title}
							onRead={() =>
								read.set({ ...(read.value as object), [c.acknowledge]: new Date(now() ?? 0).toISOString() })
							}
						/>
					))}
				</ul>
				{sheet.cautions.length > 0 && <p className="cautions-close">{sheet.disclaimer}</p>}
			</section>
		</>
	);
}
