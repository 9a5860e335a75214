import { useSyncExternalStore } from "react";

/** Whether the window is as a media query says, now and when it changes. */
export function useMedia(query: string): boolean {
	return useSyncExternalStore(
		(changed) => {
			const media = matchMedia(query);
			media.addEventListener("change", changed);
			return () => media.removeEventListener("change", changed);
		},
		() => matchMedia(query).matches,
	);
}
