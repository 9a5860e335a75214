import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { api, type Fact, need } from "../api/client";

/** A random UUID; browsers have one of their own only on a secure page. */
function uuid(): string {
	const bytes = crypto.getRandomValues(new Uint8Array(16));
	bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
	bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
	const hex = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
	return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, "$1-$2-$3-$4-$5");
}

/** A fact without what is given to it when it is said. */
export type NewFact = Omit<Fact, "id">;

/**
 * What has happened at a cook. Facts are only added: what was said wrongly is
 * withdrawn by another fact.
 */
export function useFacts(id: string) {
	const queries = useQueryClient();
	const recorded = /^\d+$/.test(id);
	const key = ["facts", id];
	const list = useQuery({
		queryKey: key,
		enabled: recorded,
		staleTime: 0,
		queryFn: async () =>
			need(await api.GET("/api/cooks/{id}/facts", { params: { path: { id: Number(id) } } })),
	});
	const say = useCallback(
		async (fact: NewFact) => {
			if (!/^\d+$/.test(id)) return;
			const body: Fact = { ...fact, id: uuid() };
			const at = ["facts", id];
			queries.setQueryData<Fact[]>(at, (old) => [...(old ?? []), body]);
			try {
				need(await api.POST("/api/cooks/{id}/facts", { params: { path: { id: Number(id) } }, body }));
			} catch (e) {
				queries.setQueryData<Fact[]>(at, (old) => (old ?? []).filter((f) => f.id !== body.id));
				throw e;
			}
		},
		[id, queries],
	);
	return { facts: list.data ?? [], ready: !recorded || list.data !== undefined, say };
}
