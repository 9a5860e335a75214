import { TimeChart, timeChart } from "../shared/time-chart";
import { useWidth } from "../shared/use-width";
import type { LivePiece } from "./use-live";

const top = 14;
const bottom = 26;
const left = 40;
const tall = 190;

/** What was read of the core, and how it may go on from now until it is off. */
export function PitFan({ piece }: { piece: LivePiece }) {
	const [box, width] = useWidth<HTMLElement>(350);
	const { curve, read, now_h, target, axis, ready } = piece;
	const ahead = curve.filter((p) => p.h >= now_h - 0.2);
	const end = Math.max(1, now_h + 0.5, curve.at(-1)?.h ?? 1);
	const frame = { top, right: 4, bottom, left };
	const { x, y, band, line } = timeChart(width, tall, frame, end, axis);
	const now = x(now_h);
	return (
		<TimeChart
			box={box}
			className="pit-fan"
			width={width}
			height={tall}
			label={`The core so far${ready.text ? `, and most likely off the fire at ${ready.text}` : ""}`}
			y={y}
			frame={frame}
			degrees={(t) => `${t}°`}
			lines={4}
		>
			<path d={band(ahead)} className="fan-band" />
			{read.length === 0 && (
				<path
					d={line(
						curve.map((p) => ({ h: p.h, at: p.mid })),
						false,
					)}
					className="pit-thought"
				/>
			)}
			{target > 0 && (
				<>
					<line x1={left} x2={width - 4} y1={y(target)} y2={y(target)} className="pit-target" />
					<text x={left + 4} y={y(target) - 6} className="pit-target-text">
						off at {Math.round(target)}°
					</text>
				</>
			)}
			<path d={line(read.map((r) => ({ h: r.h, at: r.core })))} className="pit-read" />
			<line x1={now} x2={now} y1={top} y2={tall - bottom} className="pit-now" />
			<text
				x={now}
				y={tall - 8}
				textAnchor={now < left + 30 ? "start" : now > width - 40 ? "end" : "middle"}
				className="pit-now-text"
			>
				now
			</text>
		</TimeChart>
	);
}
