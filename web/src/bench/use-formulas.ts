import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Catalogue, type Formula, type FormulaSummary, need } from "../api/client";
import { whole } from "./formula";

const own = {
	queryKey: ["formulas", "own"],
	queryFn: async () => need(await api.GET("/api/formulas", { params: { query: { per: 100 } } })).items,
};
const none: FormulaSummary[] = [];

/** The cook's own formulas, as many as a list to choose from can hold; later are those that were asked for. */
export function useOwnFormulas(later = false): FormulaSummary[] {
	return useQuery({ ...own, enabled: !later }).data ?? none;
}

/** Asks for the cook's own formulas when a list that may hold them is about to be opened. */
export function useFormulasWhenOpened() {
	const queries = useQueryClient();
	return (e: React.FocusEvent) => {
		if (e.target.matches("[role=combobox]")) queries.prefetchQuery({ ...own, staleTime: 5_000 });
	};
}

/** A ready-made formula or one of the cook's own, whole. */
export async function fetchFormula(id: string, catalogue: Catalogue): Promise<Formula> {
	const shipped = catalogue.formulas.find((f) => f.id === id);
	return whole(shipped ?? need(await api.GET("/api/formulas/{id}", { params: { path: { id } } })).doc);
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
