import { useId } from "react";
import type { Season } from "../api/client";
import { Hatch } from "./hatch";
import "./pictures.css";

const high = 112;

/** A mix as layers in a jar, by volume and by weight: equal parts visibly are not. */
export function Strata({ season, fills }: { season: Pick<Season, "rows" | "salt_by">; fills: string[] }) {
	const id = useId();
	const jar = (x: number, by: "volume" | "weight") => {
		let y = high;
		const key = `${by}_share` as const;
		const layers = season.rows.map((r, i) => {
			const h = (r[key] / 100) * high;
			y -= h;
			return {
				y,
				h,
				name: r.name,
				text: r.shares[by],
				fill: fills[i] === "salt" ? `url(#${id})` : (fills[i] ?? ""),
			};
		});
		return (
			<g transform={`translate(${x} 4)`}>
				{layers.map((l) => (
					<rect key={`${l.name}${l.y}`} x={2} y={l.y} width={68} height={l.h} fill={l.fill}>
						<title>{l.text}</title>
					</rect>
				))}
				<path
					d={`M1 -2 V${high - 5} Q1 ${high + 1} 7 ${high + 1} H65 Q71 ${high + 1} 71 ${high - 5} V-2`}
					className="jar"
				/>
				<text x={36} y={high + 20} textAnchor="middle" className="pic-small">
					by {by}
				</text>
				<text x={36} y={high + 38} textAnchor="middle" className="pic-strong">
					{season.salt_by[by]}
				</text>
			</g>
		);
	};
	return (
		<svg
			className="strata"
			viewBox={`0 0 192 ${high + 48}`}
			role="img"
			aria-label="The mix in layers, by volume and by weight"
		>
			<Hatch id={id} />
			{jar(6, "volume")}
			{jar(112, "weight")}
		</svg>
	);
}
