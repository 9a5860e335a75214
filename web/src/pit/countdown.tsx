import { useEffect, useState } from "react";
import { clockOf, type Standing } from "./use-live";

const minute = 60_000;

/** How long until a moment, in words that are read at a glance; ticking. */
export function Countdown({ standing, at }: { standing: Standing; at: string }) {
	const [, tick] = useState(0);
	useEffect(() => {
		const timer = setInterval(() => tick((n) => n + 1), 1_000);
		return () => clearInterval(timer);
	}, []);
	const left = Date.parse(at) - clockOf(standing);
	const minutes = Math.ceil(Math.abs(left) / minute);
	if (left <= 0) return <>{minutes <= 1 ? "now" : "due"}</>;
	if (minutes < 60) return <>{minutes} min</>;
	const rest = minutes % 60;
	return (
		<>
			{Math.floor(minutes / 60)} h{rest ? ` ${String(rest).padStart(2, "0")}` : ""}
		</>
	);
}

/** The cook's clock as a time of day, ticking. */
export function Clock({ standing }: { standing: Standing }) {
	const [, tick] = useState(0);
	useEffect(() => {
		const timer = setInterval(() => tick((n) => n + 1), 1_000);
		return () => clearInterval(timer);
	}, []);
	const text = new Intl.DateTimeFormat("en-GB", {
		timeZone: standing.live.zone || "UTC",
		hour: "2-digit",
		minute: "2-digit",
	}).format(clockOf(standing));
	return <time>{text}</time>;
}
