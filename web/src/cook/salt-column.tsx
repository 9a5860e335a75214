import { CheckCircleFilled, WarningFilled } from "@ant-design/icons";
import { scaleLinear } from "d3-scale";
import { useId } from "react";
import { ChoiceField } from "../record/field";
import { Ask } from "../shared/ask";
import { usePiece } from "./context";
import { Hatch } from "./hatch";
import "./pictures.css";
import "./salt-column.css";

const width = 244;
const high = 300;

/** Salt in this piece, source by source, against the band the cook chose. */
export function SaltColumn({ index }: { index: number }) {
	const { figures, at, count, catalogue } = usePiece(index);
	const id = useId();
	const l = figures?.ledger;
	if (!l) {
		return (
			<aside className="salt-column">
				<h3>Salt in the meat</h3>
				<p className="muted">
					{figures
						? figures.ready
							? "Waiting for the weight and the rub."
							: "Fix the fields marked in red to see the salt."
						: "Working it out…"}
				</p>
			</aside>
		);
	}
	const top = Math.max(2, l.band.high * 1.15, l.percent.value * 1.15);
	const y = scaleLinear([0, top], [high, 0]).clamp(true);
	// A band's name stands in the middle of it, unless the big number needs the room.
	const number = Math.min(high - 4, Math.max(20, y(l.percent.value) + 12));
	const middle = (b: { low: number; high: number }) => (y(b.low) + y(Math.min(b.high, top))) / 2 + 5;
	const clear = (b: { low: number; high: number }) => Math.abs(middle(b) - (number - 8)) > 24;
	const beside = (b: { low: number; high: number }) =>
		number - 8 - y(b.high) > y(b.low) - (number - 8) ? y(b.high) + 18 : y(b.low) - 8;
	let from = 0;
	const edges = l.bands.map((b) => b.low).filter((v) => v > 0 && v < top);
	return (
		<aside className="salt-column">
			<div className="salt-phone" aria-hidden>
				<b>{l.percent.text} %</b>
				<span>
					salt · <em className={l.in_band ? undefined : "salt-off"}>{l.verdict}</em>
				</span>
				<span className="salt-phone-mg">{l.sodium.text} mg sodium</span>
			</div>
			<h3>
				Salt in {count > 1 ? `each ${figures.noun}` : `the ${figures.noun}`}
				<small>% of boneless raw meat</small>
			</h3>
			<svg viewBox={`0 -14 ${width} ${high + 24}`} role="img" aria-label={l.summary}>
				<Hatch id={id} />
				<rect
					x={34}
					width={width - 34}
					y={y(l.band.high)}
					height={y(l.band.low) - y(l.band.high)}
					className="band-chosen"
				/>
				{edges.map((v) => (
					<g key={v}>
						<line x1={34} x2={width} y1={y(v)} y2={y(v)} className="pic-line" />
						<text x={26} y={y(v) + 5} textAnchor="end" className="pic-small">
							{v.toFixed(1)}
						</text>
					</g>
				))}
				{l.bands
					.filter((b) => b.low < top * 0.94 && (clear(b) || b.name === l.band.name))
					.map((b) => (
						<text
							key={b.name}
							x={width - 6}
							y={clear(b) ? middle(b) : beside(b)}
							textAnchor="end"
							className={b.name === l.band.name ? "pic-strong" : "pic-small"}
						>
							{b.name}
						</text>
					))}
				{l.lines.map((line) => {
					const bottom = y(from);
					from += line.percent;
					const h = bottom - y(from);
					return (
						<g key={line.id}>
							<rect x={48} width={74} y={bottom - h} height={h} fill={`url(#${id})`} className="salt-bar">
								<title>{line.summary}</title>
							</rect>
						</g>
					);
				})}
				<line x1={85} x2={85} y1={y(l.percent.high)} y2={y(l.percent.low)} className="whisker" />
				<line x1={79} x2={91} y1={y(l.percent.high)} y2={y(l.percent.high)} className="whisker" />
				<line x1={79} x2={91} y1={y(l.percent.low)} y2={y(l.percent.low)} className="whisker" />
				<line x1={122} x2={138} y1={y(from)} y2={y(from)} className="pic-ink" />
				<text x={142} y={number} className="pic-huge">
					{l.percent.text}
				</text>
				<line x1={34} x2={width} y1={high} y2={high} className="pic-ink" />
			</svg>
			<p className={l.in_band ? "salt-verdict" : "salt-verdict salt-off"}>
				{l.in_band ? <CheckCircleFilled aria-hidden /> : <WarningFilled aria-hidden />} {l.verdict}
			</p>
			{l.narrows && <p className="says">{l.narrows}</p>}
			{l.lines.length > 1 && (
				<ul className="salt-lines">
					{l.lines.map((line) => (
						<li key={line.id}>
							<span>
								{line.name}{" "}
								<small>
									{line.salt}, stays {line.stays}
								</small>
							</span>
							<b>{line.text}</b>
						</li>
					))}
				</ul>
			)}
			<dl>
				<div>
					<dt>in the raw meat</dt>
					<dd>
						<Ask name="Salt in the raw meat" figure={l.percent} />
					</dd>
				</div>
				<div>
					<dt>a serving</dt>
					<dd>
						<Ask name="Sodium of a serving" figure={l.sodium} />
					</dd>
				</div>
				<div>
					<dt>of a day’s sodium</dt>
					<dd>
						<Ask name="Part of a day’s sodium" figure={l.day} />
					</dd>
				</div>
				<div>
					<dt>near the surface, at the fire</dt>
					<dd>
						<Ask name="Salt near the surface" figure={l.outer} />
					</dd>
				</div>
				<div>
					<dt>on the plate</dt>
					<dd>
						<Ask name="Salt in the cooked meat" figure={l.plate} />
					</dd>
				</div>
			</dl>
			<ChoiceField
				label="How you like it"
				at={at("season/band")}
				usual={catalogue.usual.band}
				options={catalogue.usual.bands.map((v) => ({ value: v, label: v }))}
			/>
		</aside>
	);
}
