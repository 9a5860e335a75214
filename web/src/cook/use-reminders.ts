import { useEffect, useState } from "react";
import type { TaskLine } from "../api/client";
import { now } from "../shared/clock";

const key = "verjuice.reminders";
const ahead = 10 * 60_000;
const day = 24 * 3600_000;

/** Reminders of what is to do within a day, ten minutes before it, while a page is open. */
export function useReminders(tasks: TaskLine[]) {
	const [on, setOn] = useState(
		() =>
			localStorage.getItem(key) === "on" && "Notification" in window && Notification.permission === "granted",
	);
	const [says, setSays] = useState("");
	useEffect(() => {
		localStorage.setItem(key, on ? "on" : "off");
		if (!on) return;
		const present = now();
		if (!present) return;
		const timers = tasks
			.filter((t) => !t.done)
			.map((t) => ({ t, wait: Date.parse(t.at) - ahead - present }))
			.filter(({ wait }) => wait > 0 && wait < day)
			.map(({ t, wait }) =>
				setTimeout(() => new Notification(`${t.time} ${t.label}`, { body: t.note, tag: t.id }), wait),
			);
		return () => timers.forEach(clearTimeout);
	}, [on, tasks]);
	const toggle = async () => {
		if (on) {
			setOn(false);
			setSays("");
			return;
		}
		const allowed = "Notification" in window && (await Notification.requestPermission()) === "granted";
		setOn(allowed);
		setSays(
			allowed
				? "Ten minutes before each, as long as this page is open."
				: "This browser does not allow reminders here. The calendar has them too.",
		);
	};
	return { on, toggle, says };
}
