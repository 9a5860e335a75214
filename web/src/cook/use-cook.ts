import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useDeferredValue, useMemo, useState } from "react";
import {
	api,
	type Cook,
	type CookRecord,
	type Mistake,
	need,
	type OpenedCook,
	type Overwritten,
} from "../api/client";
import { usePrefs } from "../prefs";
import { same } from "../record/pointer";
import type { Saved } from "../record/store";
import { useRecord } from "../record/use-record";
import { useSaving } from "../record/use-saving";
import { cookKind } from "./cook-kind";
import { useFacts } from "./use-facts";
import { useSettled, useSheet, useWhere } from "./use-sheet";

const none: Mistake[] = [];

/** A cook being written: what is typed, the figures that follow from it, and how it is saved. */
export function useCook(id: string, pictures: boolean, onMade: (id: string) => void) {
	const queries = useQueryClient();
	const [prefs] = usePrefs();
	const { units, spoons } = prefs;
	const opened = useCallback(
		(all: OpenedCook) => queries.setQueryData(["facts", all.record.id], all.facts),
		[queries],
	);
	const kind = useMemo(() => cookKind(prefs, opened), [prefs, opened]);
	const record = useRecord<Cook>(kind, id);
	const { typing, typed, outdated } = record;
	// What is typed is in its field at once; the rest of the page follows when there is time.
	const late = useDeferredValue(typed);
	const cook = late?.edits === typed?.edits ? late?.doc : typed?.doc;
	const saved = typed?.base;
	const happened = useFacts(typed?.id ?? "");

	const settled = useSettled(cook, 90);
	const number = typed?.id ?? "";
	const onRecord = useMemo(() => ({ cook: number }), [number]);
	const { facts, ready } = happened;
	const page = useMemo(() => (settled && ready ? { ...settled, facts } : undefined), [settled, facts, ready]);
	const asked = useMemo(
		() => page && { onRecord, page, plain: !pictures, units, spoons },
		[onRecord, page, pictures, units, spoons],
	);
	const figures = useSheet(asked);
	const all = figures.sheet?.errors ?? none;
	// A new cook has no name yet: that stops the saving, but nothing was done wrong.
	const unnamed = typed?.id === "" && typed.doc.name.trim() === "";
	const mistakes = useMemo(() => (unnamed ? all.filter((e) => e.pointer !== "/name") : all), [all, unnamed]);
	const current = settled === typed?.doc && figures.of === page && !figures.trouble;
	const dirty = useMemo(
		() => saved !== undefined && (typed?.id === "" || !same(settled, saved)),
		[typed?.id, settled, saved],
	);
	const saving = useSaving(kind, typing, {
		sound: current && all.length === 0,
		dirty: dirty && current,
		outdated,
		onMade,
		list: "cooks",
	});

	/** What both screens have changed, each its own way, and what is on record now. */
	const [theirs, setTheirs] = useState<{ saved: Saved<Cook>; list: Overwritten[] }>();
	const look = useCallback(async () => {
		if (!typing) return;
		const { id, base } = typing.now;
		const path = { id };
		const now = need(await api.GET("/api/cooks/{id}", { params: { path } })) as CookRecord;
		const body = { mine: typing.beside(now.doc), base };
		const list = need(await api.POST("/api/cooks/{id}/overwritten", { params: { path }, body }));
		setTheirs({ saved: { id: now.id, version: now.version, doc: now.doc }, list: list ?? [] });
	}, [typing]);

	const error = useCallback(
		(pointer: string) => mistakes.find((e) => e.pointer === pointer)?.message,
		[mistakes],
	);
	const offers = useCallback(
		(pointer: string) => mistakes.find((e) => e.pointer === pointer)?.offers ?? undefined,
		[mistakes],
	);
	let standing = saving.standing;
	if (standing === "saved" && (dirty || settled !== typed?.doc))
		standing = !current || all.length === 0 ? "waiting" : mistakes.length > 0 ? "mistakes" : "unnamed";
	if (figures.trouble && standing !== "conflict") standing = "unreachable";
	return {
		typing,
		cook,
		sheet: figures.sheet,
		figures,
		current,
		error,
		offers,
		standing,
		mistakes,
		theirs,
		look,
		/** Where both screens changed a place, what stands there is theirs, or mine; elsewhere what each changed. */
		choose: (whose: "theirs" | "mine") => {
			if (theirs) typing?.catchUp(theirs.saved, whose);
			setTheirs(undefined);
			saving.settled();
		},
		where: useWhere(asked),
		failure: record.failure,
		id: typed?.id,
		isNew: typed?.id === "",
		onRecord,
		facts,
		say: happened.say,
	};
}

export type CookInHand = ReturnType<typeof useCook>;
