import { WarningFilled } from "@ant-design/icons";
import { Button } from "antd";
import { Link, useParams } from "react-router";
import type { AfterPiece, useWriteDown } from "./use-after";

/** What to do with what is left: until when it has to be cold, how long it keeps, how to warm it. */
export function Leftovers({
	piece: p,
	write,
}: {
	piece: AfterPiece;
	write: ReturnType<typeof useWriteDown>;
}) {
	const { left } = p;
	const { id } = useParams();
	if (!left) return null;
	const done = (what: string) => write.mutate({ kind: "done", what, piece: p.key });
	return (
		<section className="leftovers" aria-label={`What is left of ${p.title}`}>
			<h3>What is left</h3>
			{left.late && (
				<p className="after-caution">
					<WarningFilled aria-hidden /> {left.late}
				</p>
			)}
			<ul>
				{left.lines.map((l) => (
					<li key={l}>{l}</li>
				))}
			</ul>
			<p className="leftovers-acts">
				{left.chilled ? (
					<span>Put to cool {left.chilled}.</span>
				) : (
					<Button onClick={() => done("chill")}>In trays, put to cool now</Button>
				)}
				{left.cold ? (
					<span>Cold {left.cold}.</span>
				) : (
					<Button onClick={() => done("cold")}>It is cold now</Button>
				)}
			</p>
			{!left.late && (
				<p>
					<Link to={`/meals/new?cook=${id}&piece=${p.key}`}>Plan a later meal with it</Link>
				</p>
			)}
			<small className="muted">
				Guidance for home cooks; local food codes and licensed practice come first.
			</small>
		</section>
	);
}
