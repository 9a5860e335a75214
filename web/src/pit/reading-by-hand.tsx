import { Button, Input } from "antd";
import { useId, useState } from "react";
import { withUnit } from "./presses";
import type { LivePiece } from "./use-live";
import type { Say } from "./use-say";

/** A temperature that was read by eye: of the core or of the pit. */
export function ReadingByHand({ piece, say, place }: { piece: LivePiece; say: Say; place: string }) {
	const core = place ? `core:${piece.key}:${place}` : `core:${piece.key}`;
	const id = useId();
	const [typed, setTyped] = useState("");
	const sent = (probe: string, label: string) => {
		if (!typed.trim()) return;
		say.reading(label, probe, withUnit(typed, piece.axis.unit));
		setTyped("");
	};
	if (piece.state === "before") return null;
	return (
		<form
			className="pit-asked"
			onSubmit={(e) => {
				e.preventDefault();
				sent(core, "Core");
			}}
		>
			<p>
				<label htmlFor={id}>
					Read by eye{place && `, ${place}`}, {piece.axis.unit}
				</label>
				<Input
					id={id}
					variant="underlined"
					inputMode="decimal"
					maxLength={20}
					value={typed}
					placeholder={piece.axis.unit === "°F" ? "154" : "68"}
					onChange={(e) => setTyped(e.target.value)}
				/>
			</p>
			<Button size="large" htmlType="submit" disabled={!typed.trim()}>
				Core
			</Button>
			{piece.state === "on" && (
				<Button size="large" disabled={!typed.trim()} onClick={() => sent(`pit:${piece.pit_no}`, "Pit")}>
					Pit
				</Button>
			)}
		</form>
	);
}
