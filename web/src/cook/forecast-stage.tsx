import { Button } from "antd";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Outlook } from "../api/client";
import { Field } from "../record/field";
import { put } from "../record/pointer";
import { Choices } from "./choices";
import { usePiece } from "./context";
import { Fan } from "./fan";
import { useOutlook } from "./use-outlook";
import "./forecast-stage.css";

/** Before the fire: how the core will go, how sure that is, and what other ways there are. */
export function ForecastStage({ index }: { index: number }) {
	const { figures, at, cook, change, undoable } = usePiece(index);
	const { id } = useParams();
	const [compare, setCompare] = useState("");
	const { data, error, isPlaceholderData } = useOutlook(index, compare);
	const title = figures?.title ?? "";
	if (!data) {
		return (
			<>
				<h2>Forecast: {title}</h2>
				<p className="says forecast-wait">{error ? error.message : "Working it out…"}</p>
			</>
		);
	}
	if (data.title === "") {
		return (
			<>
				<h2>Forecast: {title}</h2>
				<p className="says">
					The weight, the pit and the times of this piece have to be right first. Fix the fields marked in
					red, or give its weight on <Link to={`/cooks/${id}/piece/${index + 1}`}>Piece and trim</Link>.
				</p>
			</>
		);
	}
	const take: WaysProps["take"] = (label, edits) => {
		const back = change((c) => {
			let next = c;
			for (const e of edits) next = put(next, e.pointer, e.value);
			Object.assign(c, next);
		});
		setCompare("");
		undoable(`Changed: ${label}.`, back);
	};
	return (
		<div className={isPlaceholderData ? "forecast forecast-late" : "forecast"}>
			<h2>Forecast: {data.title}</h2>
			<div className="forecast-main">
				<div className="amounts forecast-heads">
					{data.heads.map((h) => (
						<div key={h.note}>
							<p className="forecast-big">
								{h.text}
								{h.unit && <small> {h.unit}</small>}
							</p>
							<p>{h.note}</p>
						</div>
					))}
				</div>
				<div className="forecast-graph">
					<Fan outlook={data} zone={cook.zone} />
				</div>
				<div className="forecast-words">
					<section>
						<h3>What it says</h3>
						<ul>
							{data.says.map((s) => (
								<li key={s}>{s}</li>
							))}
							<li>{data.rest_text}</li>
						</ul>
					</section>
					<section>
						<h3>Done when</h3>
						<dl>
							<dt>core</dt>
							<dd>{data.doneness.core}</dd>
							<dt>feel</dt>
							<dd>{data.doneness.feel}</dd>
							<dt>look</dt>
							<dd>{data.doneness.look}</dd>
						</dl>
					</section>
					<section>
						<h3>When the core gets there</h3>
						<table>
							<thead>
								<tr>
									<th>core</th>
									<th>after</th>
									<th>likely</th>
									<th>clock</th>
								</tr>
							</thead>
							<tbody>
								{data.reaches.map((r) => (
									<tr key={r.core}>
										<th scope="row">{r.core}</th>
										<td>{r.after}</td>
										<td>{r.range}</td>
										<td>{r.clock}</td>
									</tr>
								))}
							</tbody>
						</table>
					</section>
					<section>
						<h3>Your own rule</h3>
						<Field label="You think it takes" at={at("fire/guess")} usual="8 h, or 1 h/lb" />
						<ul className="forecast-rules">
							{data.rules.map((r) => (
								<li key={r.label}>
									<b>
										{r.label}: {r.says}
									</b>
									<span>{r.why}</span>
								</li>
							))}
						</ul>
					</section>
				</div>
				<aside>
					<h3>What would narrow this</h3>
					<ul className="forecast-list">
						{data.narrows.map((n) => (
							<li key={n.what}>
								<span>
									{n.stage ? (
										<Link to={`/cooks/${id}/${n.stage}${n.stage === "plan" ? "" : `/${index + 1}`}`}>
											{n.label}
										</Link>
									) : (
										n.label
									)}
								</span>
								<b>{n.less}</b>
							</li>
						))}
					</ul>
					<h3>Same supper, another way</h3>
					<Ways ways={data.ways.filter((w) => w.edits.length > 0)} {...{ compare, setCompare, take }} />
					<h3>What if</h3>
					<Ways ways={data.ways.filter((w) => w.edits.length === 0)} {...{ compare, setCompare, take }} />
				</aside>
			</div>
			<h3>Tell it more</h3>
			<Choices index={index} stage="forecast" />
		</div>
	);
}

interface WaysProps {
	ways: Outlook["ways"];
	compare: string;
	setCompare: (id: string) => void;
	take: (label: string, edits: Outlook["ways"][number]["edits"]) => void;
}

/** Other ways, each with what it changes: pressed, one is drawn beside this one, and can be taken. */
function Ways({ ways, compare, setCompare, take }: WaysProps) {
	return (
		<ul className="forecast-list">
			{ways.map((w) => (
				<li key={w.id} className={w.id === compare ? "forecast-compared" : undefined}>
					<button
						type="button"
						aria-pressed={w.id === compare}
						onClick={() => setCompare(w.id === compare ? "" : w.id)}
					>
						<span>
							{w.label}
							<small>{w.note}</small>
						</span>
						<b>{w.differs}</b>
					</button>
					{w.id === compare && w.edits.length > 0 && (
						<Button type="primary" onClick={() => take(w.label, w.edits)}>
							Cook it so
						</Button>
					)}
				</li>
			))}
		</ul>
	);
}
