import type { ReactNode } from "react";
import { Choice, type Option } from "../shared/choice";
import { TypedField } from "../shared/typed-field";
import { useField } from "./use-field";

interface FieldProps {
	/** Where in the record it is, as a JSON pointer. */
	at: string;
	label: ReactNode;
	usual?: string;
	hint?: ReactNode;
	/** What is wrong elsewhere and is shown here. */
	error?: string;
	/** Nothing is wrong yet, whatever is missing. */
	blank?: boolean;
	/** A field that says the same in other words, and is empty once this one is typed. */
	instead?: string;
	inputMode?: "text" | "numeric" | "decimal";
	autoFocus?: boolean;
	size?: "large" | "usual";
}

/** A field of the record, typed as people write. */
export function Field({ at, error, blank, instead, ...rest }: FieldProps) {
	const { text, set, wrong, offers, take } = useField(at);
	const clear = useClearing(instead);
	return (
		<TypedField
			{...rest}
			at={at}
			value={text}
			error={blank ? undefined : (wrong ?? error)}
			offers={wrong && !blank ? offers : undefined}
			onOffer={take}
			onChange={(v) => {
				if (v) clear();
				set(v);
			}}
		/>
	);
}

/** Empties a field of the record, if there is something in it. */
function useClearing(at?: string) {
	const { text, set } = useField(at ?? "/");
	return () => {
		if (at && text) set("");
	};
}

interface ChoiceProps {
	at: string;
	label: string;
	/** What is chosen when nothing was. */
	usual?: string;
	options: Option[];
	quiet?: boolean;
	/** Show what is chosen alone until the others are asked for. */
	folds?: boolean;
	/** A field that says the same in other words, and is empty once this is chosen. */
	instead?: string;
}

/** A field of the record that is one of a few. */
export function ChoiceField({ at, usual = "", instead, ...rest }: ChoiceProps) {
	const { text, set, wrong } = useField(at);
	const clear = useClearing(instead);
	const choose = (v: string) => {
		clear();
		set(v);
	};
	return <Choice {...rest} at={at} value={text || usual} error={wrong} onChange={choose} />;
}

interface YesNoProps {
	at: string;
	label: string;
	/** What no and yes are called. */
	no: Omit<Option, "value">;
	yes: Omit<Option, "value">;
}

/** A field of the record that is so or not. */
export function YesNoField({ at, label, no, yes }: YesNoProps) {
	const { value, set, wrong } = useField(at);
	return (
		<Choice
			label={label}
			at={at}
			value={value ? "yes" : "no"}
			error={wrong}
			options={[
				{ ...no, value: "no" },
				{ ...yes, value: "yes" },
			]}
			onChange={(v) => set(v === "yes")}
		/>
	);
}
