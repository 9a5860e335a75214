import { useId, useMemo } from "react";
import type { GuessQuestion } from "../api/client";
import "../cook/pictures.css";
import "./guess.css";

/** Grains drawn for a mL of rub: a heavy coat hides the meat, a light one does not. */
const grainsPerML = 250;

/** Scattered places in a rectangle, the same every time for the same piece. */
function scatter(n: number, width: number, height: number, seed: number): string {
	let state = seed >>> 0 || 1;
	const random = () => {
		state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
		return state / 4294967296;
	};
	let path = "";
	for (let i = 0; i < n; i++) {
		const x = 5 + random() * (width - 10);
		const y = 5 + random() * (height - 10);
		path += `M${x.toFixed(1)} ${y.toFixed(1)}h0`;
	}
	return path;
}

/** The piece from above and from its end, to scale, with the coat on it and a hand's ruler. */
export function CoatedPiece({ question: q }: { question: GuessQuestion }) {
	const grains = useMemo(() => {
		const n = (wide: number, high: number) =>
			Math.min(14000, Math.round(((wide * high) / 10000) * q.coat_ml * grainsPerML));
		return {
			top: scatter(n(q.length_mm, q.width_mm), q.length_mm, q.width_mm, q.round * 7919),
			end: scatter(n(q.width_mm, q.thick_mm), q.width_mm, q.thick_mm, q.round * 104729),
		};
	}, [q]);
	// One scale for nearly every piece; the end stands under the piece, which has the width.
	const wide = Math.max(430, q.length_mm);
	const high = q.width_mm + 24 + q.thick_mm + 46;
	return (
		<svg
			className="coated"
			viewBox={`-4 -4 ${wide + 8} ${high + 8}`}
			role="img"
			aria-label={`${q.cut}, ${q.size}, with a ${q.coat} coat`}
		>
			<Face width={q.length_mm} height={q.width_mm} grains={grains.top} />
			<g transform={`translate(0 ${q.width_mm + 24})`}>
				<Face width={q.width_mm} height={q.thick_mm} grains={grains.end} />
			</g>
			<g transform={`translate(0 ${q.width_mm + 24 + q.thick_mm + 20})`}>
				<path d="M0 -6 V6 M0 0 H100 M100 -6 V6 M50 -3 V3" className="ruler" />
				<text x={110} y={6} className="coated-text">
					{q.size}
				</text>
			</g>
		</svg>
	);
}

/** One side of the piece with its coat. */
function Face({ width, height, grains }: { width: number; height: number; grains: string }) {
	const id = useId();
	const round = Math.min(width, height) * 0.28;
	return (
		<>
			<clipPath id={id}>
				<rect width={width} height={height} rx={round} />
			</clipPath>
			<rect width={width} height={height} rx={round} className="meat" />
			<path d={grains} className="grains" clipPath={`url(#${id})`} />
		</>
	);
}
