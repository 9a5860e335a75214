import { Slider } from "antd";
import { scaleLinear } from "d3-scale";
import { useEffect, useId, useState } from "react";
import type { Depth } from "../api/client";
import { Ask } from "../shared/ask";
import "./pictures.css";
import "./depth-picture.css";

type Moment = NonNullable<Depth["moments"]>[number];

/** How sure a depth at another time than the fire is. */
const then = "off by the same share as the depth at the fire";

/** A cut across the piece, shaded by salt, and the same cut at the times cooks talk about. */
export function DepthPicture({ depth }: { depth: Depth }) {
	const [at, setAt] = useState(depth.end);
	useEffect(() => setAt(depth.end), [depth.end]);
	const moments = depth.moments;
	const now = moments[Math.min(at, moments.length - 1)];
	if (!now) return null;
	const marks = moments.map((m, i) => ({ m, i })).filter(({ m }) => m.mark !== "");
	return (
		<figure className="depth">
			<figcaption>
				<b>{now.heading}</b>
				<span>
					<Ask
						name={`Depth, ${now.heading}`}
						figure={{ ...depth.depth, text: now.depth, range: then }}
						of={depth.depth}
					/>{" "}
					deep · {now.note}
				</span>
			</figcaption>
			<Cut moment={now} depth={depth} height={84} label />
			<Slider
				min={0}
				max={moments.length - 1}
				value={Math.min(at, moments.length - 1)}
				onChange={setAt}
				tooltip={{ formatter: (i) => moments[i ?? 0]?.label }}
				ariaLabelForHandle="Time after salting"
				ariaValueTextFormatterForHandle={(i) => moments[i]?.label ?? ""}
			/>
			<ol className="depth-marks">
				{marks.map(({ m, i }) => (
					<li key={m.hours}>
						<button type="button" className={i === at ? "depth-now" : undefined} onClick={() => setAt(i)}>
							<b>{m.mark_label}</b>
							<Cut moment={m} depth={depth} height={30} />
							<span>{m.depth}</span>
						</button>
					</li>
				))}
			</ol>
		</figure>
	);
}

interface CutProps {
	moment: Moment;
	depth: Depth;
	height: number;
	label?: boolean;
}

/** The piece cut through, thickness left to right, to scale with itself. */
function Cut({ moment, depth, height, label }: CutProps) {
	const id = useId();
	const width = 640;
	const shade = scaleLinear([0, depth.max_salt], [0, 1]).clamp(true);
	const n = moment.profile.length - 1;
	// Profiles run from the far end to the coated face; a piece coated on both sides is the mirror image of itself.
	const stops = moment.profile.map((v, i) => ({ at: i / n, v }));
	const across = depth.one_bare
		? stops
		: [
				...stops.map((s) => ({ at: 0.5 - s.at / 2, v: s.v })).reverse(),
				...stops.map((s) => ({ at: 0.5 + s.at / 2, v: s.v })),
			];
	const reach = scaleLinear([0, depth.path_mm], [0, depth.one_bare ? width : width / 2])(moment.depth_mm);
	const crust = moment.on_surface / 14;
	const drawn = (
		<svg
			viewBox={`-8 0 ${width + 16} ${height}`}
			preserveAspectRatio="none"
			className="depth-cut"
			role="img"
			aria-label={moment.summary}
		>
			<linearGradient id={id}>
				{across.map((s) => (
					<stop key={s.at} offset={s.at} className="salt-stop" stopOpacity={shade(s.v)} />
				))}
			</linearGradient>
			<rect width={width} height={height} rx={10} className="meat" />
			<rect width={width} height={height} rx={10} fill={`url(#${id})`} />
			{crust > 0.05 && (
				<>
					<rect x={width} width={crust} height={height} className="crust" />
					{!depth.one_bare && <rect x={-crust} width={crust} height={height} className="crust" />}
				</>
			)}
			{label && reach > 0 && reach < width && (
				<>
					<line x1={width - reach} x2={width - reach} y1={0} y2={height} className="front" />
					{!depth.one_bare && <line x1={reach} x2={reach} y1={0} y2={height} className="front" />}
				</>
			)}
		</svg>
	);
	// The picture is stretched to its room, letters are not.
	if (!label) return drawn;
	return (
		<div className="depth-labelled">
			{drawn}
			<span className="depth-across">{depth.thickness} through</span>
		</div>
	);
}
