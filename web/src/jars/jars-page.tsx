import { DeleteOutlined, WarningFilled } from "@ant-design/icons";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { ApiError, api, type JarLine, need } from "../api/client";
import { BenchNav } from "../bench/bench-nav";
import { usePrefs } from "../prefs";
import { TypedField } from "../shared/typed-field";
import { useRemoval } from "../shared/use-removal";
import { useUndo } from "../shared/use-undo";
import { uuid } from "../shared/uuid";
import { JarPicture } from "./jar-picture";
import "./jars.css";

/** Batches made ahead: what is left of each, and until when it is good. */
export default function JarsPage() {
	const [prefs] = usePrefs();
	const navigate = useNavigate();
	const jars = useQuery({
		queryKey: ["jars", prefs.units, prefs.spoons],
		queryFn: async () =>
			need(await api.GET("/api/jars", { params: { query: { units: prefs.units, spoons: prefs.spoons } } }))
				.items,
	});
	return (
		<>
			<BenchNav />
			<div className="formula-head">
				<h1>Jars</h1>
				<Button type="primary" size="large" onClick={() => navigate("/bench")}>
					New jar: choose its formula
				</Button>
			</div>
			{jars.data?.length === 0 && (
				<p className="says">
					A batch made ahead waits here with its date, what is left, and until when it is good. Open{" "}
					<Link to="/bench">a formula</Link>, say how much to make, and put it in a jar.
				</p>
			)}
			<ul className="jars">
				{jars.data?.map((j) => (
					<Jar key={j.id} jar={j} />
				))}
			</ul>
		</>
	);
}

function Jar({ jar }: { jar: JarLine }) {
	const [amount, setAmount] = useState("");
	const undo = useUndo();
	const { refresh, onError, remove } = useRemoval("jars", ["jars"]);
	const putBack = useMutation({
		mutationFn: async (draw: string) => {
			const { error, response } = await api.DELETE("/api/jars/{id}/draws/{draw}", {
				params: { path: { id: jar.id, draw } },
			});
			if (error) need({ error, response });
		},
		onSuccess: refresh,
		onError,
	});
	const draw = useMutation({
		mutationFn: async () =>
			need(
				await api.POST("/api/jars/{id}/draws", {
					params: { path: { id: jar.id } },
					body: { id: uuid(), amount, for: "", day: "" },
				}),
			),
		onSuccess: (after) => {
			setAmount("");
			refresh();
			undo(`${amount} taken out.`, () => putBack.mutate(after.jar.draws?.at(-1)?.id ?? ""));
		},
	});
	const wrong =
		draw.error instanceof ApiError
			? (draw.error.problem?.errors?.[0]?.message ?? draw.error.message)
			: undefined;
	return (
		<li className="jar-one">
			<JarPicture mix={jar.mix} left={jar.left_share} full={jar.full} />
			<div>
				<h2>{jar.jar.formula.name}</h2>
				<p className="jar-left">{jar.left}</p>
				<p className="muted">
					left of {jar.jar.amount}, {jar.left_spoons}
				</p>
				<p className={jar.over || jar.soon ? "jar-over" : "muted"}>
					{(jar.over || jar.soon) && <WarningFilled aria-hidden />}{" "}
					{jar.over ? "Past its use-by, " : "Use by "}
					{jar.use_by}. Made {jar.made}.
				</p>
				<p className="muted jar-keep">Keep it {jar.keep}.</p>
				<form
					className="jar-draw"
					onSubmit={(e) => {
						e.preventDefault();
						if (amount) draw.mutate();
					}}
				>
					<TypedField
						label="Take out"
						usual="60 g or 3 Tbsp"
						value={amount}
						error={amount ? wrong : undefined}
						onChange={(v) => {
							draw.reset();
							setAmount(v);
						}}
					/>
					<Button htmlType="submit" aria-label={`Take it out of ${jar.jar.formula.name}`} disabled={!amount}>
						Take it
					</Button>
					<Button
						type="text"
						icon={<DeleteOutlined />}
						title="It is empty"
						aria-label={`The jar of ${jar.jar.formula.name} is empty`}
						onClick={() => remove({ ...jar, said: `The jar of ${jar.jar.formula.name} is gone.` })}
					/>
				</form>
				{jar.taken.length > 0 && (
					<details className="jar-taken">
						<summary>taken {jar.taken.length === 1 ? "once" : `${jar.taken.length} times`}</summary>
						<ul>
							{jar.jar.draws?.map((d, i) => (
								<li key={d.id}>
									<b>{jar.taken[i]}</b> {d.for} <span className="muted">{d.day}</span>
									<Button type="text" onClick={() => putBack.mutate(d.id ?? "")}>
										put back
									</Button>
								</li>
							))}
						</ul>
					</details>
				)}
			</div>
		</li>
	);
}
