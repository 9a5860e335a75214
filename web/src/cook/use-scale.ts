import { useCallback, useEffect, useState } from "react";
import { api } from "../api/client";
import type { components } from "../api/schema";

export type OnScale = components["schemas"]["OnScale"];

/** What the scale shows beside what is wanted, live; none while there is none, or it cannot be reached. */
export function useScale(on: boolean, target: number, weighed: number, units: string) {
	const [reading, setReading] = useState<OnScale>();
	useEffect(() => {
		if (!on) {
			setReading(undefined);
			return;
		}
		const source = new EventSource(`/api/scale?target=${target}&weighed=${weighed}&units=${units}`);
		source.addEventListener("reading", (e) => setReading(JSON.parse(e.data)));
		source.addEventListener("error", () => setReading(undefined));
		return () => source.close();
	}, [on, target, weighed, units]);
	return {
		reading,
		tare: useCallback(() => {
			if (on) void api.POST("/api/scale/tare");
		}, [on]),
		clear: useCallback(() => void api.POST("/api/scale/clear"), []),
		put: useCallback((grams: number) => void api.POST("/api/scale/put", { body: { grams } }), []),
	};
}
