import { WarningFilled } from "@ant-design/icons";
import { Button, Form, Input } from "antd";
import { type ReactNode, useId } from "react";
import type { Offer } from "../api/client";
import { pace, useHushed } from "./pace";
import "./typed-field.css";

interface Props {
	label: ReactNode;
	value: string;
	onChange: (typed: string) => void;
	/** What the empty field means, shown in it. */
	usual?: string;
	/** A line under the field while nothing is wrong. */
	hint?: ReactNode;
	error?: string;
	/** What may have been meant, each a button. */
	offers?: Offer[];
	onOffer?: (offer: Offer) => void;
	inputMode?: "text" | "numeric" | "decimal";
	autoFocus?: boolean;
	/** "large" for the few that matter most. */
	size?: "large" | "usual";
	/** Where in the record it is, by which a mistake leads to it. */
	at?: string;
	/** Called when the cook is done with it: it was left, or Enter was pressed. */
	onDone?: () => void;
}

/** A line to type an amount on, as people write it, with what is wrong beside it. */
export function TypedField(p: Props) {
	const id = useId();
	const { shown, hushed } = useHushed(id, p.error);
	const error = hushed ? undefined : shown;
	return (
		<Labelled {...p} id={id} error={shown} hushed={hushed}>
			<Input
				id={id}
				variant="underlined"
				inputMode={p.inputMode}
				value={p.value}
				placeholder={p.usual}
				autoFocus={p.autoFocus}
				autoComplete="off"
				aria-invalid={Boolean(error)}
				aria-describedby={`${id}-note`}
				data-at={p.at}
				maxLength={200}
				onChange={(e) => {
					pace.type(id);
					p.onChange(e.target.value);
				}}
				onBlur={() => {
					pace.rest();
					p.onDone?.();
				}}
				onPressEnter={p.onDone}
			/>
		</Labelled>
	);
}

interface LabelledProps {
	id: string;
	label: ReactNode;
	hint?: ReactNode;
	error?: string;
	size?: "large" | "usual";
	offers?: Offer[];
	onOffer?: (offer: Offer) => void;
	/** What was wrong keeps its room and is not read: it is being typed anew. */
	hushed?: boolean;
	children: ReactNode;
}

/** A field's name above it, and under it what is wrong or what it means. Only what is wrong is announced. */
export function Labelled(p: LabelledProps) {
	const { id, label, hint, error, size = "usual", offers, onOffer, children } = p;
	return (
		<Form.Item
			className={`typed typed-${size}`}
			layout="vertical"
			label={label}
			htmlFor={id}
			colon={false}
			validateStatus={error && !p.hushed ? "error" : undefined}
		>
			{children}
			<div id={`${id}-note`} className={p.hushed ? "typed-note typed-hushed" : "typed-note"}>
				<span role="alert">
					{error && (
						<span className="typed-error">
							<WarningFilled aria-hidden /> {error}
						</span>
					)}
				</span>
				{error &&
					offers?.map((o) => (
						<Button key={o.text} className="typed-offer" onClick={() => onOffer?.(o)}>
							{o.text}
						</Button>
					))}
				{!error && hint}
			</div>
		</Form.Item>
	);
}
