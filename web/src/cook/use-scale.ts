import { useCallback, useEffect, useState } from "react";
import { api } from "../api/client";
import type { components } from "../api/schema";

export type OnScale = components["schemas"]["OnScale"];

/** What the scale shows beside what is wanted, live; none while it cannot be reached. */
export function useScale(target: number, weighed: number, units: string) {
	const [reading, setReading] = useState<OnScale>();
	useEffect(() => {
		const source = new EventSource(`/api/scale?target=${target}&weighed=${weighed}&units=${units}`);
		source.addEventListener("reading", (e) => setReading(JSON.parse(e.data)));
		source.addEventListener("error", () => setReading(undefined));
		return () => source.close();
	}, [target, weighed, units]);
	return {
		reading,
		tare: useCallback(() => void api.POST("/api/scale/tare"), []),
		clear: useCallback(() => void api.POST("/api/scale/clear"), []),
		put: useCallback((grams: number) => void api.POST("/api/scale/put", { body: { grams } }), []),
	};
}
