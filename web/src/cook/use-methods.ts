import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need, type Piece } from "../api/client";

/** The methods that were kept, putting one there, and cooking a piece by one. */
export function useMethods() {
	const queries = useQueryClient();
	const list = useQuery({
		queryKey: ["methods"],
		queryFn: async () => need(await api.GET("/api/methods")).items,
	});
	return {
		list: list.data ?? [],
		/** Keeps how a piece is cooked under a name. */
		keep: async (name: string, piece: Piece) => {
			const method = need(
				await api.POST("/api/new/method", { params: { query: { name } }, body: piece as never }),
			);
			need(await api.POST("/api/methods", { body: method }));
			await queries.invalidateQueries({ queryKey: ["methods"] });
		},
		/** The piece, cooked by a method. */
		on: async (method: string, piece: Piece): Promise<Piece> =>
			need(
				await api.POST("/api/new/with-method", { params: { query: { method } }, body: piece as never }),
			) as Piece,
	};
}
