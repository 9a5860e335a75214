import { useLayoutEffect, useRef, useState } from "react";

/** How wide an element is drawn, px, so that a picture in it can keep its letters readable. */
export function useWidth<T extends HTMLElement>(first: number) {
	const ref = useRef<T>(null);
	const [width, setWidth] = useState(first);
	// Before it is painted: a picture of another width would make the page jump.
	useLayoutEffect(() => {
		const element = ref.current;
		if (!element) return;
		const { paddingLeft, paddingRight } = getComputedStyle(element);
		const inside = element.clientWidth - Number.parseFloat(paddingLeft) - Number.parseFloat(paddingRight);
		if (inside > 0) setWidth(Math.round(inside));
		const watch = new ResizeObserver(([entry]) => entry && setWidth(Math.round(entry.contentRect.width)));
		watch.observe(element);
		return () => watch.disconnect();
	}, []);
	return [ref, width] as const;
}
