import type { Catalogue, Formula } from "../api/client";
import { fetchFormula, single, useOwnFormulas } from "../bench/use-formulas";
import { FindSelect, noIngredient } from "../shared/find-select";

interface Props {
	label: string;
	value: Formula;
	catalogue: Catalogue;
	onChange: (formula: Formula) => void;
}

/** What a dose is made of: a formula of the bench or the house, or one ingredient. */
export function DoseSelect({ label, value, catalogue, onChange }: Props) {
	const mine = useOwnFormulas(true);
	const known =
		mine.some((f) => String(f.id) === value.id) || catalogue.formulas.some((f) => f.id === value.id);
	return (
		<FindSelect
			aria-label={label}
			variant="underlined"
			className="dose-select"
			unfound={noIngredient}
			asks={catalogue.asks}
			value={known ? `f|${value.id}` : value.name}
			popupMatchSelectWidth={320}
			onChange={async (v: string) => {
				const [kind, id = "", form = ""] = v.split("|");
				if (kind === "f") onChange(await fetchFormula(id, catalogue));
				else if (kind === "i")
					onChange(single(id, form, catalogue.ingredients.find((i) => i.id === id)?.name ?? id));
			}}
			options={[
				...(known ? [] : [{ value: value.name, label: value.name }]),
				...mine.map((f) => ({ value: `f|${f.id}`, label: f.name })),
				...catalogue.formulas.map((f) => ({ value: `f|${f.id}`, label: f.name })),
				...catalogue.ingredients.flatMap((i) =>
					i.forms.map((f) => ({
						value: `i|${i.id}|${f.name}`,
						label: `${i.name}, ${f.name}`,
						names: [i.name, ...(i.also ?? [])],
					})),
				),
			]}
		/>
	);
}
