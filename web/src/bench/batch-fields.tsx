import { Select } from "antd";
import type { Batch, Catalogue, Formula } from "../api/client";
import { Choice } from "../shared/choice";
import { FindSelect } from "../shared/find-select";
import { TypedField } from "../shared/typed-field";

interface Props {
	formula: Formula;
	batch: Batch;
	onChange: (batch: Batch) => void;
	wrong: (place: string) => string | undefined;
	catalogue: Catalogue;
}

const hints: Record<string, { label: string; usual: string }> = {
	total: { label: "All of it", usual: "250 g or 2 cups" },
	row: { label: "What is left of it", usual: "30 g or 3 Tbsp" },
	jar: { label: "The jar holds", usual: "250 mL or 1 cup" },
	guests: { label: "For each guest", usual: "12 g or 1 Tbsp" },
	salt: { label: "Salt in the meat", usual: "0.9 %" },
	coat: { label: "Coat", usual: "medium" },
	pump: { label: "Pump, of the meat", usual: "8 %" },
	pot: { label: "The pot holds", usual: "10 L" },
};

/** What the meat asks for, by kind of mix. */
const forMeat = ["salt", "coat", "pump", "pot"];

const usualFor = (kind: string) => ({ injection: "pump", bath: "pot" })[kind] ?? "salt";

/** How much to make, from any one thing that is fixed, and how to round it. */
export function BatchFields({ formula, batch, onChange, wrong, catalogue }: Props) {
	const put = (next: Partial<Batch>) => onChange({ ...batch, ...next });
	const hint = hints[batch.fix];
	return (
		<div className="batch">
			<Choice
				label="How much to make"
				value={forMeat.includes(batch.fix) ? "meat" : batch.fix}
				error={wrong("/fix")}
				onChange={(fix) =>
					put(fix === "meat" ? { fix: usualFor(formula.kind), amount: "" } : { fix, amount: "" })
				}
				options={[
					{ value: "", label: "as written" },
					{ value: "total", label: "this much" },
					{ value: "row", label: "until one runs out" },
					{ value: "jar", label: "a jar" },
					{ value: "guests", label: "for guests" },
					{ value: "meat", label: "for the meat" },
				]}
			/>
			{forMeat.includes(batch.fix) && (
				<Choice
					label="Measured by"
					quiet
					value={batch.fix}
					onChange={(fix) => put({ fix, amount: "" })}
					options={[
						{ value: "salt", label: "target salt" },
						{ value: "coat", label: "a coat" },
						{ value: "pump", label: "pump" },
						{ value: "pot", label: "a pot with it in" },
					]}
				/>
			)}
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
				{forMeat.includes(batch.fix) && (
					<>
						<TypedField
							label="The meat weighs"
							usual="2.4 kg"
							value={batch.meat}
							error={batch.meat ? wrong("/meat") : undefined}
							onChange={(meat) => put({ meat })}
						/>
						<div className="typed">
							<span className="muted">Cut</span>
							<FindSelect
								aria-label="Cut of the meat"
								variant="underlined"
								className="batch-row"
								placeholder="boneless"
								allowClear
								value={batch.cut || null}
								onChange={(cut?: string | null) => put({ cut: cut ?? "" })}
								options={catalogue.cuts.map((c) => ({
									value: c.id,
									label: c.name,
									names: [c.name, ...c.also],
								}))}
							/>
							<div className="typed-note">
								{wrong("/cut") && <span className="typed-error">{wrong("/cut")}</span>}
							</div>
						</div>
					</>
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
