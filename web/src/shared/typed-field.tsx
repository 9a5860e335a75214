import { WarningFilled } from "@ant-design/icons";
import { Button, Form, Input } from "antd";
import { type ReactNode, useId, useState, useSyncExternalStore } from "react";
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

/** A value as it was before somebody began to type, until typing has paused: for what comes and goes with it. */
export function usePaused<T>(value: T): T {
	const typing = useSyncExternalStore(pace.listen, pace.who);
	const [kept, keep] = useState(value);
	if (typing === "" && kept !== value) keep(value);
	return kept;
}

/** A line to type an amount on, as people write it, with what is wrong beside it. */
export function TypedField(p: Props) {
	const id = useId();
	// Who clears a number to type another is in the middle of it: what is wrong, here or in another field, is said once
	// typing has paused or the field is left. So nothing jumps meanwhile.
	const typing = useSyncExternalStore(pace.listen, pace.who);
	const [shown, setShown] = useState(p.error);
	if (typing === "" && shown !== p.error) setShown(p.error);
	const error = typing === id && shown !== p.error ? undefined : shown;
	return (
		<Labelled {...p} id={id} error={shown} hushed={error === undefined && shown !== undefined}>
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

/** How long somebody may be in the middle of typing before what is there counts as meant, ms. */
const unhurried = 1500;

/** In which field somebody is typing just now, by its id; empty in none. */
const pace = (() => {
	let typing = "";
	let timer: ReturnType<typeof setTimeout> | undefined;
	const listeners = new Set<() => void>();
	const set = (who: string) => {
		clearTimeout(timer);
		if (who !== "") timer = setTimeout(() => set(""), unhurried);
		if (who === typing) return;
		typing = who;
		for (const tell of listeners) tell();
	};
	return {
		type: set,
		rest: () => set(""),
		who: () => typing,
		listen: (tell: () => void) => {
			listeners.add(tell);
			return () => void listeners.delete(tell);
		},
	};
})();

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
