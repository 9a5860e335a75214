import { TimeChart, tickStep, timeChart } from "../shared/time-chart";
import { useWidth } from "../shared/use-width";
import type { LivePiece } from "./use-live";

const top = 14;
const bottom = 26;
const left = 40;
const tall = 190;

/** What was read of the core, and how it may go on from now until it is off. */
export function PitFan({ piece, now: at, zone }: { piece: LivePiece; now: string; zone: string }) {
	const [box, width] = useWidth<HTMLElement>(350);
	const { curve, read, now_h, target, axis, ready } = piece;
	const ahead = curve.filter((p) => p.h >= now_h - 0.2);
	const end = Math.max(1, now_h + 0.5, curve.at(-1)?.h ?? 1);
	const frame = { top, right: 4, bottom, left };
	const { x, y, band, line } = timeChart(width, tall, frame, end, axis);
	const now = x(now_h);
	// Full hours of the clock there, that far apart that their names have room.
	const clock = (h: number) =>
		new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", timeZone: zone || "UTC" }).format(
			Date.parse(at) + (h - now_h) * 3_600_000,
		);
	const step = tickStep(end, width - left, 62);
	const past = (Date.parse(at) / 3_600_000) % 1; // of the hour, in which the clock is now
	const hours: number[] = [];
	for (let h = (((now_h - past) % step) + step) % step; h <= end; h += step) hours.push(h);
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
			{hours
				.filter((h) => Math.abs(x(h) - now) > 44 && x(h) < width - 22)
				.map((h) => (
					<text
						key={h}
						x={x(h)}
						y={tall - 8}
						textAnchor={x(h) < left + 22 ? "start" : "middle"}
						className="pic-small"
					>
						{clock(h)}
					</text>
				))}
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
