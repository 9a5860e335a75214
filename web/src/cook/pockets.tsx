import { useId } from "react";
import type { InjectionSheet } from "../api/client";
import "./pictures.css";

/** One site's pocket of brine over the hours, seen along the needle. */
export function Pockets({ spread, note }: { spread: InjectionSheet["spread"]; note: string }) {
	const id = useId();
	const r = 44;
	// The darkest is what the pocket holds when it is just in.
	const most = Math.max(1, ...(spread[1]?.profile ?? spread[0]?.profile ?? []));
	return (
		<ol className="pockets" aria-label="How far a pocket has spread">
			{spread.map((p, i) => (
				<li key={p.label}>
					<svg viewBox="0 0 100 100" role="img" aria-label={p.summary}>
						<radialGradient id={`${id}${i}`}>
							{p.profile.map((v, n) => (
								<stop
									// biome-ignore lint/suspicious/noArrayIndexKey: points of a profile are told apart by their place
									key={n}
									offset={n / (p.profile.length - 1)}
									className="salt-stop"
									stopOpacity={Math.min(1, v / most)}
								/>
							))}
						</radialGradient>
						<circle cx={50} cy={50} r={r} className="meat" />
						<circle cx={50} cy={50} r={r} fill={`url(#${id}${i})`} />
						<circle cx={50} cy={50} r={1.6} className="needle-hole" />
					</svg>
					<b>{p.text}</b>
					<span>{p.label}</span>
				</li>
			))}
			<li className="pockets-key">{note}</li>
		</ol>
	);
}
