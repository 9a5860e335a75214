import { useSyncExternalStore } from "react";
import { api } from "../api/client";

/**
 * The server's clock. Pages take today and now from here and never from the
 * browser, whose clock may be wrong or in another day.
 */
let known: { server: number; since: number } | undefined;
const listeners = new Set<() => void>();

async function ask() {
	const { data } = await api.GET("/api/clock").catch(() => ({ data: undefined }));
	if (!data) return;
	known = { server: Date.parse(data.now), since: performance.now() };
	announce();
}

function announce() {
	for (const tell of listeners) tell();
}

/** Takes the time that came with the page, and asks again every five minutes and after the page was asleep. */
export function startClock() {
	const came = Date.parse(document.querySelector<HTMLMetaElement>('meta[name="now"]')?.content ?? "");
	if (came) known = { server: came, since: 0 };
	else ask();
	setInterval(ask, 5 * 60_000);
	setInterval(announce, 30_000);
	document.addEventListener("visibilitychange", () => document.visibilityState === "visible" && ask());
}

/** The present moment, ms since 1970; undefined until the server has said. */
export function now(): number | undefined {
	return known && known.server + performance.now() - known.since;
}

function subscribe(tell: () => void) {
	listeners.add(tell);
	return () => listeners.delete(tell);
}

/** The present minute, ms since 1970; undefined until the server has said. */
export function useNow(): number | undefined {
	return useSyncExternalStore(subscribe, () => {
		const at = now();
		return at && Math.floor(at / 60_000) * 60_000;
	});
}

/** The time zone of this browser. */
export const hereZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;
