import { useQuery } from "@tanstack/react-query";
import { api, need } from "./client";

/** Everything there is to choose from; it changes only when the cook adds an ingredient. */
export function useCatalogue() {
	return useQuery({
		queryKey: ["catalogue"],
		staleTime: Number.POSITIVE_INFINITY,
		queryFn: async () => need(await api.GET("/api/catalogue")),
	});
}
