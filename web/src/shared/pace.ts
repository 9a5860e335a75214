import { useState, useSyncExternalStore } from "react";

/** How long somebody may be in the middle of typing before what is there counts as meant, ms. */
const unhurried = 1500;

/** In which field somebody is typing just now, by its id; empty in none. */
export const pace = (() => {
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

/** A value as it was before somebody began to type, until typing has paused: for what comes and goes with it. */
export function usePaused<T>(value: T): T {
	const typing = useSyncExternalStore(pace.listen, pace.who);
	const [kept, keep] = useState(value);
	if (typing === "" && kept !== value) keep(value);
	return kept;
}

/**
 * What is wrong in the field of this id. Who clears a number to type another is in the middle of it: it is said once
 * typing has paused or the field is left, and keeps its room, hushed, while it is typed anew. So nothing jumps meanwhile.
 */
export function useHushed(id: string, error?: string): { shown?: string; hushed: boolean } {
	const typing = useSyncExternalStore(pace.listen, pace.who);
	const shown = usePaused(error);
	return { shown, hushed: typing === id && shown !== error && shown !== undefined };
}
