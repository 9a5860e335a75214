import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, etag, need, type Pit } from "../api/client";
import { same } from "../record/pointer";

/** The pits on record, and putting one there. */
export function usePits() {
	const queries = useQueryClient();
	const list = useQuery({ queryKey: ["pits"], queryFn: async () => need(await api.GET("/api/pits")).items });
	const all = list.data ?? [];
	const of = ({ name, kind, room }: Pit) => ({ name, kind, room });
	return {
		list: all,
		/** A name that no pit has yet. */
		newName: (kind: string) => {
			const taken = (name: string) => all.some((p) => p.doc.name.toLowerCase() === name.toLowerCase());
			let name = kind;
			for (let n = 2; taken(name); n++) name = `${kind} ${n}`;
			return name;
		},
		/** Puts a pit on record as it is typed, and returns its id. */
		keep: async (pit: Pit): Promise<string> => {
			const known = all.find((p) => p.id === pit.id) ?? all.find((p) => p.doc.name === pit.name);
			if (known && same(of(known.doc as Pit), of(pit))) return known.id;
			const kept = known
				? await api.PUT("/api/pits/{id}", {
						params: { path: { id: known.id }, header: { "If-Match": etag(known.version) } },
						body: of(pit),
					})
				: await api.POST("/api/pits", { body: of(pit) });
			await queries.invalidateQueries({ queryKey: ["pits"] });
			return need(kept).id;
		},
	};
}
