import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { type ApiError, api, type Batch, type Catalogue, type Formula, need } from "../api/client";
import { usePrefs } from "../prefs";
import { same } from "../record/pointer";
import { useRecord } from "../record/use-record";
import { blank, whole } from "./formula";
import { formulaKind, onRecord } from "./formula-kind";

const nothing: Batch = { fix: "", amount: "", row: 0, guests: 8, round: "", meat: "", cut: "" };

/**
 * A formula being written. What is typed is kept on this screen at once; a version is
 * made of it when the cook says so.
 */
export function useFormula(id: string, catalogue: Catalogue) {
	const queries = useQueryClient();
	const [prefs] = usePrefs();
	const [batch, setBatch] = useState<Batch>(nothing);
	const [problem, setProblem] = useState<ApiError>();
	const own = onRecord(id);
	const shipped = catalogue.formulas.find((f) => f.id === id);
	// A new formula means the spoons that its writer has.
	const [mine] = useState(prefs.spoons);
	const kind = useMemo(
		() => formulaKind(() => whole({ ...(shipped ?? blank), spoons: mine })),
		[shipped, mine],
	);
	const { typing, typed, reload, failure } = useRecord<Formula>(kind, id);
	const formula = typed?.doc;

	const asked = JSON.stringify({ formula, batch });
	const preview = useQuery({
		queryKey: ["work-out", asked, prefs.units, prefs.spoons],
		enabled: formula !== undefined,
		placeholderData: keepPreviousData,
		gcTime: 30_000,
		queryFn: async ({ signal }) =>
			need(
				await api.POST("/api/calc/formula", {
					params: { query: { units: prefs.units, spoons: prefs.spoons } },
					body: JSON.parse(asked),
					signal,
				}),
			),
	});

	/** Saves what is typed as a new version, and returns its id. */
	const save = async (): Promise<string | undefined> => {
		if (!typing) return undefined;
		const { doc: sent, id: was, version } = typing.now;
		try {
			const before = !was && typing.sends();
			const done = await kind.save(sent, was ? { id: was, version } : { key: typing.key });
			typing.saved(before ? done.doc : sent, done);
			setProblem(undefined);
			queries.invalidateQueries({ queryKey: ["formulas"] });
			queries.invalidateQueries({ queryKey: ["versions", done.id] });
			return done.id;
		} catch (error) {
			setProblem(error as ApiError);
			return undefined;
		}
	};
	return {
		typing,
		formula,
		batch,
		setBatch,
		change: (next: Partial<Formula>) => typing?.edit((f) => void Object.assign(f, next)) ?? (() => {}),
		save,
		sheet: preview.data,
		problem,
		own,
		shipped: shipped !== undefined,
		dirty: typed !== undefined && !same(formula, typed.base),
		failure,
		/** Replaces what is typed by what is saved. */
		revert: () => {
			setProblem(undefined);
			reload();
		},
		wrong: (place: string) => preview.data?.errors.find((e) => e.pointer === place)?.message,
		/** What may have been meant there, by where it stands in the formula. */
		offers: (at: string) =>
			preview.data?.errors
				.find((e) => e.pointer === `/formula${at}`)
				?.offers?.map((o) => ({
					...o,
					edits: o.edits.map((e) => ({ ...e, pointer: e.pointer.replace(/^\/formula/, "") })),
				})),
	};
}
