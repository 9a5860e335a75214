import { useQuery } from "@tanstack/react-query";
import { api, type Catalogue, type Formula, type FormulaSummary, need } from "../api/client";
import { whole } from "./formula";

/** The cook's own formulas, as many as a list to choose from can hold. */
export function useOwnFormulas(): FormulaSummary[] {
	const own = useQuery({
		queryKey: ["formulas", "own"],
		queryFn: async () => need(await api.GET("/api/formulas", { params: { query: { per: 100 } } })).items,
	});
	return own.data ?? [];
}

/** A formula of the house or of the cook's own, whole. */
export async function fetchFormula(id: string, catalogue: Catalogue): Promise<Formula> {
	const shipped = catalogue.formulas.find((f) => f.id === id);
	return whole(shipped ?? need(await api.GET("/api/formulas/{id}", { params: { path: { id } } })).formula);
}

/** One ingredient as a formula, for a dose of that alone. */
export const single = (ingredient: string, form: string, name: string): Formula => ({
	id: "",
	name,
	kind: "rub",
	note: "",
	tags: [],
	basis: "weight",
	rows: [{ ingredient, form, formula: "", parts: "1" }],
});
