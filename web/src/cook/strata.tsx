import { useId } from "react";
import type { Season } from "../api/client";
import { Hatch } from "./hatch";
import "./pictures.css";

const high = 112;

/** A mix as layers in a jar, by volume and by weight: equal parts visibly are not. */
export function Strata({ season, fills }: { season: Pick<Season, "rows">; fills: string[] }) {
	const id = useId();
	const jar = (x: number, key: "volume_share" | "weight_share", label: string) => {
		let y = high;
		let salt = 0;
		const layers = season.rows.map((r, i) => {
			const h = (r[key] / 100) * high;
			y -= h;
			if (fills[i] === "salt") salt += r[key];
			return {
				y,
				h,
				name: r.name,
				share: r[key],
				fill: fills[i] === "salt" ? `url(#${id})` : (fills[i] ?? ""),
			};
		});
		return (
			<g transform={`translate(${x} 4)`}>
				{layers.map((l) => (
					<rect key={`${l.name}${l.y}`} x={2} y={l.y} width={68} height={l.h} fill={l.fill}>
						<title>{`${l.name}: ${l.share.toFixed(0)} % ${label}`}</title>
					</rect>
				))}
				<path
					d={`M1 -2 V${high - 5} Q1 ${high + 1} 7 ${high + 1} H65 Q71 ${high + 1} 71 ${high - 5} V-2`}
					className="jar"
				/>
				<text x={36} y={high + 20} textAnchor="middle" className="pic-small">
					{label}
				</text>
				<text x={36} y={high + 38} textAnchor="middle" className="pic-strong">
					{salt.toFixed(0)} % salt
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
			{jar(6, "volume_share", "by volume")}
			{jar(112, "weight_share", "by weight")}
		</svg>
	);
}
