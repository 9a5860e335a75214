import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { usePrefs } from "../prefs";
import { api, need } from "./client";

/** Everything there is to choose from; it changes only when the cook adds an ingredient. */
export function useCatalogue() {
	const [{ units }] = usePrefs();
	return useQuery({
		queryKey: ["catalogue", units],
		placeholderData: keepPreviousData,
		staleTime: Number.POSITIVE_INFINITY,
		queryFn: async () => need(await api.GET("/api/catalogue", { params: { query: { units } } })),
	});
}
