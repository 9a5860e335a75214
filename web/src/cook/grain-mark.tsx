import { Button, Slider } from "antd";
import { useId } from "react";
import { TypedField } from "../shared/typed-field";
import { usePiece } from "./context";
import "./grain-mark.css";

const wide = 240;

/** Which way the grain runs, on the piece's outline, before the bark hides it. */
export function GrainMark({ index }: { index: number }) {
	const { piece, figures, edit, wrong, catalogue } = usePiece(index);
	const clip = useId();
	const cut = catalogue.cuts.find((c) => c.id === piece.cut);
	const high = cut ? Math.min(150, Math.max(60, (wide * cut.width) / cut.length)) : 120;
	const marked = (piece.grain ?? "") !== "";
	const degrees = Number.parseFloat(piece.grain || "0") || 0;
	const put = (grain: string) =>
		edit((p) => {
			p.grain = grain;
		});
	const line = (angle: number, at: number) => {
		const a = (angle * Math.PI) / 180;
		const [x, y] = [Math.cos(a) * 200, -Math.sin(a) * 200];
		const [ox, oy] = [Math.sin(a) * at, Math.cos(a) * at];
		return `M${wide / 2 + ox - x} ${high / 2 + oy - y}L${wide / 2 + ox + x} ${high / 2 + oy + y}`;
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
						{[-90, -60, -30, 0, 30, 60, 90].map((at) => (
							<path key={at} d={line(degrees, at)} className="grain-line" />
						))}
						{[-40, 40].map((at) => (
							<path key={at} d={line(degrees + 90, at)} className="knife-line" />
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
				<TypedField
					label="Note on the trimming"
					value={piece.trim_note ?? ""}
					usual="hard fat out at the point, flap kept for the sauce"
					error={wrong("trim_note")}
					onChange={(v) =>
						edit((p) => {
							p.trim_note = v;
						})
					}
				/>
			</div>
		</section>
	);
}
