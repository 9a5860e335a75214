import { useQuery } from "@tanstack/react-query";
import { api, type FormulaSummary, need } from "../api/client";

/** The cook's own formulas, as many as a list to choose from can hold. */
export function useOwnFormulas(): FormulaSummary[] {
	const own = useQuery({
		queryKey: ["formulas", "own"],
		queryFn: async () => need(await api.GET("/api/formulas", { params: { query: { per: 100 } } })).items,
	});
	return own.data ?? [];
}
