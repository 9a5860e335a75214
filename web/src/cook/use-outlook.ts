import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, need } from "../api/client";
import { usePrefs } from "../prefs";
import { useInHand } from "./context";
import { useSettled } from "./use-sheet";

/** The forecast of a piece, and of another way beside it; the last one stays while a newer is worked out. */
export function useOutlook(piece: number, compare: string) {
	const { cook, facts, onRecord } = useInHand();
	const [{ units, spoons }] = usePrefs();
	const settled = useSettled(cook, 400);
	return useQuery({
		queryKey: ["outlook", settled, facts, onRecord, piece, compare, units, spoons],
		queryFn: async ({ signal }) =>
			need(
				await api.POST("/api/forecast", {
					params: { query: { units, spoons, ...onRecord } },
					body: { cook: settled, facts, piece, compare },
					signal,
				}),
			),
		placeholderData: keepPreviousData,
		gcTime: 60_000,
		// What is on the fire is read on.
		refetchInterval: ({ state }) => 1000 * (state.data?.again ?? 0) || false,
	});
}
