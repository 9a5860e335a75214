import { startTransition, useEffect, useRef, useState } from "react";
import { ApiError, api, type Cook, type Fact, need, type PageAnswer, type Sheet } from "../api/client";
import { usePrefs } from "../prefs";
import { type Operation, patch, put } from "../record/pointer";
import { now } from "../shared/clock";

/** What is asked: a page, what has happened, and how the answer is to be. */
interface Asked {
	/** Id and serving time of the cook on record; empty for a new one. */
	onRecord: { cook: string };
	page: Cook & { facts: Fact[] };
	plain: boolean;
	units: "metric" | "us";
	spoons: "us" | "metric";
}

/** The figures of a page, and how they stand to what is typed. */
export interface Figures {
	sheet?: Sheet;
	/** What they are the figures of; other than what is typed while that is worked out. */
	of?: Cook;
	/** When they came, ms since 1970. */
	at: number;
	/** When all of them were those of what was typed. */
	good: number;
	/** For each piece, whether some are from before a mistake. */
	old: boolean[];
	/** Why there are no newer ones. */
	trouble?: string;
}

/** The sections of a piece that a mistake can take away. */
const parts = ["meat", "bath", "inject", "season", "ledger", "depth", "clock"] as const;

/**
 * Figures with those that a mistake has taken away as they were last; and for each piece
 * whether there are such.
 */
function lastGood(now: Sheet, before: Sheet | undefined, page: Cook): { sheet: Sheet; old: boolean[] } {
	let sheet = now;
	const old = now.pieces.map(() => false);
	let lost = false;
	now.pieces.forEach((p, i) => {
		const was = before?.pieces.find((one) => one.key === p.key);
		const typed = page.pieces[i];
		if (!was || !typed || p.ready) return;
		for (const part of parts) {
			const wanted = part === "bath" ? typed.bath : part === "inject" ? typed.inject : true;
			// A piece that the plan had to leave out keeps its lane.
			const left = part === "clock" && p.clock?.lane.length === 0 && (was.clock?.lane.length ?? 0) > 0;
			if ((p[part] !== undefined && !left) || was[part] === undefined || !wanted) continue;
			lost = lost || left || part === "clock";
			sheet = put(sheet, `/pieces/${i}/${part}`, was[part]);
			old[i] = true;
		}
	});
	if (before?.plan && (lost || (!now.plan && now.errors.length > 0)))
		sheet = put(sheet, "/plan", before.plan);
	return { sheet, old };
}

/**
 * The figures of what is typed, asked for a moment after each change: what has changed
 * is sent, and what that changes is answered. The last good ones stay until there are
 * newer ones.
 */
export function useSheet(asked: Asked | undefined): Figures {
	const [figures, setFigures] = useState<Figures>({ at: 0, good: 0, old: [] });
	/** What the program was asked last, its answer, and under which name it knows both. */
	const base = useRef<{ name: string; page: unknown; sheet: Sheet; how: string } | undefined>(undefined);
	const shown = useRef<Sheet | undefined>(undefined);
	/** What was asked last: a page that is just opened, or looked at otherwise, has its forecasts at once. */
	const last = useRef<unknown>(undefined);

	useEffect(() => {
		if (!asked) return;
		const { onRecord, page, plain, units, spoons } = asked;
		const stop = new AbortController();
		const query = { units, spoons, ...onRecord, plain };
		const how = JSON.stringify(query);
		const ask = async (whole: boolean, settled = false): Promise<void> => {
			const on = whole || base.current?.how !== how ? undefined : base.current;
			const { data, error, response } = await api.POST("/api/page", {
				params: { query: { ...query, settled } },
				body: on
					? { base: on.name, patch: patch(on.page, page) as (Operation & { value: unknown })[] }
					: { whole: page },
				signal: stop.signal,
			});
			// The program has been started again, or it is another one: it needs all of it.
			if (on && [409, 422].includes(response.status)) return ask(true, settled);
			const answer = need({ data, error, response }) as PageAnswer;
			let sheet = answer.whole ?? (on?.sheet as Sheet);
			for (const c of answer.changes ?? []) sheet = put(sheet, c.path, c.value);
			base.current = { name: answer.page, page, sheet, how };
			const { sheet: good, old } = lastGood(sheet, shown.current, page);
			shown.current = good;
			const at = now() ?? Date.now();
			const next = { sheet: good, of: page, at, old };
			// Letters that are typed meanwhile come first.
			startTransition(() => setFigures((was) => ({ ...next, good: old.some(Boolean) ? was.good : at })));
			// What was worked out while typing is followed by the forecasts, which take longer.
			if (answer.rough && !settled) return ask(false, true);
			// What is on the fire is read on.
			if (answer.again > 0) {
				await new Promise((on) => setTimeout(on, 1000 * answer.again));
				if (!stop.signal.aborted) return ask(false, true);
			}
		};
		const keepAsking = async () => {
			// Only what is typed has to be quick: no figure of a page changes by itself.
			const still = !last.current || last.current === page;
			last.current = page;
			while (!stop.signal.aborted) {
				try {
					return await ask(false, still);
				} catch (e) {
					if (stop.signal.aborted) return;
					const trouble = (e as Error).message;
					setFigures((old) => ({ ...old, trouble }));
					// What is refused would be refused again; a program that is away is asked until it is back.
					if (e instanceof ApiError && e.status > 0 && e.status < 500) return;
					await new Promise((on) => setTimeout(on, 1000));
				}
			}
		};
		keepAsking();
		return () => stop.abort();
	}, [asked]);
	return figures;
}

/** The value as it is when it has not changed for a moment. */
export function useSettled<T>(value: T, ms: number): T {
	const [late, setLate] = useState(value);
	useEffect(() => {
		const timer = setTimeout(() => setLate(value), ms);
		return () => clearTimeout(timer);
	}, [value, ms]);
	return late;
}

/** Asks where a figure of the page comes from. */
export function useWhere(asked: Asked | undefined) {
	const [prefs] = usePrefs();
	return async (pointer: string) => {
		if (!asked) throw new Error("There is nothing to ask about yet.");
		const query = { units: prefs.units, spoons: prefs.spoons, ...asked.onRecord, at: pointer };
		return need(await api.POST("/api/page/where", { params: { query }, body: asked.page }));
	};
}
