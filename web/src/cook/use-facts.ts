import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { api, type Fact, need } from "../api/client";
import { uuid } from "../shared/uuid";

const none: Fact[] = [];

/** A fact without what is given to it when it is said. */
export type NewFact = Omit<Fact, "id">;

/**
 * What has happened at a cook. Facts are only added: what was said wrongly is
 * withdrawn by another fact.
 */
export function useFacts(id: string) {
	const queries = useQueryClient();
	const recorded = id !== "";
	const key = ["facts", id];
	const list = useQuery({
		queryKey: key,
		enabled: recorded,
		queryFn: async () => need(await api.GET("/api/cooks/{id}/facts", { params: { path: { id } } })),
	});
	const say = useCallback(
		async (fact: NewFact) => {
			if (!id) return;
			const body: Fact = { ...fact, id: uuid() };
			const at = ["facts", id];
			queries.setQueryData<Fact[]>(at, (old) => [...(old ?? []), body]);
			try {
				need(await api.POST("/api/cooks/{id}/facts", { params: { path: { id } }, body }));
			} catch (e) {
				queries.setQueryData<Fact[]>(at, (old) => (old ?? []).filter((f) => f.id !== body.id));
				throw e;
			}
		},
		[id, queries],
	);
	return { facts: list.data ?? none, ready: !recorded || list.data !== undefined, say };
}
