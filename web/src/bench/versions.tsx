import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { api, type Formula, need } from "../api/client";

/** What was changed when; any version can be taken up again. */
export function Versions({ id, onTake }: { id: string; onTake: (old: Formula) => void }) {
	const list = useQuery({
		queryKey: ["versions", id],
		queryFn: async () =>
			need(await api.GET("/api/formulas/{id}/versions", { params: { path: { id } } })).items,
	});
	if (!list.data || list.data.length === 0) return null;
	return (
		<section className="versions">
			<h3>Versions</h3>
			<ol>
				{list.data.map((v, i) => (
					<li key={v.version}>
						<b>{v.version}</b>
						<div>
							<time dateTime={v.saved}>
								{new Date(v.saved).toLocaleDateString(undefined, { day: "numeric", month: "short" })}
							</time>
							<p>{v.changes.join("; ")}</p>
						</div>
						{i > 0 && (
							<Button size="small" onClick={() => onTake(v.formula as Formula)}>
								Use this version
							</Button>
						)}
					</li>
				))}
			</ol>
		</section>
	);
}
