import { PlusOutlined } from "@ant-design/icons";
import { useEffect, useRef } from "react";
import { Link, useParams } from "react-router";
import { useInHand } from "./context";
import "./strip.css";

const hour = 3600_000;

/** Ticks of a ruler between two times, at whole hours of the place's own clock. */
function ticks(from: number, to: number, zone: string) {
	const span = (to - from) / hour;
	const step = span > 80 ? 24 : span > 36 ? 12 : span > 12 ? 6 : 2;
	const format = new Intl.DateTimeFormat("en-GB", {
		timeZone: zone || "UTC",
		weekday: "short",
		hour: "2-digit",
		hourCycle: "h23",
	});
	const out: { at: number; label: string }[] = [];
	for (let t = Math.ceil(from / hour) * hour; t < to; t += hour) {
		const parts = format.formatToParts(t);
		const h = Number(parts.find((p) => p.type === "hour")?.value);
		if (h % step !== 0) continue;
		const day = parts.find((p) => p.type === "weekday")?.value;
		const clock = `${String(h).padStart(2, "0")}:00`;
		out.push({ at: t, label: h === 0 || out.length === 0 ? `${day} ${clock}` : clock });
	}
	return out;
}

interface Props {
	selected: number;
	stage: string;
	adding: boolean;
}

/** Hours as a ruler, a lane for each piece, serving fixed at the right. Press a lane to work on it. */
export function Strip({ selected, stage, adding }: Props) {
	const { cook, sheet } = useInHand();
	const { id } = useParams();
	const lanes = cook.pieces.map((_, i) => sheet?.pieces[i]?.clock?.lane ?? []);
	const starts = lanes.flat().map((b) => Date.parse(b.from));
	const serves =
		sheet?.pieces.flatMap(
			(p) => p.clock?.steps.filter((s) => s.key === "serve").map((s) => Date.parse(s.at)) ?? [],
		) ?? [];
	const known = starts.length > 0 && serves.length > 0;
	const to = Math.max(...serves);
	const from = Math.min(...starts) - (to - Math.min(...starts)) * 0.015;
	const place = (iso: string | number) =>
		(((typeof iso === "number" ? iso : Date.parse(iso)) - from) / (to - from)) * 100;
	const now = Date.now();
	const list = useRef<HTMLOListElement>(null);
	useEffect(() => {
		const lane = list.current?.children[selected] as HTMLElement | undefined;
		if (list.current && lane) list.current.scrollLeft = lane.offsetLeft - list.current.offsetLeft - 16;
	}, [selected]);
	return (
		<div className="strip">
			{known && (
				<div className="strip-ruler" aria-hidden>
					{ticks(from, to - (to - from) * 0.04, cook.zone).map((t) => (
						<span key={t.at} style={{ left: `${place(t.at)}%` }}>
							{t.label}
						</span>
					))}
					<b>serve</b>
				</div>
			)}
			<ol ref={list}>
				{cook.pieces.map((p, i) => {
					const f = sheet?.pieces[i];
					const title = f?.title || p.label || p.cut;
					return (
						// biome-ignore lint/suspicious/noArrayIndexKey: pieces are told apart by their place
						<li key={i} className={i === selected ? "lane lane-now" : "lane"}>
							<Link
								to={`/cooks/${id}/${stage}/${i + 1}`}
								title={title}
								aria-current={i === selected ? "true" : undefined}
							>
								{p.count > 1 ? `${p.count} × ` : ""}
								{title}
							</Link>
							<div className={known ? "lane-bars" : "lane-bars lane-empty"} aria-hidden>
								{(lanes[i] ?? []).map((b) => {
									const left = place(b.from);
									const all = place(b.to) - left;
									const sure = all > 0 ? ((place(b.sure) - left) / all) * 100 : 100;
									if (all <= 0) return null;
									return (
										<span
											key={b.kind}
											className={`bar bar-${b.kind}`}
											style={
												{
													left: `${left}%`,
													width: `${all}%`,
													"--sure": `${sure}%`,
												} as React.CSSProperties
											}
											title={b.label}
										>
											{all > 8 && <i>{b.label}</i>}
										</span>
									);
								})}
								{known && now > from && now < to && (
									<span className="needle" style={{ left: `${place(now)}%` }} />
								)}
							</div>
						</li>
					);
				})}
				<li className={adding ? "lane lane-add lane-now" : "lane lane-add"}>
					<Link to={`/cooks/${id}/add`}>
						<PlusOutlined aria-hidden /> add a piece
					</Link>
				</li>
			</ol>
		</div>
	);
}
