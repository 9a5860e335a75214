import { useTrends } from "./use-logbook";

/** What the cook-outs of each cut show together. */
export function TrendTable() {
	const { data } = useTrends();
	if (!data || data.cuts.length === 0) return null;
	return (
		<section className="trends" aria-label="Trends">
			<h2>Trends</h2>
			<div className="trends-scroll">
				<table>
					<thead>
						<tr>
							<th scope="col">Cut</th>
							<th scope="col">Cook-outs</th>
							<th scope="col">Meat on the plates, of the trimmed weight</th>
							<th scope="col">Minutes for each mm of thickness</th>
							<th scope="col">Forecasts were off by</th>
						</tr>
					</thead>
					<tbody>
						{data.cuts.map((c) => (
							<tr key={c.cut}>
								<th scope="row">{c.cut}</th>
								<td>{c.cooks}</td>
								<td>{c.yield || "–"}</td>
								<td>{c.pace || "–"}</td>
								<td>{c.off || "–"}</td>
							</tr>
						))}
					</tbody>
				</table>
			</div>
			{data.nearer && <p>{data.nearer}</p>}
			{data.salt.length > 1 && <SaltLiked points={data.salt} />}
		</section>
	);
}

const wide = 640;
const tall = 230;
const left = 120;
const bottom = 40;
const says = ["far too bland", "a little bland", "just right", "a little salty", "too salty"];

/** How salty each piece was, and how that was liked. */
function SaltLiked({ points }: { points: { percent: number; score: number; label: string }[] }) {
	const highest = Math.max(1.5, ...points.map((p) => p.percent)) * 1.05;
	const x = (v: number) => left + (v / highest) * (wide - left - 20);
	const y = (score: number) => 16 + ((5 - score) / 4) * (tall - bottom - 26);
	const ticks = Array.from({ length: Math.floor(highest / 0.5) + 1 }, (_, i) => i * 0.5);
	return (
		<figure className="salt-liked">
			<figcaption>Salt, and how it was liked</figcaption>
			<svg viewBox={`0 0 ${wide} ${tall}`} role="img" aria-label="Salt of each piece, and how it was liked">
				{says.map((word, i) => (
					<g key={word}>
						<line x1={left} x2={wide - 20} y1={y(i + 1)} y2={y(i + 1)} />
						<text x={left - 8} y={y(i + 1) + 5} textAnchor="end">
							{word}
						</text>
					</g>
				))}
				{ticks.map((t) => (
					<text key={t} x={x(t)} y={tall - 14} textAnchor="middle">
						{t} %
					</text>
				))}
				{points.map((p, i) => (
					<circle key={`${p.label} ${p.percent}`} cx={x(p.percent)} cy={y(p.score) + ((i % 3) - 1) * 5} r={6}>
						<title>{`${p.label}: ${p.percent} %`}</title>
					</circle>
				))}
			</svg>
		</figure>
	);
}
