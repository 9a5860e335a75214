import { Select } from "antd";
import { type ReactNode, useId } from "react";
import type { components } from "../api/schema";
import { useCatalogue } from "../api/use-catalogue";
import { Choice } from "../shared/choice";
import { Labelled, TypedField } from "../shared/typed-field";
import "./now.css";

export type AtOnce = components["schemas"]["AtOnce"];

export const nothingYet: AtOnce = { cut: "", weight: "", kind: "", pit: "", wrap: "", on: "", zone: "" };

/** The zone of this device. */

/** What was typed before, kept on this device. */
export function keptOf<T extends object>(key: string, empty: T): T {
	try {
		return { ...empty, ...JSON.parse(localStorage.getItem(key) ?? "{}") };
	} catch {
		return empty;
	}
}

interface Props {
	typed: AtOnce;
	set: (change: Partial<AtOnce>) => void;
	wrong: (at: string) => string | undefined;
	/** When it went on, and what else is asked. */
	children: ReactNode;
	/** What it was, or is, asked of a wrap. */
	wrapLabel: string;
	whatLabel?: string;
}

/** A piece and its pit, in as few words as are needed. */
export function AtOnceFields({ typed, set, wrong, children, wrapLabel, whatLabel = "What is on" }: Props) {
	const { data: catalogue, error } = useCatalogue();
	const [cutId, kindId] = [useId(), useId()];
	if (!catalogue) return <p className="loading">{error ? error.message : "Opening…"}</p>;
	const cuts = catalogue.species.map((s) => ({
		label: s,
		options: catalogue.cuts
			.filter((c) => c.species === s)
			.map((c) => ({
				value: c.id,
				label: c.name,
				words: `${c.name} ${s} ${c.also.join(" ")}`.toLowerCase(),
			})),
	}));
	return (
		<>
			<div className="now-fields">
				<Labelled id={cutId} label={whatLabel} error={wrong("/cut")}>
					<Select
						id={cutId}
						variant="underlined"
						showSearch={{
							filterOption: (words, o) =>
								words
									.toLowerCase()
									.split(/\s+/)
									.every((w) => String(o && "words" in o ? o.words : "").includes(w)),
						}}
						placeholder="find a cut"
						value={typed.cut || undefined}
						options={cuts}
						onChange={(cut: string) => set({ cut })}
					/>
				</Labelled>
				<TypedField
					label="Weight of one"
					value={typed.weight}
					usual="3.6 kg"
					error={wrong("/weight")}
					onChange={(weight) => set({ weight })}
				/>
				<TypedField
					label="How many"
					value={typed.count ?? ""}
					usual="1"
					inputMode="numeric"
					error={wrong("/count")}
					onChange={(count) => set({ count })}
				/>
				<TypedField
					label="Thickest point"
					value={typed.thickness ?? ""}
					usual="estimated: measure it if you can"
					error={wrong("/thickness")}
					onChange={(thickness) => set({ thickness })}
				/>
				<Labelled id={kindId} label="Pit" error={wrong("/kind")}>
					<Select
						id={kindId}
						variant="underlined"
						placeholder="which kind"
						value={typed.kind || undefined}
						options={catalogue.pits.map((p) => ({ value: p.id, label: p.name }))}
						onChange={(kind: string) => set({ kind })}
					/>
				</Labelled>
				<TypedField
					label="The pit is set to"
					value={typed.pit}
					usual="120 °C or 250 °F"
					error={wrong("/pit")}
					onChange={(pit) => set({ pit })}
				/>
				{children}
			</div>
			<Choice
				label={wrapLabel}
				value={typed.wrap}
				error={wrong("/wrap")}
				options={[
					{ value: "", label: "As usual for it" },
					{ value: "none", label: "Never" },
					{ value: "foil", label: "Foil" },
					{ value: "paper", label: "Butcher paper" },
				]}
				onChange={(wrap) => set({ wrap })}
			/>
		</>
	);
}
