import { type Axis, TimeChart, tickStep, timeChart } from "../shared/time-chart";
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
	axis: Axis;
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
export function Curves({ curves, thought = [], target = 0, axis, label }: Props) {
	const [box, width] = useWidth<HTMLElement>(700);
	const tall = width < 560 ? 260 : 320;
	const until = [...curves.flatMap((c) => [c.read.at(-1)?.h ?? 0, c.off]), thought.at(-1)?.h ?? 0];
	const end = Math.max(1, ...until);
	const frame = { top, right, bottom, left };
	const { x, y, band, line } = timeChart(width, tall, frame, end, axis);
	const step = tickStep(end, width, 56);
	const hours = Array.from({ length: Math.floor(end / step) + 1 }, (_, i) => i * step);
	return (
		<TimeChart
			box={box}
			className="curves"
			width={width}
			height={tall}
			label={label}
			y={y}
			frame={frame}
			degrees={(t) => `${t}${axis.unit}`}
		>
			{hours.map((h) => (
				<text key={h} x={x(h)} y={tall - 16} textAnchor={h === 0 ? "start" : "middle"} className="pic-small">
					{h} h
				</text>
			))}
			{thought.length > 0 && (
				<>
					<path d={band(thought)} className="fan-band" />
					<path d={line(thought.map((p) => ({ h: p.h, at: p.mid })))} className="curve-thought" />
				</>
			)}
			{target > 0 && (
				<line x1={left} x2={width - right} y1={y(target)} y2={y(target)} className="curve-target" />
			)}
			{curves.map((c, i) => (
				<g key={c.id} className={`curve curve-${i % 5}`}>
					<path
						d={line(
							c.read.map((r) => ({ h: r.h, at: r.core })),
							false,
						)}
					/>
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
		</TimeChart>
	);
}
