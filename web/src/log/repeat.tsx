import { useMutation, useQuery } from "@tanstack/react-query";
import { Button, Checkbox } from "antd";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, need } from "../api/client";

/** Cook it again: what this one taught is proposed, each taken or left by one press. */
export function Repeat({ id }: { id: string }) {
	const [left, setLeft] = useState<string[]>([]);
	const navigate = useNavigate();
	const proposed = useQuery({
		queryKey: ["after", id, "proposals"],
		queryFn: async () => need(await api.GET("/api/cooks/{id}/proposals", { params: { path: { id } } })).items,
	});
	const repeat = useMutation({
		mutationFn: async (take: string[]) =>
			need(await api.POST("/api/cooks/{id}/repeat", { params: { path: { id } }, body: { take } })),
		onSuccess: (made) => navigate(`/cooks/${made.id}`),
	});
	const all = proposed.data ?? [];
	return (
		<section className="repeat" aria-label="Cook it again">
			<h2>Cook it again</h2>
			<ul>
				{all.map((p) => (
					<li key={p.id}>
						<Checkbox
							checked={!left.includes(p.id)}
							onChange={(e) =>
								setLeft((l) => (e.target.checked ? l.filter((one) => one !== p.id) : [...l, p.id]))
							}
						>
							{p.text} <small className="muted">{p.why}</small>
						</Checkbox>
					</li>
				))}
			</ul>
			{repeat.error && <p role="alert">{repeat.error.message}</p>}
			<Button
				size="large"
				loading={repeat.isPending}
				onClick={() => repeat.mutate(all.filter((p) => !left.includes(p.id)).map((p) => p.id))}
			>
				{all.length > left.length ? "Cook it again with these changes" : "Cook it again as it was"}
			</Button>
		</section>
	);
}
