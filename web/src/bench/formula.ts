import type { Formula, FormulaTold } from "../api/client";

/** A formula to start from. */
export const blank: Formula = {
	id: "",
	name: "",
	kind: "rub",
	note: "",
	tags: [],
	basis: "volume",
	rows: [
		{ ingredient: "kosher-salt", form: "dense flake", formula: "", parts: "1" },
		{ ingredient: "black-pepper", form: "coarse", formula: "", parts: "1" },
	],
};

/** The same formula with every field there, so that two can be told apart. */
export const whole = (f: FormulaTold): Formula => ({
	id: f.id ?? "",
	name: f.name,
	kind: f.kind || "rub",
	note: f.note ?? "",
	tags: f.tags ?? [],
	basis: f.basis,
	...(f.spoons ? { spoons: f.spoons } : {}),
	rows: f.rows.map((r) => ({
		ingredient: r.ingredient ?? "",
		form: r.form ?? "",
		formula: r.formula ?? "",
		parts: r.parts,
	})),
});
