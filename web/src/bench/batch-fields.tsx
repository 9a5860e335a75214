import { Select } from "antd";
import type { Batch, Formula } from "../api/client";
import { Choice } from "../shared/choice";
import { TypedField } from "../shared/typed-field";

interface Props {
	formula: Formula;
	batch: Batch;
	onChange: (batch: Batch) => void;
	wrong: (place: string) => string | undefined;
}

const hints: Record<string, { label: string; usual: string }> = {
	total: { label: "All of it", usual: "250 g or 2 cups" },
	row: { label: "What is left of it", usual: "30 g or 3 Tbsp" },
	jar: { label: "The jar holds", usual: "250 mL or 1 cup" },
	guests: { label: "For each guest", usual: "12 g or 1 Tbsp" },
};

/** How much to make, from any one thing that is fixed, and how to round it. */
export function BatchFields({ formula, batch, onChange, wrong }: Props) {
	const put = (next: Partial<Batch>) => onChange({ ...batch, ...next });
	const hint = hints[batch.fix];
	return (
		<div className="batch">
			<Choice
				label="How much to make"
				value={batch.fix}
				error={wrong("/fix")}
				onChange={(fix) => put({ fix, amount: "" })}
				options={[
					{ value: "", label: "as written" },
					{ value: "total", label: "so much" },
					{ value: "row", label: "until one runs out" },
					{ value: "jar", label: "a jar" },
					{ value: "guests", label: "for guests" },
				]}
			/>
			<div className="fields">
				{batch.fix === "row" && (
					<div className="typed">
						<span className="muted">Running out</span>
						<Select
							aria-label="Which ingredient is running out"
							variant="underlined"
							className="batch-row"
							value={batch.row}
							onChange={(row) => put({ row })}
							options={formula.rows.map((r, i) => ({
								value: i,
								label: r.ingredient.replaceAll("-", " ") || "the formula inside",
							}))}
						/>
						<div className="typed-note">
							{wrong("/row") && <span className="typed-error">{wrong("/row")}</span>}
						</div>
					</div>
				)}
				{hint && (
					<TypedField
						label={hint.label}
						usual={hint.usual}
						value={batch.amount}
						error={batch.amount ? wrong("/amount") : undefined}
						onChange={(amount) => put({ amount })}
					/>
				)}
				{batch.fix === "guests" && (
					<TypedField
						label="Guests"
						inputMode="numeric"
						value={String(batch.guests || "")}
						error={wrong("/guests")}
						onChange={(v) => put({ guests: Number.parseInt(v.replace(/\D/g, "").slice(0, 5), 10) || 0 })}
					/>
				)}
			</div>
			<Choice
				label="Round each row to"
				value={batch.round}
				error={wrong("/round")}
				onChange={(round) => put({ round })}
				options={[
					{ value: "", label: "not at all" },
					{ value: "spoons", label: "spoons" },
					{ value: "0.1 g", label: "0.1 g" },
					{ value: "1 g", label: "1 g" },
					{ value: "5 g", label: "5 g" },
				]}
			/>
		</div>
	);
}
