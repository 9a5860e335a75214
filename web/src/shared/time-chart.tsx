import { type ScaleLinear, scaleLinear } from "d3-scale";
import { area, curveMonotoneX, line } from "d3-shape";
import type { ReactNode, Ref } from "react";
import type { components } from "../api/schema";
import "./time-chart.css";

/** Temperatures that a chart begins and ends at. */
export type Axis = components["schemas"]["Axis"];

/** Room around what is drawn, px. */
interface Frame {
	top: number;
	right: number;
	bottom: number;
	left: number;
}

/** A core with its band at an hour. */
interface Banded {
	h: number;
	low: number;
	mid: number;
	high: number;
}

export type Scale = ScaleLinear<number, number>;

/** Where hours and temperatures are in a chart, and the paths of what is drawn over them. */
export function timeChart(width: number, tall: number, frame: Frame, end: number, axis: Axis) {
	const x = scaleLinear([0, end], [frame.left, width - frame.right]);
	const y = scaleLinear([axis.low, axis.high], [tall - frame.bottom, frame.top]);
	return {
		x,
		y,
		/** The band of a curve, in which eight in ten fall. */
		band: (curve: Banded[]) =>
			area<Banded>()
				.x((p) => x(p.h))
				.y0((p) => y(p.low))
				.y1((p) => y(p.high))
				.curve(curveMonotoneX)(curve) ?? "",
		/** A line through points; smooth, or from point to point. */
		line: (points: { h: number; at: number }[], smooth = true) => {
			const path = line<{ h: number; at: number }>()
				.x((p) => x(p.h))
				.y((p) => y(p.at));
			return (smooth ? path.curve(curveMonotoneX) : path)(points) ?? "";
		},
	};
}

/** Hours between the ticks of a ruler that is so long, so wide, and has so much room for each label, px. */
export const tickStep = (hours: number, width: number, room: number) =>
	[1, 2, 3, 4, 6, 12].find((step) => (hours / step) * room <= width) ?? 24;

interface Props {
	box: Ref<HTMLElement>;
	className: string;
	width: number;
	height: number;
	/** The picture in words, for screen readers. */
	label: string;
	y: Scale;
	frame: Frame;
	/** How a temperature is written beside its line. */
	degrees: (t: number) => string;
	lines?: number;
	children: ReactNode;
	/** Under the picture. */
	caption?: ReactNode;
}

/** A picture of temperatures over time: its frame and its lines of temperature. */
export function TimeChart(p: Props) {
	const { frame, y, width } = p;
	return (
		<figure className={`time-chart ${p.className}`} ref={p.box}>
			<svg
				viewBox={`0 0 ${width} ${p.height}`}
				width={width}
				height={p.height}
				role="img"
				aria-label={p.label}
			>
				{y.ticks(p.lines ?? 5).map((t) => (
					<g key={t}>
						<line x1={frame.left} x2={width - frame.right} y1={y(t)} y2={y(t)} className="pic-line" />
						<text x={frame.left - 7} y={y(t) + 5} textAnchor="end" className="pic-small">
							{p.degrees(t)}
						</text>
					</g>
				))}
				{p.children}
			</svg>
			{p.caption}
		</figure>
	);
}
