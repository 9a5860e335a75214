import type { Outlook } from "../api/client";
import { TimeChart, tickStep, timeChart } from "../shared/time-chart";
import { useWidth } from "../shared/use-width";
import "./pictures.css";
import "./fan.css";

const hour = 3600_000;
const top = 30;
const left = 46;
const right = 12;

/** The core on its way: its fan, the pit, the stall, and what is done on the way. */
export function Fan({ outlook, zone }: { outlook: Outlook; zone: string }) {
	const [box, width] = useWidth<HTMLElement>(800);
	const narrow = width < 560;
	const plot = narrow ? 250 : 300;
	const { curve, marks, stall, other, axis, start } = outlook;
	const off = marks.find((m) => m.kind === "off");
	const knife = marks.find((m) => m.kind === "knife");
	const end = Math.max(1, curve.at(-1)?.h ?? 1, (knife?.h ?? 0) + 0.2, other?.curve.at(-1)?.h ?? 0);
	const frame = { top, right, bottom: 0, left };
	const { x, y, band, line } = timeChart(width, top + plot, frame, end, axis);
	const middle = (points: { h: number; mid: number }[]) => line(points.map((p) => ({ h: p.h, at: p.mid })));
	const upToOff = off ? curve.filter((p) => p.h <= off.h) : curve;
	const resting = off
		? outlook.rest
				.map((p) => ({ ...p, h: p.h + off.h }))
				.filter((p) => p.h <= Math.max(knife?.h ?? 0, off.h + 0.5))
		: [];
	const step = tickStep(end, width - left - right, 64);
	const first = start ? Math.ceil(Date.parse(start) / hour) - Date.parse(start) / hour : 0;
	const clock = new Intl.DateTimeFormat("en-GB", {
		timeZone: zone || "UTC",
		hour: "2-digit",
		minute: "2-digit",
	});
	const ticks: { h: number; label: string }[] = [];
	for (let h = x(first) < left + 24 ? first + step : first; h <= end; h += step)
		ticks.push({ h, label: start ? clock.format(Date.parse(start) + h * hour) : `${Math.round(h)} h` });
	// Labels of moves that stand near each other go on lines of their own.
	const rows: number[] = [];
	const labelled = marks.map((m) => {
		const wide = (narrow ? 76 : 62) + Math.max(m.label.length, m.note.length) * 4;
		let row = 0;
		while ((rows[row] ?? -Infinity) > x(m.h) - wide) row++;
		rows[row] = x(m.h) + wide;
		return { ...m, row };
	});
	const under = top + plot + (outlook.spritzes.length > 0 ? 62 : 40);
	const height = under + rows.length * 42 + 4;
	const anchor = (at: number) => (at < left + 60 ? "start" : at > width - 70 ? "end" : "middle");
	const lastPit = curve.at(-1)?.pit ?? 0;
	return (
		<TimeChart
			box={box}
			className="fan"
			width={width}
			height={height}
			label={said(outlook)}
			y={y}
			frame={frame}
			degrees={String}
			caption={other && <figcaption className="fan-caption">Dotted: {other.text}.</figcaption>}
		>
			<text x={left - 8} y={top - 12} textAnchor="end" className="pic-small">
				{axis.unit}
			</text>
			{ticks.map((t) => (
				<text
					key={t.h}
					x={x(t.h)}
					y={top + plot + 22}
					textAnchor={x(t.h) > width - 24 ? "end" : "middle"}
					className="pic-small"
				>
					{t.label}
				</text>
			))}
			{stall && (
				<>
					<rect
						x={x(stall.from)}
						width={x(stall.to) - x(stall.from)}
						y={y(stall.high) - 4}
						height={y(stall.low) - y(stall.high) + 8}
						className="fan-stall"
					/>
					<text x={x(stall.from) + 6} y={y(stall.low) + 28} className="fan-stall-text">
						{stall.text}
					</text>
				</>
			)}
			<path d={band(curve)} className="fan-band" />
			{other && <path d={middle(other.curve)} className="fan-other" />}
			<path d={middle(upToOff)} className="fan-middle" />
			{resting.length > 1 && <path d={middle(resting)} className="fan-rest" />}
			<path
				d={line(
					upToOff.map((p) => ({ h: p.h, at: p.pit })),
					false,
				)}
				className="fan-pit"
			/>
			<text x={x(0) + 8} y={y(curve[0]?.pit ?? lastPit) - 9} className="fan-pit-text">
				pit {Math.round(curve[0]?.pit ?? 0)} {axis.unit}
			</text>
			{outlook.spritzes.map((h) => (
				<line key={h} x1={x(h)} x2={x(h)} y1={top + plot + 32} y2={top + plot + 44} className="fan-spritz" />
			))}
			{outlook.spritzes.length > 0 && (
				<text x={x(outlook.spritzes.at(-1) ?? 0) + 8} y={top + plot + 43} className="fan-stall-text">
					{outlook.spritz_text}
				</text>
			)}
			{labelled.map((m) => (
				<g key={`${m.kind} ${m.h}`}>
					<line
						x1={x(m.h)}
						x2={x(m.h)}
						y1={m.kind === "knife" ? top : y(m.core)}
						y2={under + m.row * 42}
						className={m.kind === "knife" ? "fan-knife" : "fan-move"}
					/>
					{m.kind !== "knife" && <circle cx={x(m.h)} cy={y(m.core)} r={6} className="fan-dot" />}
				</g>
			))}
			{labelled.map((m) => (
				<g key={`${m.kind} ${m.h}`} className="fan-said">
					<text x={x(m.h)} y={under + m.row * 42 + 16} textAnchor={anchor(x(m.h))} className="fan-label">
						{m.label}
					</text>
					<text x={x(m.h)} y={under + m.row * 42 + 34} textAnchor={anchor(x(m.h))} className="pic-small">
						{m.note}
					</text>
				</g>
			))}
		</TimeChart>
	);
}

/** The picture in words, for screen readers. */
const said = (o: Outlook) =>
	`Core temperature over time. ${o.marks.map((m) => `${m.label}, ${m.note}`).join("; ")}. ${o.stall?.text ?? ""}`;
