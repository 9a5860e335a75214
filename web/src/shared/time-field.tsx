import { Button, DatePicker } from "antd";
import british from "antd/es/date-picker/locale/en_GB";
import dayjs from "dayjs";
import "dayjs/locale/en-gb";
import { type ReactNode, useId } from "react";
import { now } from "./clock";
import { Labelled } from "./typed-field";

/** How times are kept, and how they are shown everywhere. */
const kept = "YYYY-MM-DDTHH:mm";
export const shownAs = "ddd D MMM YYYY, HH:mm";
const keptDay = "YYYY-MM-DD";
const shownDay = "ddd D MMM YYYY";

interface PickProps {
	id?: string;
	name: string;
	value: string;
	onChange: (at: string) => void;
	/** Called when the picker is shut. */
	onShut?: () => void;
	autoFocus?: boolean;
	at?: string;
	note?: string;
	wrong?: boolean;
	/** A day alone, without its time. */
	day?: boolean;
}

/** A day and a time of it, picked or typed. */
export function PickTime(p: PickProps) {
	const today = now();
	const as = p.day ? keptDay : kept;
	return (
		<DatePicker
			id={p.id}
			locale={british}
			className="pick-time"
			variant="underlined"
			aria-label={p.id ? undefined : p.name}
			aria-describedby={p.note}
			aria-invalid={p.wrong}
			data-at={p.at}
			autoFocus={p.autoFocus}
			defaultOpen={p.autoFocus}
			showTime={p.day ? false : { format: "HH:mm", minuteStep: 5 }}
			showNow={false}
			needConfirm={false}
			allowClear={false}
			renderExtraFooter={() => (
				<Button type="text" onClick={() => p.onChange("")}>
					{p.day ? "No day yet" : "No time yet"}
				</Button>
			)}
			format={
				p.day
					? [shownDay, keptDay, "D.M.YYYY", "D MMM YYYY"]
					: [shownAs, kept, "D.M.YYYY HH:mm", "YYYY-MM-DD HH:mm", "D MMM YYYY HH:mm"]
			}
			placeholder={p.day ? "day" : "day and time"}
			defaultPickerValue={today ? dayjs(today) : undefined}
			value={p.value ? dayjs(p.value, as) : null}
			onChange={(t) => p.onChange(t ? t.format(as) : "")}
			onOpenChange={(open) => !open && p.onShut?.()}
		/>
	);
}

interface Props extends Omit<PickProps, "id" | "name" | "note" | "wrong"> {
	label: string;
	hint?: ReactNode;
	error?: string;
	size?: "large" | "usual";
}

/** A time with its name above it, and under it what is wrong or what it means. */
export function TimeField({ label, hint, error, size, ...rest }: Props) {
	const id = useId();
	return (
		<Labelled id={id} label={label} hint={hint} error={error} size={size}>
			<PickTime {...rest} id={id} name={label} note={`${id}-note`} wrong={Boolean(error)} />
		</Labelled>
	);
}
