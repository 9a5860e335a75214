import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";
import { api, type JarLine, need } from "../api/client";
import { usePrefs } from "../prefs";
import { useUndo } from "../shared/use-undo";
import { usePiece } from "./context";

/** Jars of the piece's rub, and taking what it needs out of one. */
export function FromJar({ index }: { index: number }) {
	const { piece, figures, cook } = usePiece(index);
	const [prefs] = usePrefs();
	const queries = useQueryClient();
	const undo = useUndo();
	const { message } = App.useApp();
	const id = piece.season.formula.id;
	const needed = figures?.season?.to_mix.value ?? 0;
	const jars = useQuery({
		queryKey: ["jars", "of", id, prefs.units, needed],
		enabled: id !== "",
		placeholderData: keepPreviousData,
		queryFn: async () =>
			need(
				await api.GET("/api/jars", {
					params: { query: { formula: id, units: prefs.units, need: needed } },
				}),
			),
	});
	const refresh = () => queries.invalidateQueries({ queryKey: ["jars"] });
	const what = `${cook.name}: ${figures?.title ?? ""}`.slice(0, 110);
	const take = useMutation({
		mutationFn: async (jar: JarLine) =>
			need(
				await api.POST("/api/jars/{id}/draws", {
					params: { path: { id: jar.id } },
					body: { amount: jar.take, for: what, day: "" },
				}),
			),
		onSuccess: (after, jar) => {
			refresh();
			const draw = (after.jar.draws?.length ?? 1) - 1;
			undo(`Taken from the jar; ${after.left} are left.`, async () => {
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
							A jar of it, made {j.made}, holds <b>{j.left}</b>
							{j.over && ", past its use-by"}.
							{taken >= 0 && (
								<>
									{" "}
									<b>{j.taken[taken]}</b> of it were taken for this.
								</>
							)}
						</span>
						{taken < 0 && j.take && (
							<Button loading={take.isPending} onClick={() => take.mutate(j)}>
								{j.short ? `Take all of it, and mix ${j.short} more` : `Take ${j.take} from it`}
							</Button>
						)}
					</p>
				);
			})}
		</>
	);
}
