import type { InjectionSheet } from "../api/client";
import "./pictures.css";

/** The needle's sites on the piece, seen from above and to scale, grain along the length. */
export function NeedleGrid({ injection }: { injection: InjectionSheet }) {
	const width = 230;
	const scale = width / injection.length_mm;
	const high = injection.width_mm * scale;
	const sites = injection.pattern.map((s) => ({ x: s.x * scale, y: s.y * scale, use: s.use }));
	const step = (width / injection.along) * 0.5;
	return (
		<svg
			className="needle-grid"
			viewBox={`-4 -4 ${width + 8} ${high + 30}`}
			role="img"
			aria-label={injection.grid}
		>
			<rect width={width} height={high} rx={Math.min(26, high / 3)} className="meat" />
			{sites.map((s) => (
				<g key={`${s.x} ${s.y}`}>
					{s.use && <circle cx={s.x} cy={s.y} r={step * 0.5} className="pocket" />}
					{s.use ? (
						<circle cx={s.x} cy={s.y} r={2} className="needle-hole" />
					) : (
						<path d={`M${s.x - 3} ${s.y - 3}l6 6m0 -6l-6 6`} className="needle-out" />
					)}
				</g>
			))}
			<text x={width / 2} y={high + 20} textAnchor="middle" className="pic-small">
				{injection.length} →
			</text>
		</svg>
	);
}
