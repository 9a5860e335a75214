import { useEffect, useRef } from "react";

/** Keys that do something wherever no letter is typed, as Help lists them. */
export const keys = [
	{ key: "/", does: "Search everywhere" },
	{ key: "]", does: "The next stage of the cook-out" },
	{ key: "[", does: "The stage before" },
	{ key: "w", does: "Weigh out the rub of this piece" },
	{ key: "?", does: "This list" },
] as const;

type Key = (typeof keys)[number]["key"];

/** Calls what belongs to a key, unless somebody types. */
export function useKeys(does: Partial<Record<Key, () => void>>) {
	const now = useRef(does);
	useEffect(() => {
		now.current = does;
	});
	useEffect(() => {
		const pressed = (e: KeyboardEvent) => {
			const at = e.target as HTMLElement;
			if (e.ctrlKey || e.metaKey || e.altKey || e.isComposing || e.defaultPrevented) return;
			if (
				at.closest(
					"input, textarea, select, [contenteditable], [role=combobox], [role=slider], [role=dialog]",
				)
			)
				return;
			const act = now.current[e.key as Key];
			if (!act) return;
			e.preventDefault();
			act();
		};
		document.addEventListener("keydown", pressed);
		return () => document.removeEventListener("keydown", pressed);
	}, []);
}
