import { CheckOutlined, WarningFilled } from "@ant-design/icons";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { useEffect, useState } from "react";
import { ApiError, api, need } from "../api/client";
import { usePrefs } from "../prefs";
import { usePiece } from "./context";
import { useScale } from "./use-scale";
import "./weigh-stage.css";

/** Where it is kept that this screen practises with the pretend scale. */
const pretends = "verjuice.pretend-scale";

/** Weigh-out: one ingredient at a time with the scale, and what was really weighed kept. */
export function WeighStage({ index }: { index: number }) {
	const { piece, figures, edit, wrong, goto } = usePiece(index);
	const rows = figures?.season?.rows ?? [];
	const targets = rows.map((r) => r.mass.value);
	const [weighed, setWeighed] = useState<number[]>(() => (piece.weighed ?? []).map(Number));
	const [rescale, setRescale] = useState(false);
	const [typed, setTyped] = useState("");
	const [{ units }] = usePrefs();
	const asked = JSON.stringify({ targets, weighed, rescale });
	const stand = useQuery({
		queryKey: ["weighing", asked, units],
		enabled: targets.length > 0,
		placeholderData: keepPreviousData,
		queryFn: async () =>
			need(await api.POST("/api/calc/weighing", { params: { query: { units } }, body: JSON.parse(asked) })),
	}).data;
	const [refused, setRefused] = useState("");
	const unit = stand?.shown ?? { name: "g", grams: 1, decimals: 1, pour: [] };
	const at = stand?.next ?? 0;
	const step = stand?.steps[at];
	const row = rows[at];
	const done = stand !== undefined && at >= stand.steps.length;
	const [pretend, setPretend] = useState(() => localStorage.getItem(pretends) === "yes");
	const scale = useScale(pretend, step?.target ?? 0, step?.weighed ?? 0, units);

	const connect = (on: boolean) => {
		localStorage.setItem(pretends, on ? "yes" : "no");
		setPretend(on);
	};

	/** Has the weigh-out with something put to what is next, or taken out of it. */
	const change = async (how: { put: number } | { level: boolean }) => {
		const body = { targets, weighed, rescale, ...how };
		const now = need(await api.POST("/api/calc/weighing", { params: { query: { units } }, body }));
		setWeighed(now.weighed);
	};
	const keep = async (grams: number) => {
		await change({ put: grams });
		setTyped("");
		scale.tare();
	};
	/** Keeps what was typed, in any unit. */
	const read = async (text: string) => {
		try {
			const { grams } = need(
				await api.POST("/api/calc/weight", { params: { query: { units } }, body: { typed: text } }),
			);
			await keep(grams);
		} catch (e) {
			setRefused(e instanceof ApiError ? (e.problem?.errors?.[0]?.message ?? e.message) : String(e));
		}
	};
	// All weighed: it is saved, and the salt column counts it.
	const finished = done ? JSON.stringify(weighed) : "";
	// biome-ignore lint/correctness/useExhaustiveDependencies: kept once, when the last one is weighed
	useEffect(() => {
		if (finished) {
			edit((p) => {
				p.weighed = (JSON.parse(finished) as number[]).map(String);
			});
		}
	}, [finished]);

	if (wrong("weighed")) {
		return (
			<>
				<h2>Weigh it out</h2>
				<p className="typed-error">
					<WarningFilled aria-hidden /> {wrong("weighed")}
				</p>
				<Button
					type="primary"
					size="large"
					onClick={() => {
						setWeighed([]);
						edit((p) => {
							p.weighed = undefined;
						});
					}}
				>
					Weigh it again
				</Button>
			</>
		);
	}
	if (!stand || rows.length === 0)
		return <p className="says">There is nothing to weigh until the mix can be worked out.</p>;
	if (done) {
		return (
			<>
				<h2>All weighed</h2>
				<p className="weigh-says">
					<CheckOutlined aria-hidden /> {stand.message}
				</p>
				<p className="says">{stand.counted}</p>
				<div className="weigh-actions">
					<Button
						size="large"
						onClick={() => {
							setWeighed([]);
							setRescale(false);
							edit((p) => {
								p.weighed = undefined;
							});
						}}
					>
						Weigh it again
					</Button>
					<Button type="primary" size="large" autoFocus onClick={() => goto("wait", index)}>
						On to the wait
					</Button>
				</div>
				<Done rows={rows} steps={stand.steps} stands={stand.stands} at={at} />
			</>
		);
	}
	const over = stand.over >= 0;
	const left = Math.max(0, (step?.target ?? 0) - (step?.weighed ?? 0));
	const { reading } = scale;
	return (
		<>
			<h2>
				{at + 1} of {rows.length}: {row?.name} <span className="muted">{row?.form}</span>
			</h2>
			<div className="weigh">
				<div>
					<p className="muted">weigh</p>
					<p className="weigh-target">
						{stand.target}
						<small> {unit.name}</small>
					</p>
					<p className="muted">{row?.spoons.text}</p>
				</div>
				{pretend && (
					<div>
						<p className="muted">{reading?.how ?? "no scale"}</p>
						<p className={`weigh-live weigh-${reading?.state ?? "under"}`} aria-live="off">
							{reading?.shows ?? "–"}
							<small> {unit.name}</small>
						</p>
						<p className="muted">{reading?.says}</p>
					</div>
				)}
			</div>
			{pretend && (
				<div
					className="weigh-bar"
					role="img"
					aria-label={`${reading?.shows ?? "–"} of ${stand.target} ${unit.name}`}
				>
					<span className="weigh-fill" style={{ width: `${Math.min(100, (reading?.share ?? 0) * 80)}%` }} />
					<span className="weigh-goal" />
				</div>
			)}
			{over && step ? (
				<div role="alert">
					<p className="typed-error">
						<WarningFilled aria-hidden /> {stand.message}
					</p>
					<div className="weigh-actions">
						<Button size="large" onClick={() => change({ level: true })}>
							I took it out
						</Button>
						{stand.grows > 0 && (
							<Button type="primary" size="large" onClick={() => setRescale(true)}>
								Make the batch bigger
							</Button>
						)}
					</div>
				</div>
			) : (
				<>
					{stand.message && <p className="says">{stand.message}</p>}
					<div className="weigh-actions">
						{pretend ? (
							<>
								<Button
									type="primary"
									size="large"
									disabled={!reading || reading.grams <= 0 || !reading.stable}
									onClick={() => keep(reading?.grams ?? 0)}
								>
									Take this and go on
								</Button>
								<Button size="large" onClick={scale.tare}>
									Tare
								</Button>
							</>
						) : (
							<Button type="primary" size="large" onClick={() => keep(left)}>
								{stand.target} {unit.name} are in
							</Button>
						)}
						<form
							onSubmit={(e) => {
								e.preventDefault();
								if (typed.trim()) read(typed);
								else if (!pretend) keep(left);
							}}
						>
							<Input
								variant="underlined"
								aria-label="Or type what it weighs"
								autoFocus={!pretend}
								placeholder={unit.name === "g" ? "or type the grams" : "or type it: 1.2 oz"}
								status={refused ? "error" : undefined}
								aria-invalid={Boolean(refused)}
								value={typed}
								maxLength={12}
								onChange={(e) => {
									setTyped(e.target.value);
									setRefused("");
								}}
							/>
							<Button htmlType="submit" disabled={pretend && typed.trim() === ""}>
								Keep
							</Button>
							{refused && (
								<p className="typed-error" role="alert">
									<WarningFilled aria-hidden /> {refused}
								</p>
							)}
						</form>
					</div>
					{pretend ? (
						<fieldset className="weigh-simulated">
							<legend>The pretend scale: pour</legend>
							<p className="says">Each program that runs has one of its own; it is not shared.</p>
							{unit.pour.map((n) => (
								<Button key={n} onClick={() => scale.put(n * unit.grams)}>
									+{n} {unit.name}
								</Button>
							))}
							<Button onClick={() => scale.put(-2 * (unit.pour[0] ?? 0.5) * unit.grams)}>
								−{2 * (unit.pour[0] ?? 0.5)} {unit.name}
							</Button>
							<Button onClick={scale.clear}>clear it</Button>
							<Button onClick={() => connect(false)}>put it away</Button>
						</fieldset>
					) : (
						<details className="weigh-connect">
							<summary>Connect a scale</summary>
							<p className="says">
								No scale that talks to this program is known yet: weigh on your own, and press or type what is
								in.
							</p>
							<Button onClick={() => connect(true)}>Practise with a pretend one</Button>
						</details>
					)}
				</>
			)}
			<Done rows={rows} steps={stand.steps} stands={stand.stands} at={at} />
		</>
	);
}

interface DoneProps {
	rows: { name: string }[];
	steps: { state: string }[];
	/** How each stands, in words. */
	stands: string[];
	at: number;
}

/** The whole list, each with what was weighed. */
function Done({ rows, steps, stands, at }: DoneProps) {
	return (
		<ol className="weigh-list">
			{steps.map((s, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: rows are told apart by their place
				<li key={i} className={i === at ? "weigh-now" : undefined}>
					<span>
						{s.state === "done" && <CheckOutlined aria-label="done" />} {rows[i]?.name}
					</span>
					<span>{stands[i]}</span>
				</li>
			))}
		</ol>
	);
}
