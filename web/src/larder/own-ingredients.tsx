import { useMutation } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { ApiError, api, etag, need, type OwnIngredient } from "../api/client";
import { Choice } from "../shared/choice";
import { LineActions } from "../shared/record-list";
import { TypedField } from "../shared/typed-field";
import { useRemoval } from "../shared/use-removal";

const blank = {
	name: "",
	kind: "spice",
	grind: "powder",
	teaspoon: "",
	salt: "",
	sugar: "",
	fat: "",
	water: "",
	nitrite: "",
	phosphate: "",
	allergens: [] as string[],
};

const kinds = ["spice", "rub", "pepper", "herb", "salt", "cure", "sugar", "starch", "acid", "liquid", "fat"];

/** A share as typed, with its sign. */

interface Props {
	own: OwnIngredient[];
	/** A new one is being made. */
	making: boolean;
	/** What it is called, as it was looked for. */
	called?: string;
	onDone: () => void;
}

/** Ingredients that the program does not know: what is in them. */
export function OwnIngredients({ own, making, called, onDone }: Props) {
	const [editing, setEditing] = useState<OwnIngredient>();
	const { refresh, remove } = useRemoval("ingredients", ["larder", "catalogue"]);
	const done = () => {
		setEditing(undefined);
		onDone();
		refresh();
	};
	if (making || editing)
		return <OwnForm key={editing?.id ?? "new"} of={editing} called={called} onDone={done} />;
	if (own.length === 0) return null;
	return (
		<section className="own" aria-label="Ingredients of your own">
			<h2>Your own</h2>
			<ul>
				{own.map((o) => (
					<li key={o.id}>
						<span>
							<b>{o.ingredient.name}</b> <span className="muted">{o.note}</span>
						</span>
						<LineActions
							name={o.ingredient.name}
							onChange={() => setEditing(o)}
							onDelete={() => remove({ ...o, said: `${o.ingredient.name} is off the catalogue.` })}
						/>
					</li>
				))}
			</ul>
		</section>
	);
}

function OwnForm({ of, called, onDone }: { of?: OwnIngredient; called?: string; onDone: () => void }) {
	const [typed, setTyped] = useState({ ...blank, name: called ?? "", ...of?.ingredient });
	const set = (next: Partial<typeof blank>) => setTyped((old) => ({ ...old, ...next }));
	const keep = useMutation({
		mutationFn: async () => {
			const body = { ...typed, allergens: typed.allergens ?? [] };
			return need(
				of
					? await api.PUT("/api/ingredients/{id}", {
							params: { path: { id: of.id }, header: { "If-Match": etag(of.version) } },
							body,
						})
					: await api.POST("/api/ingredients", { body }),
			);
		},
		onSuccess: onDone,
	});
	const problem = keep.error instanceof ApiError ? keep.error : undefined;
	const wrong = (field: string) =>
		problem?.problem?.errors?.find((e) => e.pointer.startsWith(`/${field}`))?.message;
	const share = (field: "salt" | "sugar" | "fat" | "water" | "nitrite" | "phosphate", label: string) => (
		<TypedField
			label={label}
			usual={typed.kind === "rub" && field === "salt" ? "not read" : "0 %"}
			value={typed[field] ?? ""}
			error={wrong(field)}
			onChange={(v) => set({ [field]: v })}
		/>
	);
	const wet = typed.kind === "liquid" || typed.kind === "fat";
	return (
		<form
			className="own-form"
			aria-label="An ingredient of your own"
			onSubmit={(e) => {
				e.preventDefault();
				keep.mutate();
			}}
		>
			<h2>{of ? `Change ${of.ingredient.name}` : "A new ingredient"}</h2>
			<TypedField
				label="What you call it"
				size="large"
				autoFocus
				value={typed.name}
				error={wrong("name")}
				onChange={(name) => set({ name })}
			/>
			<Choice
				label="Kind"
				value={typed.kind || "spice"}
				error={wrong("kind")}
				onChange={(kind) => set({ kind })}
				options={kinds.map((k) => ({
					value: k,
					label: { cure: "curing salt", rub: "rub or mix from a shop" }[k] ?? k,
				}))}
			/>
			{!wet && (
				<Choice
					label="Grind"
					value={typed.grind || "powder"}
					error={wrong("grind")}
					onChange={(grind) => set({ grind })}
					options={["powder", "medium", "coarse"].map((g) => ({ value: g, label: g }))}
				/>
			)}
			<div className="fields fields-four">
				<TypedField
					label="A level teaspoon weighs"
					usual="2.4 g"
					value={typed.teaspoon ?? ""}
					error={wrong("teaspoon")}
					onChange={(teaspoon) => set({ teaspoon })}
				/>
				{share("salt", "Salt, by weight")}
				{share("sugar", "Sugar, by weight")}
				{share("fat", "Fat, by weight")}
				{share("water", "Water, by weight")}
				{typed.kind === "cure" && share("nitrite", "Nitrite, by weight")}
				{typed.kind === "acid" && share("phosphate", "Phosphate, by weight")}
				<TypedField
					label="Allergens"
					usual="mustard, celery"
					value={(typed.allergens ?? []).join(", ")}
					error={wrong("allergens")}
					onChange={(v) => set({ allergens: v === "" ? [] : v.split(",").map((a) => a.trimStart()) })}
				/>
			</div>
			{problem && !problem.problem?.errors?.length && <p className="typed-error">{problem.message}</p>}
			<div className="own-keep">
				<Button type="primary" size="large" htmlType="submit" loading={keep.isPending}>
					Put it in the larder
				</Button>
				<Button size="large" onClick={onDone}>
					Cancel
				</Button>
			</div>
		</form>
	);
}
