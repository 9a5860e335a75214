import { DeleteOutlined } from "@ant-design/icons";
import { Button, Select, Switch } from "antd";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { TypedField } from "../shared/typed-field";
import { Choices } from "./choices";
import { usePiece } from "./context";
import { GrainMark } from "./grain-mark";
import { Photos } from "./photos";
import "./piece-stage.css";

/** The meat before anything goes on it: cut, weight, trim, thickness. */
export function PieceStage({ index }: { index: number }) {
	const { piece, figures, edit, wrong, catalogue, cook, change, goto, undoable } = usePiece(index);
	const cut = catalogue.cuts.find((c) => c.id === piece.cut);
	const meat = figures?.meat;
	const noun = cut?.noun ?? "piece";
	return (
		<>
			<h2>
				{piece.count > 1 ? `${piece.count} × ` : ""}
				{piece.label || cut?.name}
			</h2>
			{meat && (
				<div className="amounts">
					<div>
						<Ask size="huge" name="Weight after trimming" figure={meat.green} />
						<p>
							{piece.count > 1 ? (
								<>
									each, trimmed; <Ask name="Weight of all" figure={meat.all_green} /> in all
								</>
							) : (
								"after trimming"
							)}
						</p>
					</div>
					<div>
						<Ask size="huge" name="Thickness" figure={meat.thickness} />
						<p>{piece.thickness ? "thick, as measured" : "thick, estimated"}</p>
					</div>
					<div>
						<Ask size="huge" name="Portions" figure={meat.servings} />
						<p>
							<Ask name="Cooked meat" figure={meat.served} /> of cooked meat
						</p>
					</div>
				</div>
			)}
			<div className="piece-top">
				<div className="piece-cut">
					<span id="cut-label">Cut</span>
					<Select
						aria-labelledby="cut-label"
						variant="underlined"
						size="large"
						value={piece.cut}
						showSearch={{ optionFilterProp: "label" }}
						onChange={(v) =>
							edit((p) => {
								p.cut = v;
							})
						}
						options={catalogue.cuts.map((c) => ({ value: c.id, label: c.name }))}
					/>
					{wrong("cut") && <p className="typed-error">{wrong("cut")}</p>}
				</div>
				<TypedField
					label="How many"
					inputMode="numeric"
					value={String(piece.count)}
					error={wrong("count")}
					onChange={(v) =>
						edit((p) => {
							p.count = Number.parseInt(v.replace(/\D/g, "").slice(0, 5), 10) || 0;
						})
					}
				/>
				{piece.count > 1 && (
					// biome-ignore lint/a11y/noLabelWithoutControl: the switch inside is the control
					<label className="piece-together">
						<Switch
							checked={piece.together}
							onChange={(v) =>
								edit((p) => {
									p.together = v;
								})
							}
						/>
						weighed all together
					</label>
				)}
			</div>
			<div className="fields">
				<TypedField
					label={
						piece.together && piece.count > 1
							? "Weight as bought, all together"
							: piece.count > 1
								? `Weight as bought, one ${noun}`
								: "Weight as bought"
					}
					value={piece.bought}
					usual="2.4 kg or 5 lb 4 oz"
					error={wrong("bought")}
					onChange={(v) =>
						edit((p) => {
							p.bought = v;
						})
					}
				/>
				<TypedField
					label="After trimming, if weighed"
					value={piece.trimmed}
					usual={meat ? (piece.together ? meat.all_green.text : meat.green.text) : "not weighed"}
					error={wrong("trimmed")}
					onChange={(v) =>
						edit((p) => {
							p.trimmed = v;
						})
					}
				/>
				<TypedField
					label="Thickest point, if measured"
					value={piece.thickness}
					usual={meat?.thickness.text ?? "85 mm or 3 1/4 in"}
					error={wrong("thickness")}
					onChange={(v) =>
						edit((p) => {
							p.thickness = v;
						})
					}
				/>
				<TypedField
					label="Your own name for it"
					value={piece.label}
					usual={cut?.name}
					error={wrong("label")}
					onChange={(v) =>
						edit((p) => {
							p.label = v;
						})
					}
				/>
			</div>
			<div className="decisions">
				{!piece.trimmed && (
					<Choice
						label="Trim"
						value={piece.trim_style || "usual"}
						error={wrong("trim_style")}
						onChange={(v) =>
							edit((p) => {
								p.trim_style = v;
							})
						}
						options={[
							{
								value: "light",
								label: "light",
								note: `hard fat and silver skin only, −${cut?.trim_loss.low} %`,
							},
							{ value: "usual", label: "as usual", note: `cap to about 6 mm, −${cut?.trim_loss.mid} %` },
							{ value: "close", label: "close", note: `bare meat on top, −${cut?.trim_loss.high} %` },
						]}
					/>
				)}
				<Choice
					label="Where the coat goes"
					value={piece.faces || (cut?.sealed ? "one" : "all")}
					error={wrong("faces")}
					onChange={(v) =>
						edit((p) => {
							p.faces = v;
						})
					}
					options={[
						{ value: "all", label: "all sides", note: "edges too: salt comes from everywhere" },
						{
							value: "one",
							label: `not on the ${cut?.sealed || "underside"}${cut?.sealed ? " side" : ""}`,
							note: "skin, cap or bone lets no salt through",
						},
					]}
				/>
			</div>
			<Choices index={index} stage="piece" />
			<GrainMark index={index} />
			<Photos piece={piece.key ?? ""} />
			{meat && (
				<p className="says">
					{meat.size}, <Ask name="Surface that takes a coat" figure={meat.surface} /> of coated surface.{" "}
					{meat.comparison}
				</p>
			)}
			<Button
				danger
				type="text"
				icon={<DeleteOutlined />}
				onClick={() => {
					const before = structuredClone(cook);
					change((c) => void c.pieces.splice(index, 1));
					undoable(`${piece.label || cut?.name} is off this cook.`, before);
					goto("occasion");
				}}
			>
				Take this piece off
			</Button>
		</>
	);
}
