import { Button, Slider } from "antd";
import { line as straight } from "d3-shape";
import { useId } from "react";
import { Field } from "../record/field";
import { useField } from "../record/use-field";
import { usePiece } from "./context";
import "./grain-mark.css";

const wide = 240;
const path = straight();

/** Which way the grain runs, on the piece's outline, before the bark hides it. */
export function GrainMark({ index }: { index: number }) {
	const { piece, figures, at, wrong, catalogue } = usePiece(index);
	const clip = useId();
	const cut = catalogue.cuts.find((c) => c.id === piece.cut);
	const high = cut ? Math.min(150, Math.max(60, (wide * cut.width) / cut.length)) : 120;
	const { text: grain, set: put } = useField(at("grain"));
	const marked = grain !== "";
	const degrees = Number.parseFloat(grain || "0") || 0;
	const line = (angle: number, off: number) => {
		const a = (angle * Math.PI) / 180;
		const [x, y] = [Math.cos(a) * 200, -Math.sin(a) * 200];
		const [ox, oy] = [Math.sin(a) * off, Math.cos(a) * off];
		const middle = [wide / 2 + ox, high / 2 + oy] as const;
		return path([
			[middle[0] - x, middle[1] - y],
			[middle[0] + x, middle[1] + y],
		]) as string;
	};
	return (
		<section className="grain" aria-label="Grain and trim">
			<svg
				viewBox={`-2 -2 ${wide + 4} ${high + 4}`}
				role="img"
				aria-label={marked ? `The grain runs at ${degrees}° to the length` : "The grain is not marked"}
			>
				<clipPath id={clip}>
					<rect width={wide} height={high} rx={high * 0.28} />
				</clipPath>
				<rect width={wide} height={high} rx={high * 0.28} className="meat" />
				{marked && (
					<g clipPath={`url(#${clip})`}>
						{[-90, -60, -30, 0, 30, 60, 90].map((off) => (
							<path key={off} d={line(degrees, off)} className="grain-line" />
						))}
						{[-40, 40].map((off) => (
							<path key={off} d={line(degrees + 90, off)} className="knife-line" />
						))}
					</g>
				)}
			</svg>
			<div>
				<h3>Grain</h3>
				{marked ? (
					<>
						<Slider
							min={0}
							max={175}
							step={5}
							value={degrees}
							ariaLabelForHandle="Direction of the grain"
							tooltip={{ formatter: null }}
							onChange={(v) => put(String(v))}
						/>
						<p className="says">
							{figures?.grain_note} Mark it on the meat, too: a shallow cut at a corner.{" "}
							<Button type="link" onClick={() => put("")}>
								Not marked
							</Button>
						</p>
					</>
				) : (
					<Button onClick={() => put("0")}>Mark which way it runs</Button>
				)}
				{wrong("grain") && <p className="typed-error">{wrong("grain")}</p>}
				<Field
					label="Note on the trimming"
					at={at("trim_note")}
					usual="hard fat out at the point, flap kept for the sauce"
				/>
			</div>
		</section>
	);
}
