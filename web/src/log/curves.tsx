import { scaleLinear } from "d3-scale";
import { area, curveMonotoneX, line } from "d3-shape";
import { useWidth } from "../shared/use-width";
import "./curves.css";

export interface Curve {
	id: string;
	label: string;
	/** What was read, hours since it went on and core. */
	read: { h: number; core: number }[];
	/** Hours at which it came off; zero when it did not. */
	off: number;
}

interface Props {
	curves: Curve[];
	/** What was thought when it went on. */
	thought?: { h: number; low: number; mid: number; high: number }[];
	/** Core at which it was to come off. */
	target?: number;
	unit: string;
	label: string;
}

const top = 16;
const left = 46;
const right = 14;
const bottom = 40;

/** So few readings are drawn one by one, since a line between them says little. */
const few = 12;

/** What was read last when it came off, if it did and anything was. */
const ends = (c: Curve) => (c.off > 0 ? c.read.filter((r) => r.h <= c.off + 0.1).slice(-1) : []);

/** Cores on a common clock: what was read, and what was thought before. */
export function Curves({ curves, thought = [], target = 0, unit, label }: Props) {
	const [box, width] = useWidth<HTMLElement>(700);
	const tall = width < 560 ? 260 : 320;
	const until = [...curves.flatMap((c) => [c.read.at(-1)?.h ?? 0, c.off]), thought.at(-1)?.h ?? 0];
	const end = Math.max(1, ...until);
	const cores = [...curves.flatMap((c) => c.read.map((r) => r.core)), ...thought.map((p) => p.high), target];
	const x = scaleLinear([0, end], [left, width - right]);
	const y = scaleLinear(
		[unit === "°F" ? 32 : 0, Math.max(unit === "°F" ? 140 : 60, ...cores) * 1.06],
		[tall - bottom, top],
	);
	const step = [1, 2, 3, 4, 6, 12].find((s) => (end / s) * 56 <= width) ?? 24;
	const hours = Array.from({ length: Math.floor(end / step) + 1 }, (_, i) => i * step);
	const band = area<(typeof thought)[number]>()
		.x((p) => x(p.h))
		.y0((p) => y(p.low))
		.y1((p) => y(p.high))
		.curve(curveMonotoneX);
	const middle = line<(typeof thought)[number]>()
		.x((p) => x(p.h))
		.y((p) => y(p.mid))
		.curve(curveMonotoneX);
	const was = line<Curve["read"][number]>()
		.x((p) => x(p.h))
		.y((p) => y(p.core));
	return (
		<figure className="curves" ref={box}>
			<svg viewBox={`0 0 ${width} ${tall}`} width={width} height={tall} role="img" aria-label={label}>
				{y.ticks(5).map((t) => (
					<g key={t}>
						<line x1={left} x2={width - right} y1={y(t)} y2={y(t)} className="pic-line" />
						<text x={left - 6} y={y(t) + 5} textAnchor="end" className="pic-small">
							{t}
							{unit}
						</text>
					</g>
				))}
				{hours.map((h) => (
					<text
						key={h}
						x={x(h)}
						y={tall - 16}
						textAnchor={h === 0 ? "start" : "middle"}
						className="pic-small"
					>
						{h} h
					</text>
				))}
				{thought.length > 0 && (
					<>
						<path d={band(thought) ?? ""} className="fan-band" />
						<path d={middle(thought) ?? ""} className="curve-thought" />
					</>
				)}
				{target > 0 && (
					<line x1={left} x2={width - right} y1={y(target)} y2={y(target)} className="curve-target" />
				)}
				{curves.map((c, i) => (
					<g key={c.id} className={`curve curve-${i % 5}`}>
						<path d={was(c.read) ?? ""} />
						{c.read.length <= few &&
							c.read.map((r) => <circle key={r.h} cx={x(r.h)} cy={y(r.core)} r={3} className="curve-read" />)}
						{ends(c).map((r) => (
							<circle key="off" cx={x(c.off)} cy={y(r.core)} r={5} />
						))}
						{curves.length > 1 && c.read.length > 0 && (
							<text x={x(c.read.at(-1)?.h ?? 0)} y={y(c.read.at(-1)?.core ?? 0) - 8} textAnchor="end">
								{i + 1}
							</text>
						)}
					</g>
				))}
			</svg>
		</figure>
	);
}
