import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { api, type JarLine, need } from "../api/client";
import { usePrefs } from "../prefs";
import { useMessage } from "../shared/messages";
import { useUndo } from "../shared/use-undo";
import { uuid } from "../shared/uuid";
import { usePiece } from "./context";

/** Jars of the piece's rub, and taking what it needs out of one. */
export function FromJar({ index }: { index: number }) {
	const { piece, figures, cook } = usePiece(index);
	const [prefs] = usePrefs();
	const queries = useQueryClient();
	const undo = useUndo();
	const message = useMessage();
	const needed = figures?.season?.to_mix.value ?? 0;
	const mix = JSON.stringify(piece.season.formula);
	const jars = useQuery({
		queryKey: ["jars", "of", mix, prefs.units, prefs.spoons, needed],
		enabled: figures?.season?.in_jar ?? false,
		placeholderData: keepPreviousData,
		queryFn: async () =>
			need(
				await api.POST("/api/jars/of", {
					params: { query: { units: prefs.units, spoons: prefs.spoons, need: needed } },
					body: JSON.parse(mix),
				}),
			).items,
	});
	const refresh = () => queries.invalidateQueries({ queryKey: ["jars"] });
	// What a draw is for, by which it is found again.
	const what = `${cook.name}: ${figures?.title ?? ""}`.substring(0, 110);
	const take = useMutation({
		mutationFn: async (jar: JarLine) =>
			need(
				await api.POST("/api/jars/{id}/draws", {
					params: { path: { id: jar.id } },
					body: { id: uuid(), amount: jar.take, for: what, day: "" },
				}),
			),
		onSuccess: (after, jar) => {
			refresh();
			const draw = after.jar.draws?.at(-1)?.id ?? "";
			undo(after.summary, async () => {
				await api.DELETE("/api/jars/{id}/draws/{draw}", { params: { path: { id: jar.id, draw } } });
				refresh();
			});
		},
		onError: (e) => message.error(e.message),
	});
	const full = (jars.data ?? []).filter(
		(j) => j.left_grams > 0.05 || j.jar.draws?.some((d) => d.for === what),
	);
	return (
		<>
			{full.map((j) => {
				const taken = j.jar.draws?.findLastIndex((d) => d.for === what) ?? -1;
				return (
					<p key={j.id} className="says from-jar">
						<span>
							{j.summary} {taken >= 0 && <b>Taken for this piece: {j.taken[taken]}.</b>}
						</span>
						{taken < 0 && j.take && (
							<Button loading={take.isPending} onClick={() => take.mutate(j)}>
								{j.take_label}
							</Button>
						)}
					</p>
				);
			})}
		</>
	);
}
