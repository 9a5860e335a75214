import { Button, Input } from "antd";
import { useState } from "react";
import { PickTime } from "../shared/time-field";
import { withUnit } from "./presses";
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
						{l.local ? (
							<Button aria-label={`${l.probe ? "Change" : "Say when"}: ${l.label}`} onClick={() => fix(l.id)}>
								{l.probe ? "change" : "when?"}
							</Button>
						) : (
							<span />
						)}
						<Button aria-label={`Undo: ${l.label}`} onClick={() => say.undo(l)}>
							undo
						</Button>
						{fixing === l.id && l.probe && (
							<ChangeReading
								line={l}
								onChange={(typed) => {
									say.undo(l);
									say.reading(l.label, l.probe ?? "", typed, l.local);
									fix("");
								}}
							/>
						)}
						{fixing === l.id && (
							<PickTime
								autoFocus={!l.probe}
								ago
								past
								zone={live.zone}
								name={`Time of: ${l.label}`}
								value={l.local}
								onShut={() => l.probe || fix("")}
								onChange={(at) => {
									if (!at || at === l.local) return;
									if (l.probe) {
										say.undo(l);
										say.reading(`When: ${l.label}`, l.probe, l.typed ?? "", at);
									} else say.fact(`When: ${l.label}`, { kind: "corrected", what: l.id, at });
								}}
							/>
						)}
					</li>
				))}
			</ol>
		</section>
	);
}

/** What was read, typed anew. */
function ChangeReading({ line, onChange }: { line: Live["log"][number]; onChange: (typed: string) => void }) {
	const [typed, setTyped] = useState(line.typed ?? "");
	const unit = line.typed?.includes("°F") ? "°F" : "°C";
	return (
		<form
			className="pit-asked pit-change"
			onSubmit={(e) => {
				e.preventDefault();
				if (typed.trim() && typed !== line.typed) onChange(withUnit(typed, unit));
			}}
		>
			<Input
				variant="underlined"
				aria-label={`Reading: ${line.label}`}
				inputMode="decimal"
				maxLength={20}
				value={typed}
				onChange={(e) => setTyped(e.target.value)}
			/>
			<Button size="large" htmlType="submit">
				Read so
			</Button>
		</form>
	);
}

/** Readings that cannot be: they count for nothing until somebody says that they do. */
export function Aside({ live, say }: { live: Live; say: Say }) {
	if (live.aside.length === 0) return null;
	return (
		<section className="pit-aside" aria-label="Readings set aside">
			{live.aside.map((a) => (
				<div key={a.probe + a.from} role="alert">
					<p>
						<b>{a.label}</b> is set aside. {a.why}
					</p>
					<Button size="large" onClick={() => say.counts(`It counts: ${a.label}`, a, true)}>
						It is right, count it
					</Button>
					<Button size="large" onClick={() => say.counts(`Taken back: ${a.label}`, a, false)}>
						Take it back
					</Button>
				</div>
			))}
		</section>
	);
}
