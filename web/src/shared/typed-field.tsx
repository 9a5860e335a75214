import { WarningFilled } from "@ant-design/icons";
import { Button, Form, Input } from "antd";
import { type ReactNode, useEffect, useId, useState } from "react";
import type { Offer } from "../api/client";
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
	// Who clears a number to type another is in the middle of it: what is wrong is said once the field is left, or
	// typing has paused. So nothing jumps meanwhile.
	const [typing, setTyping] = useState(false);
	// biome-ignore lint/correctness/useExhaustiveDependencies: begins anew with each letter
	useEffect(() => {
		if (!typing) return;
		const timer = setTimeout(() => setTyping(false), unhurried);
		return () => clearTimeout(timer);
	}, [p.value, typing]);
	const error = typing ? undefined : p.error;
	return (
		<Labelled {...p} id={id} error={error}>
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
					setTyping(true);
					p.onChange(e.target.value);
				}}
				onBlur={() => {
					setTyping(false);
					p.onDone?.();
				}}
				onPressEnter={p.onDone}
			/>
		</Labelled>
	);
}

/** How long somebody may be in the middle of typing before what is there counts as meant, ms. */
const unhurried = 1200;

interface LabelledProps {
	id: string;
	label: ReactNode;
	hint?: ReactNode;
	error?: string;
	size?: "large" | "usual";
	offers?: Offer[];
	onOffer?: (offer: Offer) => void;
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
			validateStatus={error ? "error" : undefined}
		>
			{children}
			<div id={`${id}-note`} className="typed-note">
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
