import { Button } from "antd";
import { useState } from "react";
import { PickTime } from "../shared/time-field";
import type { Live } from "./use-live";
import type { Say } from "./use-say";

/** What was done and seen, the last first: taken back, or put at its right time. */
export function Log({ live, say }: { live: Live; say: Say }) {
	const [fixing, fix] = useState("");
	if (live.log.length === 0) return null;
	return (
		<section className="pit-log" aria-label="What was pressed">
			<h2>Pressed</h2>
			<ol>
				{live.log.map((l) => (
					<li key={l.id}>
						<b>{l.time}</b>
						<span>
							{l.label}
							{l.author && <small> {l.author}</small>}
						</span>
						<Button aria-label={`Say when: ${l.label}`} onClick={() => fix(l.id)}>
							when?
						</Button>
						<Button
							aria-label={`Undo: ${l.label}`}
							onClick={() => say.fact(`Undo: ${l.label}`, { kind: "withdrawn", what: l.id })}
						>
							undo
						</Button>
						{fixing === l.id && (
							<PickTime
								autoFocus
								ago
								past
								zone={live.zone}
								name={`Time of: ${l.label}`}
								value={l.local}
								onShut={() => fix("")}
								onChange={(at) => {
									if (at && at !== l.local)
										say.fact(`When: ${l.label}`, { kind: "corrected", what: l.id, at });
								}}
							/>
						)}
					</li>
				))}
			</ol>
		</section>
	);
}
