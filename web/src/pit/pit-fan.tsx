import { scaleLinear } from "d3-scale";
import { area, curveMonotoneX, line } from "d3-shape";
import { useWidth } from "../shared/use-width";
import type { LivePiece } from "./use-live";

const top = 14;
const bottom = 26;
const left = 40;
const tall = 190;

/** What was read of the core, and how it may go on from now until it is off. */
export function PitFan({ piece }: { piece: LivePiece }) {
	const [box, width] = useWidth<HTMLElement>(350);
	const { curve, read, now_h, target, unit, ready } = piece;
	const ahead = curve.filter((p) => p.h >= now_h - 0.2);
	const end = Math.max(1, now_h + 0.5, curve.at(-1)?.h ?? 1);
	const freezing = unit === "°F" ? 32 : 0;
	const highest = Math.max(target, unit === "°F" ? 150 : 65, ...curve.map((p) => p.high));
	const x = scaleLinear([0, end], [left, width - 4]);
	const y = scaleLinear([freezing, highest * 1.08], [tall - bottom, top]);
	const fan = area<LivePiece["curve"][number]>()
		.x((p) => x(p.h))
		.y0((p) => y(p.low))
		.y1((p) => y(p.high))
		.curve(curveMonotoneX);
	const was = line<LivePiece["read"][number]>()
		.x((p) => x(p.h))
		.y((p) => y(p.core))
		.curve(curveMonotoneX);
	const thought = line<LivePiece["curve"][number]>()
		.x((p) => x(p.h))
		.y((p) => y(p.mid));
	const now = x(now_h);
	return (
		<figure className="pit-fan" ref={box}>
			<svg
				viewBox={`0 0 ${width} ${tall}`}
				width={width}
				height={tall}
				role="img"
				aria-label={`The core so far${ready.text ? `, and off the fire between ${ready.text}` : ""}`}
			>
				{y.ticks(4).map((t) => (
					<g key={t}>
						<line x1={left} x2={width - 4} y1={y(t)} y2={y(t)} className="pic-line" />
						<text x={left - 6} y={y(t) + 5} textAnchor="end" className="pic-small">
							{t}°
						</text>
					</g>
				))}
				<path d={fan(ahead) ?? ""} className="fan-band" />
				{read.length === 0 && <path d={thought(curve) ?? ""} className="pit-thought" />}
				{target > 0 && (
					<>
						<line x1={left} x2={width - 4} y1={y(target)} y2={y(target)} className="pit-target" />
						<text x={left + 4} y={y(target) - 6} className="pit-target-text">
							off at {Math.round(target)}°
						</text>
					</>
				)}
				<path d={was(read) ?? ""} className="pit-read" />
				<line x1={now} x2={now} y1={top} y2={tall - bottom} className="pit-now" />
				<text
					x={now}
					y={tall - 8}
					textAnchor={now < left + 30 ? "start" : now > width - 40 ? "end" : "middle"}
					className="pit-now-text"
				>
					now
				</text>
			</svg>
		</figure>
	);
}
