import { useId } from "react";
import { Hatch } from "../cook/hatch";
import { layerFills } from "../theme";
import "../cook/pictures.css";

interface Props {
	mix: { name: string; kind: string; volume: number }[];
	/** How full it is, 0 to 1. */
	left: number;
	/** The same in words. */
	full: string;
}

const high = 118;

/** A jar with what is left in it, in the layers of its mix. */
export function JarPicture({ mix, left, full }: Props) {
	const id = useId();
	const fills = layerFills(mix.map((m) => m.kind));
	let y = high;
	return (
		<svg className="jar-picture" viewBox={`0 0 92 ${high + 22}`} role="img" aria-label={full}>
			<Hatch id={id} />
			<rect x={16} y={2} width={60} height={12} rx={3} className="jar-lid" />
			<g transform="translate(0 18)">
				{mix.map((m, i) => {
					const h = m.volume * left * (high - 6);
					y -= h;
					const at = `${m.name} ${y}`;
					return (
						<rect
							key={at}
							x={8}
							y={y}
							width={76}
							height={h}
							fill={fills[i] === "salt" ? `url(#${id})` : (fills[i] ?? "")}
						>
							<title>{m.name}</title>
						</rect>
					);
				})}
				<path
					d={`M18 -4 Q7 2 7 12 V${high - 6} Q7 ${high + 1} 14 ${high + 1} H78 Q85 ${high + 1} 85 ${high - 6} V12 Q85 2 74 -4`}
					className="jar"
				/>
			</g>
		</svg>
	);
}
