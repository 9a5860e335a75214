import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import { usePrefs } from "../prefs";
import type { Live } from "./use-live";
import "./debrief.css";

/** After a practice: what was hidden, beside what was decided, and what it cost. */
export function Debrief({ cook, live }: { cook: string; live: Live }) {
	const [{ units, spoons }] = usePrefs();
	const over =
		live.pieces.length > 0 && live.pieces.every((p) => p.state === "resting" || p.state === "done");
	const { data } = useQuery({
		queryKey: ["practised", cook, units, spoons, live.pieces.map((p) => p.state)],
		enabled: over,
		queryFn: async () => {
			const params = { path: { id: cook }, query: { units, spoons } };
			return (await api.GET("/api/cooks/{id}/practise", { params })).data;
		},
	});
	if (!over || !data || data.pieces.length === 0) return null;
	return (
		<section className="debrief" aria-label="What was true">
			<h2>What was true</h2>
			{data.pieces.map((p) => (
				<article key={p.key}>
					{data.pieces.length > 1 && <h3>{live.pieces.find((l) => l.key === p.key)?.title}</h3>}
					<p>{p.did}</p>
					<ul>
						{p.hidden.map((h) => (
							<li key={h}>{h}</li>
						))}
					</ul>
					<table>
						<caption>What other decisions would have come to</caption>
						<tbody>
							{p.ways.map((w) => (
								<tr key={w.label}>
									<th scope="row">{w.label}</th>
									<td>{w.time}</td>
									<td>{w.cost}</td>
								</tr>
							))}
						</tbody>
					</table>
				</article>
			))}
		</section>
	);
}
