import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useCallback, useDeferredValue, useMemo } from "react";
import { api, need } from "../api/client";
import { usePrefs } from "../prefs";
import { same } from "../record/pointer";
import { useRecord } from "../record/use-record";
import { useSaving } from "../record/use-saving";
import { type Meal, mealKind } from "./meal-kind";

/** A later meal being written, what follows from it, and how it is saved. */
export function useMeal(id: string, cook: string, piece: string, onMade: (id: string) => void) {
	const [{ units, spoons }] = usePrefs();
	const kind = useMemo(() => mealKind({ cook, piece }, units), [cook, piece, units]);
	const { typing, typed, outdated, reload, failure } = useRecord<Meal>(kind, id);
	const meal = typed?.doc;
	const asked = useDeferredValue(meal);
	const own = typed?.id ?? "";
	const sheet = useQuery({
		queryKey: ["meal-sheet", own, asked, units, spoons],
		enabled: asked !== undefined,
		placeholderData: keepPreviousData,
		gcTime: 30_000,
		queryFn: async ({ signal }) => {
			if (!asked) throw new Error("nothing to work out");
			const query = { units, spoons, id: own };
			return {
				of: asked,
				...need(await api.POST("/api/calc/meal", { params: { query }, body: asked, signal })),
			};
		},
	});
	const current = sheet.data !== undefined && same(sheet.data.of, meal) && !sheet.isPlaceholderData;
	const errors = sheet.data?.errors;
	const dirty = typed !== undefined && (typed.id === "" || !same(typed.doc, typed.base));
	const saving = useSaving(kind, typing, {
		sound: current && errors?.length === 0,
		dirty: dirty && current,
		outdated,
		onMade,
		list: "meals",
	});
	const wrong = useCallback(
		(pointer: string) => errors?.find((e) => e.pointer === pointer)?.message,
		[errors],
	);
	return {
		typing,
		meal,
		sheet: sheet.data,
		stale: !current,
		trouble: sheet.error,
		wrong,
		standing: saving.standing,
		dirty,
		/** Shows what is on record instead. */
		reload: () => {
			saving.settled();
			reload();
		},
		failure,
		id: own,
	};
}
