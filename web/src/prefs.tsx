import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import { reader } from "./api/client";
import { type Mode, paint } from "./theme";

/** What the cook thinks in: kept on this screen, not with the cook. */
export interface Prefs {
	units: "metric" | "us";
	spoons: "us" | "metric";
	mode: Mode;
}

const key = "verjuice.prefs";

function load(): Prefs {
	const night = window.matchMedia?.("(prefers-color-scheme: dark)").matches;
	// Where pounds and degrees Fahrenheit are usual, until the cook says otherwise.
	const us = /-(US|LR|MM)\b/.test(navigator.language);
	const usual: Prefs = { units: us ? "us" : "metric", spoons: "us", mode: night ? "night" : "day" };
	try {
		return { ...usual, ...JSON.parse(localStorage.getItem(key) ?? "{}") };
	} catch {
		return usual;
	}
}

const Context = createContext<[Prefs, (change: Partial<Prefs>) => void]>([load(), () => {}]);

/** The preferences and a function that changes some of them. */
export const usePrefs = () => useContext(Context);

export function PrefsProvider({ children }: { children: ReactNode }) {
	const [prefs, setPrefs] = useState(load);
	reader.units = prefs.units;
	useEffect(() => {
		paint(prefs.mode);
		localStorage.setItem(key, JSON.stringify(prefs));
	}, [prefs]);
	const value = useMemo<[Prefs, (change: Partial<Prefs>) => void]>(
		() => [prefs, (change) => setPrefs((old) => ({ ...old, ...change }))],
		[prefs],
	);
	return <Context value={value}>{children}</Context>;
}
