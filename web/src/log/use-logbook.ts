import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need } from "../api/client";
import { usePrefs } from "../prefs";

/** What is looked for in the logbook; empty is everything. */
export interface Sought {
	search: string;
	cut?: string;
	finish?: string;
	pit?: string;
	wrap?: string;
	formula?: string;
	weather?: string;
	score?: number;
}

export const perPage = 20;

/** A page of the logbook. */
export function useLogbook(sought: Sought, page: number) {
	return useQuery({
		queryKey: ["logbook", sought, page],
		placeholderData: keepPreviousData,
		queryFn: async () =>
			need(await api.GET("/api/logbook", { params: { query: { ...sought, page, per: perPage } } })),
	});
}

/** Some cook-outs beside one another. */
export function useCompared(ids: string[]) {
	const [{ units, spoons }] = usePrefs();
	return useQuery({
		queryKey: ["logbook", "compare", ids, units, spoons],
		enabled: ids.length > 0,
		queryFn: async () =>
			need(
				await api.GET("/api/logbook/compare", { params: { query: { cooks: ids.join(","), units, spoons } } }),
			),
	});
}

export function useTrends() {
	const [{ units, spoons }] = usePrefs();
	return useQuery({
		queryKey: ["logbook", "trends", units, spoons],
		queryFn: async () => need(await api.GET("/api/logbook/trends", { params: { query: { units, spoons } } })),
	});
}

/** What was learnt, and how to change what it is learnt from. */
export function useLessons() {
	const [{ units, spoons }] = usePrefs();
	const queries = useQueryClient();
	const query = { units, spoons };
	const lessons = useQuery({
		queryKey: ["lessons", units, spoons],
		queryFn: async () => need(await api.GET("/api/lessons", { params: { query } })),
	});
	const onSuccess = () => queries.invalidateQueries({ queryKey: ["lessons"] });
	const leaveOut = useMutation({
		mutationFn: async (body: { cook: string; out: boolean }) =>
			need(await api.POST("/api/lessons/without", { params: { query }, body })),
		onSuccess,
	});
	const reset = useMutation({
		mutationFn: async (all: boolean) =>
			need(await api.POST("/api/lessons/reset", { params: { query }, body: { all } })),
		onSuccess,
	});
	return { lessons, leaveOut, reset };
}
