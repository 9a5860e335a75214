import { WarningFilled } from "@ant-design/icons";
import { Link, useSearchParams } from "react-router";
import { Nothing, Unread } from "../shared/nothing";
import { Curves } from "./curves";
import { useCompared } from "./use-logbook";
import "./log.css";

/** Some cook-outs on a common clock, and what differed point by point. */
export default function ComparePage() {
	const [query] = useSearchParams();
	const ids = (query.get("cooks") ?? "").split(",").filter(Boolean);
	const { data, error, refetch } = useCompared(ids);
	if (ids.length === 0) {
		return (
			<Nothing title="Nothing to compare yet">
				<Link to="/log">Tick two and more in the logbook</Link>
			</Nothing>
		);
	}
	if (!data) {
		return error ? (
			<Unread title="These cook-outs cannot be compared" error={error} again={refetch} />
		) : (
			<p className="loading">Loading the comparison…</p>
		);
	}
	const rows = (result: boolean) =>
		data.rows
			.filter((r) => r.result === result)
			.map((r) => (
				<tr key={r.label} className={r.differs ? "log-differs" : undefined}>
					<th scope="row">{r.label}</th>
					{r.texts.map((t, i) => (
						<td key={data.cooks[i]?.id}>{t || "–"}</td>
					))}
				</tr>
			));
	return (
		<article className="log-compare">
			<p className="muted">
				<Link to="/log">Logbook</Link>
			</p>
			<h1>Compared</h1>
			{data.unlike && (
				<p className="log-unlike">
					<WarningFilled aria-hidden /> {data.unlike}
				</p>
			)}
			{data.missed.map((m) => (
				<p key={m}>{m}</p>
			))}
			<Curves
				curves={data.cooks.map((c) => ({ id: c.id, label: c.label, read: c.read, off: c.off_h }))}
				axis={data.axis}
				label="Cores from when each went on"
			/>
			<div className="trends-scroll">
				<table>
					<thead>
						<tr>
							<th scope="col">What was done</th>
							{data.cooks.map((c, i) => (
								<th key={c.id} scope="col" className={`curve-key curve-key-${i}`}>
									<Link to={`/cooks/${c.id}/after`}>
										{i + 1} {c.label}
									</Link>
								</th>
							))}
						</tr>
					</thead>
					<tbody>{rows(false)}</tbody>
					<tbody>
						<tr>
							<th scope="rowgroup" colSpan={data.cooks.length + 1} className="log-group">
								What came out
							</th>
						</tr>
						{rows(true)}
					</tbody>
				</table>
			</div>
			<p className="muted">What differs is in bold.</p>
		</article>
	);
}
