import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { api, need } from "../api/client";
import type { components } from "../api/schema";
import { useMessage } from "../shared/messages";
import { Nothing, Unread } from "../shared/nothing";
import "./find.css";

type Binned = components["schemas"]["Binned"];

/** What each kind is called, and by what address in the API it comes back. */
const kinds: Record<Binned["kind"], { says: string; shelf: string }> = {
	cook: { says: "cook-out", shelf: "cooks" },
	formula: { says: "formula", shelf: "formulas" },
	ingredient: { says: "ingredient", shelf: "ingredients" },
	jar: { says: "jar", shelf: "jars" },
	meal: { says: "later meal", shelf: "meals" },
	pit: { says: "pit", shelf: "pits" },
	method: { says: "method", shelf: "methods" },
};

/** What was deleted lately, each with the button that brings it back. */
export default function BinPage() {
	const queries = useQueryClient();
	const message = useMessage();
	const list = useQuery({ queryKey: ["bin"], queryFn: async () => need(await api.GET("/api/bin")).items });
	const restore = useMutation({
		mutationFn: async (b: Binned) => {
			// The addresses of all shelves are alike.
			const back = `/api/${kinds[b.kind].shelf}/{id}/restore` as "/api/cooks/{id}/restore";
			return need(await api.POST(back, { params: { path: { id: b.id } } }));
		},
		onSuccess: (_, b) => {
			void message.success(`${b.name || "It"} is back.`);
			void queries.invalidateQueries();
		},
		onError: (e: Error) => void message.error(e.message),
	});
	if (list.isError) return <Unread title="The bin cannot be read" error={list.error} again={list.refetch} />;
	if (list.data?.length === 0) {
		return (
			<Nothing title="The bin is empty">
				<p>What you delete, cook-outs, formulas, jars, meals, can be brought back from here for 30 days.</p>
			</Nothing>
		);
	}
	return (
		<>
			<div className="list-head">
				<h1>Bin</h1>
			</div>
			<p className="says">What was deleted in the last 30 days. Bring anything back as it was.</p>
			<ul className="find-lines bin-lines" aria-label="Deleted">
				{list.data?.map((b) => (
					<li key={b.id}>
						<span>
							<b>{b.name || "Without a name"}</b>{" "}
							<span className="muted">
								{kinds[b.kind].says}, deleted {b.deleted}
							</span>
						</span>
						<Button
							size="large"
							aria-label={`Bring back ${b.name}`}
							loading={restore.isPending && restore.variables?.id === b.id}
							onClick={() => restore.mutate(b)}
						>
							Bring back
						</Button>
					</li>
				))}
			</ul>
		</>
	);
}
