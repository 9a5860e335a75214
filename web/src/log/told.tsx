import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useDeferredValue } from "react";
import { api, need } from "../api/client";
import type { components } from "../api/schema";
import { usePrefs } from "../prefs";
import "./told.css";

type TellRequest = components["schemas"]["TellRequest"];
export type ToldSheet = components["schemas"]["ToldSheet"];

/** How a text about a cook is understood while it is typed. */
export function useTold(asked: TellRequest) {
	const [{ units, spoons }] = usePrefs();
	const told = useDeferredValue(asked.told);
	return useQuery({
		queryKey: ["told", asked.cut, asked.on, asked.zone, told, units, spoons],
		enabled: told.trim() !== "" && asked.on !== "" && asked.cut !== "",
		placeholderData: keepPreviousData,
		queryFn: async () => ({
			of: told,
			...need(
				await api.POST("/api/calc/told", {
					params: { query: { units, spoons } },
					body: { ...asked, told },
				}),
			),
		}),
	}).data;
}

/** A text with something else in place of some of its bytes, as the program counts them. */
export function replaced(text: string, [from, to]: readonly number[], by: string): string {
	const bytes = new TextEncoder().encode(text);
	const part = (a: number, b?: number) => new TextDecoder().decode(bytes.slice(a, b));
	return part(0, from) + by + part(to ?? 0);
}

/** As a text is understood: its acts, what is asked about it, its remarks. */
export function Understood({
	told,
	onEdit,
}: {
	told: ToldSheet & { of: string };
	/** Called with the text after a question was answered. */
	onEdit: (text: string) => void;
}) {
	return (
		<section className="told" aria-label="As it is understood" aria-live="polite">
			{told.asks.length > 0 && (
				<>
					<h2>To be answered</h2>
					{told.asks.map((q) => (
						<div key={q.from.join("-")} className="told-ask">
							<p>{q.question}</p>
							{q.offers.map((o) => (
								<Button key={o.edit} size="large" onClick={() => onEdit(replaced(told.of, q.from, o.edit))}>
									{o.text}
								</Button>
							))}
						</div>
					))}
				</>
			)}
			{told.unread.length > 0 && (
				<p className="typed-error">Not understood: {told.unread.map((w) => `“${w.text}”`).join(", ")}</p>
			)}
			{told.acts.length > 0 && (
				<>
					<h2>As it is understood</h2>
					<ol>
						{told.acts.map((a, n) => (
							// biome-ignore lint/suspicious/noArrayIndexKey: the same may be done twice at one time
							<li key={n}>
								<b>{a.time}</b> {a.label}
							</li>
						))}
						{told.weights.map((w) => (
							<li key={w.of}>
								<b>weighed</b> {w.of}: {w.kg} kg
							</li>
						))}
					</ol>
				</>
			)}
			{told.notes.length > 0 && <p className="says">Kept as remarks: {told.notes.join(" · ")}</p>}
		</section>
	);
}
