import { useMutation } from "@tanstack/react-query";
import { Button, Select } from "antd";
import { useEffect, useId, useState } from "react";
import { useNavigate } from "react-router";
import { ApiError, api, need } from "../api/client";
import type { components } from "../api/schema";
import { useCatalogue } from "../api/use-catalogue";
import { Choice } from "../shared/choice";
import { TimeField } from "../shared/time-field";
import { Labelled, TypedField } from "../shared/typed-field";
import "./now.css";

type AtOnce = components["schemas"]["AtOnce"];

const key = "verjuice.now";
const empty: AtOnce = { cut: "", weight: "", kind: "", pit: "", wrap: "", on: "", zone: "" };

function kept(): AtOnce {
	try {
		return { ...empty, ...JSON.parse(localStorage.getItem(key) ?? "{}") };
	} catch {
		return empty;
	}
}

/** It is on the fire already, and was never planned here: what now? */
export default function NowPage() {
	const [typed, setTyped] = useState(kept);
	const { data: catalogue, error } = useCatalogue();
	const navigate = useNavigate();
	const [cutId, kindId] = [useId(), useId()];
	useEffect(() => localStorage.setItem(key, JSON.stringify(typed)), [typed]);
	const begin = useMutation({
		mutationFn: async () =>
			need(
				await api.POST("/api/now", {
					body: { ...typed, zone: Intl.DateTimeFormat().resolvedOptions().timeZone },
				}),
			),
		onSuccess: (made) => {
			localStorage.removeItem(key);
			navigate(`/cooks/${made.id}/pit`, { replace: true });
		},
	});
	const problem = begin.error instanceof ApiError ? begin.error.problem : undefined;
	const wrong = (at: string) => problem?.errors?.find((e) => e.pointer === at)?.message;
	const set = (change: Partial<AtOnce>) => {
		begin.reset();
		setTyped((t) => ({ ...t, ...change }));
	};
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
		<form
			className="now"
			onSubmit={(e) => {
				e.preventDefault();
				begin.mutate();
			}}
		>
			<h1>It is on the fire now</h1>
			<p className="says">
				Say what went on and when. The pit side then tells how it goes on from here, when to wrap and when it
				is done.
			</p>
			<div className="now-fields">
				<Labelled id={cutId} label="What is on" error={wrong("/cut")}>
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
				<TimeField
					label="It went on"
					value={typed.on}
					hint="Empty is now."
					error={wrong("/on")}
					onChange={(on) => set({ on })}
				/>
				<TimeField
					label="Serve at"
					value={typed.serve_at ?? ""}
					hint="Empty is whenever it is done."
					error={wrong("/serve_at")}
					onChange={(serve_at) => set({ serve_at })}
				/>
			</div>
			<Choice
				label="Wrap"
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
			{begin.error && (
				<p className="typed-error" role="alert">
					{begin.error.message}
				</p>
			)}
			<Button
				type="primary"
				size="large"
				htmlType="submit"
				loading={begin.isPending}
				disabled={!typed.cut || !typed.weight.trim()}
			>
				Go to the pit side
			</Button>
		</form>
	);
}
