import { WarningFilled } from "@ant-design/icons";
import { Input } from "antd";
import { type ReactNode, useId } from "react";
import "./typed-field.css";

interface Props {
	label: string;
	value: string;
	onChange: (typed: string) => void;
	/** What the empty field means, shown in it. */
	usual?: string;
	/** A line under the field while nothing is wrong. */
	hint?: ReactNode;
	error?: string;
	type?: "text" | "datetime-local";
	inputMode?: "text" | "numeric" | "decimal";
	autoFocus?: boolean;
	/** "large" for the few that matter most. */
	size?: "large" | "usual";
}

/** A line to type an amount on, as people write it, with what is wrong beside it. */
export function TypedField(p: Props) {
	const id = useId();
	return (
		<div className={`typed typed-${p.size ?? "usual"}${p.error ? " typed-wrong" : ""}`}>
			<label htmlFor={id}>{p.label}</label>
			<Input
				id={id}
				variant="underlined"
				type={p.type ?? "text"}
				inputMode={p.inputMode}
				value={p.value}
				placeholder={p.usual}
				autoFocus={p.autoFocus}
				autoComplete="off"
				status={p.error ? "error" : undefined}
				aria-invalid={Boolean(p.error)}
				aria-describedby={`${id}-note`}
				maxLength={200}
				onChange={(e) => p.onChange(e.target.value)}
			/>
			<div id={`${id}-note`} className="typed-note" aria-live="polite">
				{p.error ? (
					<span className="typed-error">
						<WarningFilled aria-hidden /> {p.error}
					</span>
				) : (
					p.hint
				)}
			</div>
		</div>
	);
}
