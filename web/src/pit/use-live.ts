import { useEffect, useState } from "react";
import type { components } from "../api/schema";
import { usePrefs } from "../prefs";
import { keepLast, last } from "./outbox";

export type Live = components["schemas"]["LiveSheet"];
export type LivePiece = Live["pieces"][number];
export type Press = LivePiece["done"][number];

/** How a cook stands, and when that came, by this device's own stopwatch. */
export interface Standing {
	live: Live;
	came: number;
}

const again = 2_000;

/** How a cook stands at the pit, as it changes. It goes on by itself after the program was away. */
export function useLive(cook: string) {
	const [{ units, spoons }] = usePrefs();
	const [standing, setStanding] = useState<Standing>();
	const [away, setAway] = useState("");
	useEffect(() => {
		let source: EventSource | undefined;
		let timer: ReturnType<typeof setTimeout> | undefined;
		let ended = false;
		const key = `${cook} ${units}`;
		void last<{ live: Live; wall: number }>(key).then((was) => {
			if (!was || ended) return;
			// How long ago that was is all that this device's own clock is asked.
			const came = performance.now() - Math.max(0, Date.now() - was.wall);
			setStanding((now) => now ?? { live: was.live, came });
		});
		const open = () => {
			source = new EventSource(`/api/cooks/${cook}/live/stream?units=${units}&spoons=${spoons}`);
			source.addEventListener("live", (e) => {
				const live: Live = JSON.parse(e.data);
				setStanding({ live, came: performance.now() });
				setAway("");
				void keepLast(key, { live, wall: Date.now() });
			});
			source.addEventListener("gone", (e) => setAway(JSON.parse(e.data).detail));
			source.addEventListener("error", () => {
				setAway("Verjuice is not responding. What you press is kept on this phone and sent when it is back.");
				if (source?.readyState === EventSource.CLOSED && !ended) timer = setTimeout(open, again);
			});
		};
		open();
		return () => {
			ended = true;
			clearTimeout(timer);
			source?.close();
		};
	}, [cook, units, spoons]);
	return { standing, away };
}

/** The cook's clock now, ms since 1970. */
export const clockOf = ({ live, came }: Standing) =>
	Date.parse(live.now) + (performance.now() - came) * live.speed;

/** The same as local time of the cook-out, YYYY-MM-DDTHH:MM, whatever the zone of this device. */
export const localOf = (standing: Standing) =>
	new Date(clockOf(standing))
		.toLocaleString("sv", { timeZone: standing.live.zone || undefined })
		.replace(" ", "T")
		.slice(0, 16);
