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
	inputMode?: "text" | "numeric" | "decimal";
	autoFocus?: boolean;
	size?: "large" | "usual";
}

/** A field of the record, typed as people write. */
export function Field({ at, error, blank, ...rest }: FieldProps) {
	const { text, set, wrong, offers, take } = useField(at);
	return (
		<TypedField
			{...rest}
			at={at}
			value={text}
			error={blank ? undefined : (wrong ?? error)}
			offers={wrong && !blank ? offers : undefined}
			onOffer={take}
			onChange={set}
		/>
	);
}

interface ChoiceProps {
	at: string;
	label: string;
	/** What is chosen when nothing was. */
	usual?: string;
	options: Option[];
	quiet?: boolean;
}

/** A field of the record that is one of a few. */
export function ChoiceField({ at, usual = "", ...rest }: ChoiceProps) {
	const { text, set, wrong } = useField(at);
	return <Choice {...rest} at={at} value={text || usual} error={wrong} onChange={set} />;
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
