import { Button } from "antd";
import { useEffect, useState } from "react";
import { said } from "../api/client";
import { TypedField } from "../shared/typed-field";
import type { After, AfterPiece, useWriteDown } from "./use-after";

/** What was weighed, each kept when its field is left. */
export function Weights({ piece, write }: { piece: AfterPiece; write: ReturnType<typeof useWriteDown> }) {
	return (
		<div className="after-weights">
			<h3>Weights</h3>
			{piece.weights.map((w) => (
				<Weight key={w.what} piece={piece.key} weight={w} write={write} />
			))}
		</div>
	);
}

/** What each pit burnt. */
export function Fuel({ fuel, write }: { fuel: After["fuel"]; write: ReturnType<typeof useWriteDown> }) {
	if (fuel.length === 0) return null;
	return (
		<section className="after-weights" aria-label="Fuel">
			<h2>Fuel</h2>
			{fuel.map((f) => (
				<Weight key={f.pit} piece="" pit={f.pit} weight={f} write={write} />
			))}
		</section>
	);
}

interface Props {
	piece: string;
	/** Number of the pit, of its fuel. */
	pit?: number;
	weight: AfterPiece["weights"][number];
	write: ReturnType<typeof useWriteDown>;
}

function Weight({ piece, pit, weight: w, write }: Props) {
	const [typed, setTyped] = useState(w.typed);
	const [wrong, setWrong] = useState("");
	useEffect(() => setTyped(w.typed), [w.typed]);
	const keep = () => {
		if (typed.trim() === w.typed.trim() || !typed.trim()) return;
		write.mutate(
			{ kind: "weighed", what: w.what, piece, values: pit === undefined ? { typed } : { typed, pit } },
			{
				onError: (e) => setWrong(said(e)),
			},
		);
	};
	const sure = () =>
		write.mutate({ kind: "weighed", what: w.what, piece, values: { typed: w.typed, sure: true } });
	return (
		<div className="after-weight">
			<TypedField
				label={w.label}
				value={typed}
				usual={w.usual}
				error={wrong || w.ask}
				onDone={keep}
				onChange={(v) => {
					setWrong("");
					setTyped(v);
				}}
			/>
			{w.ask && typed.trim() === w.typed.trim() && (
				<Button size="large" onClick={sure} loading={write.isPending}>
					{w.typed} is right
				</Button>
			)}
		</div>
	);
}
