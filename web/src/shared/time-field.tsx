import { CalendarOutlined } from "@ant-design/icons";
import { Button, DatePicker, Input } from "antd";
import british from "antd/es/date-picker/locale/en_GB";
import dayjs from "dayjs";
import "dayjs/locale/en-gb";
import { type ReactNode, useId, useRef, useState } from "react";
import { api } from "../api/client";
import { usePrefs } from "../prefs";
import { hereZone, now } from "./clock";
import { Labelled } from "./typed-field";
import { useMedia } from "./use-media";
import "./time-field.css";

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
	/** Called when the field was left. */
	onShut?: () => void;
	autoFocus?: boolean;
	at?: string;
	note?: string;
	wrong?: boolean;
	/** A day alone, without its time. */
	day?: boolean;
	/** It has passed: "Sunday" is the last one. */
	past?: boolean;
	/** A time of day alone is one of this day, while nothing stands here. */
	near?: string;
	/** Time zone of the place; the browser's without one. */
	zone?: string;
	/** Offers some minutes ago instead of a calendar. */
	ago?: boolean;
	/** Takes what cannot be read, too, as it was typed, and says why it cannot; without it that stays in the field. */
	onUnread?: (why: string) => void;
	/** Takes each letter as it is typed: what sends it at once sends that, and the program reads it there. */
	eager?: boolean;
}

/** Where the panel lies on a phone, which has no room for it beside the field. */
const sheet = { position: "fixed", left: 8, right: 8, top: "auto", bottom: 8 } as const;
const agos = ["now", "5 min ago", "15 min ago", "30 min ago"];

/** A time as it is kept, as it is shown; what is no time stays as it was typed. */
function shown(value: string, day?: boolean): string {
	const at = dayjs(value, day ? keptDay : kept, true);
	return at.isValid() ? at.format(day ? shownDay : shownAs) : value;
}

/** A day and a time of it: typed in any form, or picked. */
export function PickTime(p: PickProps) {
	const [{ units }] = usePrefs();
	const [typed, setTyped] = useState<string>();
	const [why, setWhy] = useState("");
	const [open, setOpen] = useState(false);
	const phone = useMedia("(max-width: 479px)");
	const box = useRef<HTMLSpanElement>(null);
	const today = p.near || now();
	const as = p.day ? keptDay : kept;
	const picked = dayjs(p.value, as, true);
	// The last time that stood here: a time of day alone keeps its day.
	const stood = useRef(picked.isValid() ? p.value : "");
	const wrong = (message: string) => (p.onUnread ? p.onUnread(message) : setWhy(message));
	const take = async (said = typed, stays = false) => {
		const text = said?.trim();
		const was = shown(p.value, p.day);
		if (text === "" && was !== "") p.onChange("");
		if (text && (text !== was || !picked.isValid())) {
			const zone = p.zone || hereZone();
			const query = { typed: text, zone, was: stood.current || p.near, past: p.past, day: p.day, units };
			const read = await api.GET("/api/calc/moment", { params: { query } }).catch(() => undefined);
			const message = read?.error?.errors?.[0]?.message;
			if (!read?.data) {
				wrong(message ?? "the program does not answer: try again");
				if (message && p.onUnread) p.onChange(text);
				if (!message || !p.onUnread) return;
			} else {
				wrong("");
				stood.current = read.data.at;
				p.onChange(read.data.at);
			}
		}
		setTyped(undefined);
		if (!stays) p.onShut?.();
	};
	const shut = () => {
		setOpen(false);
		p.onShut?.();
	};
	const pick = (at: string) => {
		setTyped(undefined);
		wrong("");
		stood.current = at;
		p.onChange(at);
	};
	return (
		<span className="pick-time" ref={box}>
			<Input
				id={p.id}
				variant="underlined"
				aria-label={p.id ? undefined : p.name}
				aria-describedby={p.note}
				aria-invalid={p.wrong || why !== ""}
				data-at={p.at}
				autoFocus={p.autoFocus}
				autoComplete="off"
				maxLength={100}
				placeholder={p.day ? "day" : "day and time"}
				value={typed ?? shown(p.value, p.day)}
				onFocus={(e) => p.autoFocus && e.target.select()}
				onChange={(e) => {
					setWhy("");
					setTyped(e.target.value);
					if (p.eager) p.onChange(e.target.value);
				}}
				onBlur={(e) => !open && take(typed, box.current?.contains(e.relatedTarget))}
				onPressEnter={() => take()}
				suffix={
					!p.ago && (
						<Button
							type="text"
							className="pick-open"
							aria-label={`${p.name}: pick it`}
							aria-expanded={open}
							icon={<CalendarOutlined />}
							onClick={() => setOpen(!open)}
						/>
					)
				}
			/>
			{p.ago &&
				agos.map((text) => (
					<Button key={text} size="large" onClick={() => take(text)}>
						{text}
					</Button>
				))}
			{why && (
				<span className="pick-why typed-error" role="alert">
					{why}
				</span>
			)}
			{open && (
				<DatePicker
					locale={british}
					className="pick-panel"
					classNames={{ popup: { root: "pick-popup" } }}
					styles={{ popup: { root: phone ? sheet : {} } }}
					aria-label={`${p.name}, picked`}
					tabIndex={-1}
					inputReadOnly
					open
					showTime={p.day ? false : { format: "HH:mm", minuteStep: 5 }}
					showNow={false}
					needConfirm={false}
					allowClear={false}
					renderExtraFooter={() => (
						<>
							<Button
								type="text"
								onClick={() => {
									pick("");
									shut();
								}}
							>
								{p.day ? "Clear the day" : "Clear the time"}
							</Button>
							<Button type="text" onClick={shut}>
								Close
							</Button>
						</>
					)}
					defaultPickerValue={picked.isValid() ? picked : today ? dayjs(today) : undefined}
					value={picked.isValid() ? picked : null}
					// Each press in the panel counts at once.
					onCalendarChange={(t) => {
						const at = Array.isArray(t) ? t[0] : t;
						if (at) pick(at.format(as));
					}}
					onOpenChange={(to) => !to && shut()}
				/>
			)}
		</span>
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
	const [unread, setUnread] = useState("");
	const wrong = unread || error;
	return (
		<Labelled id={id} label={label} hint={hint} error={wrong} size={size}>
			<PickTime
				{...rest}
				id={id}
				name={label}
				note={`${id}-note`}
				wrong={Boolean(wrong)}
				onUnread={setUnread}
			/>
		</Labelled>
	);
}
