import { Radio } from "antd";
import { useId, useState } from "react";
import "./choice.css";

export interface Option {
	value: string;
	label: string;
	/** What choosing it does, in a few words. */
	note?: string;
	/** What it does to the numbers. */
	effect?: string;
}

interface Props {
	label: string;
	value: string;
	options: Option[];
	onChange: (value: string) => void;
	error?: string;
	/** Keep the label for screen readers only. */
	quiet?: boolean;
	/** Show what is chosen alone until the others are asked for. */
	folds?: boolean;
	/** Where in the record it is, by which a mistake leads to it. */
	at?: string;
}

/** One of a few: words side by side, the chosen one underlined. Arrow keys move. */
export function Choice(p: Props) {
	const name = useId();
	const [open, setOpen] = useState(false);
	const told = p.options.some((o) => o.note || o.effect);
	const chosen = p.options.find((o) => o.value === p.value);
	const folded = p.folds && !open && !p.error && chosen && p.options.length > 2;
	if (folded) {
		return (
			<div className="choice choice-folded" data-at={p.at}>
				<p className="choice-label" aria-hidden>
					{p.label}
				</p>
				<button type="button" aria-expanded={false} onClick={() => setOpen(true)}>
					<i className="unseen">{p.label}: </i>
					<b>{chosen.label}</b>
					<span>change</span>
					{chosen.effect && <small className="choice-effect">{chosen.effect}</small>}
					{chosen.note && <small>{chosen.note}</small>}
				</button>
			</div>
		);
	}
	return (
		<fieldset className={told ? "choice choice-told" : "choice"} data-at={p.at}>
			<legend className={p.quiet ? "unseen" : undefined}>{p.label}</legend>
			<Radio.Group
				className="choice-row"
				name={name}
				value={p.value}
				onChange={(e) => p.onChange(e.target.value as string)}
			>
				{p.options.map((o) => (
					<Radio
						key={o.value}
						value={o.value}
						autoFocus={p.folds && open && o.value === p.value}
						className={o.value === p.value ? "chosen" : undefined}
					>
						<b>{o.label}</b>
						{o.effect && <small className="choice-effect">{o.effect}</small>}
						{o.note && <small>{o.note}</small>}
					</Radio>
				))}
			</Radio.Group>
			{p.error && (
				<p className="typed-error" role="alert">
					{p.error}
				</p>
			)}
		</fieldset>
	);
}
