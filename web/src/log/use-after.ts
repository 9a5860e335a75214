import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Fact, need } from "../api/client";
import type { components } from "../api/schema";
import { person } from "../pit/use-say";
import { usePrefs } from "../prefs";
import { now } from "../shared/clock";
import { uuid } from "../shared/uuid";

export type After = components["schemas"]["AfterSheet"];
export type AfterPiece = After["pieces"][number];

/** How a cook-out went. */
export function useAfter(id: string) {
	const [{ units, spoons }] = usePrefs();
	return useQuery({
		queryKey: ["after", id, units, spoons],
		queryFn: async () =>
			need(await api.GET("/api/cooks/{id}/review", { params: { path: { id }, query: { units, spoons } } })),
	});
}

/** Writes down what was weighed, scored or is to be remembered. */
export function useWriteDown(id: string) {
	const queries = useQueryClient();
	return useMutation({
		mutationFn: async (said: Pick<Fact, "kind" | "what"> & Partial<Fact>) => {
			const fact = {
				id: uuid(),
				at: new Date(now() ?? 0).toISOString(),
				author: person.get(),
				...said,
			} as Fact;
			need(await api.POST("/api/cooks/{id}/facts", { params: { path: { id } }, body: fact }));
		},
		onSuccess: () =>
			Promise.all([
				queries.invalidateQueries({ queryKey: ["after", id] }),
				queries.invalidateQueries({ queryKey: ["logbook"] }),
			]),
	});
}
