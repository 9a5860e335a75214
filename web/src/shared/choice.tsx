import { useId } from "react";
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
}

/** One of a few: words side by side, the chosen one underlined. Arrow keys move. */
export function Choice(p: Props) {
	const name = useId();
	return (
		<fieldset className="choice">
			<legend className={p.quiet ? "unseen" : undefined}>{p.label}</legend>
			<div className="choice-row">
				{p.options.map((o) => (
					<label key={o.value} className={o.value === p.value ? "chosen" : undefined}>
						<input
							type="radio"
							name={name}
							value={o.value}
							checked={o.value === p.value}
							onChange={() => p.onChange(o.value)}
						/>
						<span>{o.label}</span>
						{o.note && <small>{o.note}</small>}
						{o.effect && <small className="choice-effect">{o.effect}</small>}
					</label>
				))}
			</div>
			{p.error && <p className="typed-error">{p.error}</p>}
		</fieldset>
	);
}
