import { useCallback, useEffect, useState } from "react";
import { api } from "../api/client";

export interface Reading {
	grams: number;
	stable: boolean;
	overload: boolean;
}

/** What the scale shows, live; none while it cannot be reached. */
export function useScale() {
	const [reading, setReading] = useState<Reading>();
	useEffect(() => {
		const source = new EventSource("/api/scale");
		source.addEventListener("reading", (e) => setReading(JSON.parse(e.data)));
		source.addEventListener("error", () => setReading(undefined));
		return () => source.close();
	}, []);
	return {
		reading,
		tare: useCallback(() => void api.POST("/api/scale/tare"), []),
		clear: useCallback(() => void api.POST("/api/scale/clear"), []),
		put: useCallback((grams: number) => void api.POST("/api/scale/put", { body: { grams } }), []),
	};
}
