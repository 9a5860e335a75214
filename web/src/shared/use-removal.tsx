import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, etag, need } from "../api/client";
import { useMessage } from "./messages";
import { useUndo } from "./use-undo";

/** What can be taken off its list, by its address in the API. */
type Shelf = "cooks" | "formulas" | "ingredients" | "jars" | "meals";

/** Takes records off a list, each with a button that brings it back; lists are what to read again. */
export function useRemoval(shelf: Shelf, lists: string[]) {
	const queries = useQueryClient();
	const undo = useUndo();
	const message = useMessage();
	const refresh = () => {
		for (const list of lists) queries.invalidateQueries({ queryKey: [list] });
	};
	const onError = (e: Error) => void message.error(e.message);
	// The addresses of all shelves are alike.
	const one = `/api/${shelf}/{id}` as "/api/cooks/{id}";
	const back = `/api/${shelf}/{id}/restore` as "/api/cooks/{id}/restore";
	const restore = useMutation({
		mutationFn: async (id: string) => need(await api.POST(back, { params: { path: { id } } })),
		onSuccess: refresh,
		onError,
	});
	const remove = useMutation({
		mutationFn: async ({ id, version }: { id: string; version: number; said: string }) => {
			const header = { "If-Match": etag(version) };
			const { error, response } = await api.DELETE(one, { params: { path: { id }, header } });
			if (error) need({ error, response });
		},
		onSuccess: (_, { id, said }) => {
			refresh();
			undo(said, () => restore.mutate(id));
		},
		onError,
	});
	return { refresh, onError, remove: remove.mutate };
}
