import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import {
	type ApiError,
	api,
	type Batch,
	type Catalogue,
	etag,
	type Formula,
	type FormulaRecord,
	need,
} from "../api/client";
import { usePrefs } from "../prefs";
import { blank, whole } from "./formula";

const draftKey = (id: string) => `verjuice.formula.${id}`;

/**
 * A formula being written. What is typed is kept on this screen at once; a
 * version is made of it when the cook says so.
 */
export function useFormula(id: string, catalogue: Catalogue | undefined) {
	const queries = useQueryClient();
	const [prefs] = usePrefs();
	const [formula, setFormula] = useState<Formula>();
	const [recorded, setRecorded] = useState<FormulaRecord>();
	const [batch, setBatch] = useState<Batch>({
		fix: "",
		amount: "",
		row: 0,
		guests: 8,
		round: "",
		meat: "",
		cut: "",
	});
	const [problem, setProblem] = useState<ApiError>();
	const own = /^\d+$/.test(id);
	const shipped = catalogue?.formulas.find((f) => f.id === id);

	const loaded = useQuery({
		queryKey: ["formula", id],
		enabled: own,
		gcTime: 0,
		staleTime: Number.POSITIVE_INFINITY,
		queryFn: async () =>
			need(await api.GET("/api/formulas/{id}", { params: { path: { id: Number(id) } } })) as FormulaRecord,
	});
	// A new formula means the spoons that its writer has.
	const [mine] = useState(prefs.spoons);
	const start = id === "new" ? blank : shipped;
	const source = own ? loaded.data?.formula : start && { ...start, spoons: mine };
	// biome-ignore lint/correctness/useExhaustiveDependencies: what is typed is not to be replaced when the record is read again
	useEffect(() => {
		if (!source || formula) return;
		const kept = localStorage.getItem(draftKey(id));
		setFormula(whole(kept ? JSON.parse(kept) : source));
		setRecorded(loaded.data);
	}, [source, id]);

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

	const change = (next: Partial<Formula>) =>
		setFormula((old) => {
			if (!old) return old;
			const now = { ...old, ...next };
			localStorage.setItem(draftKey(id), JSON.stringify(now));
			return now;
		});

	/** Saves what is typed as a new version, and returns its number. */
	const save = async (): Promise<number | undefined> => {
		if (!formula) return undefined;
		try {
			const done = need(
				own && recorded
					? await api.PUT("/api/formulas/{id}", {
							params: { path: { id: recorded.id }, header: { "If-Match": etag(recorded.version) } },
							body: formula,
						})
					: await api.POST("/api/formulas", { body: formula }),
			) as FormulaRecord;
			localStorage.removeItem(draftKey(id));
			setProblem(undefined);
			setRecorded(done);
			setFormula(whole(done.formula));
			queries.setQueryData(["formula", String(done.id)], done);
			queries.invalidateQueries({ queryKey: ["formulas"] });
			queries.invalidateQueries({ queryKey: ["versions", done.id] });
			return done.id;
		} catch (error) {
			setProblem(error as ApiError);
			return undefined;
		}
	};

	const before = recorded ? whole(recorded.formula) : source ? whole(source) : undefined;
	return {
		formula,
		batch,
		setBatch,
		change,
		save,
		sheet: preview.data,
		problem,
		own,
		shipped: shipped !== undefined,
		dirty: formula !== undefined && JSON.stringify(formula) !== JSON.stringify(before),
		failure: loaded.error as ApiError | null,
		/** Replaces what is typed by what is saved. */
		revert: async () => {
			localStorage.removeItem(draftKey(id));
			setProblem(undefined);
			const now = own ? (await loaded.refetch()).data : undefined;
			setRecorded(now);
			setFormula(whole(now?.formula ?? source ?? blank));
		},
		wrong: (place: string) => preview.data?.errors.find((e) => e.pointer === place)?.message,
	};
}
