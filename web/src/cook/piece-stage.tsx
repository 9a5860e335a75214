import { DeleteOutlined } from "@ant-design/icons";
import { Button, Switch } from "antd";
import { usePrefs } from "../prefs";
import { ChoiceField, Field } from "../record/field";
import { useField } from "../record/use-field";
import { Ask } from "../shared/ask";
import { FindSelect } from "../shared/find-select";
import { usePaused } from "../shared/pace";
import { Photos } from "../shared/photos";
import { TimeField } from "../shared/time-field";
import { Choices } from "./choices";
import { usePiece } from "./context";
import { EachWeight } from "./each-weight";
import { GrainMark } from "./grain-mark";
import "./piece-stage.css";

/** The meat before anything goes on it: cut, weight, trim, thickness. */
export function PieceStage({ index }: { index: number }) {
	const { piece, figures, at, count, edit, wrong, catalogue, change, goto, undoable, isNew, cook } =
		usePiece(index);
	const [{ units }] = usePrefs();
	const serve = useField(at("serve_at"));
	const cutField = useField(at("cut"));
	const choices = useField(at("choices"));
	const together = useField(at("together"));
	const cut = catalogue.cuts.find((c) => c.id === piece.cut);
	const meat = figures?.meat;
	const weighed = usePaused(Boolean(piece.trimmed));
	const unlike = (piece.each?.length ?? 0) > 0;
	const noun = cut?.noun ?? "piece";
	return (
		<>
			<h2>
				{count > 1 ? `${count} × ` : ""}
				{piece.label || cut?.name}
			</h2>
			{meat && (
				<div className="amounts">
					<div>
						<Ask size="huge" name="Weight after trimming" figure={meat.green} />
						<p>
							{count > 1 ? (
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
						<p>
							{piece.thickness ? "at its thickest" : "thickest, estimated"};{" "}
							<Ask name="Thickness of the block" figure={meat.block} /> on average
						</p>
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
					<FindSelect
						aria-labelledby="cut-label"
						variant="underlined"
						size="large"
						value={piece.cut}
						onChange={(id) => {
							cutField.set(id);
							// What was chosen for another cut may not be for this one.
							choices.set(piece.choices?.state ? { state: piece.choices.state } : undefined);
						}}
						options={catalogue.cuts.map((c) => ({ value: c.id, label: c.name, names: [c.name, ...c.also] }))}
					/>
					{wrong("cut") && <p className="typed-error">{wrong("cut")}</p>}
				</div>
				{!unlike && <Field label="How many" inputMode="numeric" at={at("count")} usual="1" />}
				<Field label="Your own name for it" at={at("label")} usual={cut?.name} />
			</div>
			{(count > 1 || unlike) && (
				<div className="piece-switches">
					{/* biome-ignore lint/a11y/noLabelWithoutControl: the switch inside is the control */}
					<label className="piece-together">
						<Switch
							checked={unlike}
							onChange={(on) =>
								edit((p) => {
									const one = {
										bought: p.together ? "" : p.bought,
										trimmed: p.together ? "" : p.trimmed,
										thickness: p.thickness,
									};
									p.each = on ? Array.from({ length: count }, () => ({ ...one })) : undefined;
								})
							}
						/>
						each has its own weight
					</label>
					{count > 1 && !unlike && (
						// biome-ignore lint/a11y/noLabelWithoutControl: the switch inside is the control
						<label className="piece-together">
							<Switch checked={piece.together} onChange={together.set} />
							weighed all together
						</label>
					)}
				</div>
			)}
			{unlike && <EachWeight index={index} />}
			<div className="fields">
				{!unlike && (
					<>
						<Field
							label={
								piece.together && count > 1
									? "Weight as bought, all together"
									: count > 1
										? `Weight as bought, one ${noun}`
										: "Weight as bought"
							}
							at={at("bought")}
							usual="2.4 kg or 5 lb 4 oz"
						/>
						<Field
							label="After trimming, if weighed"
							at={at("trimmed")}
							usual={meat ? (piece.together ? meat.all_green.text : meat.green.text) : "not weighed"}
						/>
						<Field
							label="Thickest point, if measured"
							at={at("thickness")}
							usual={meat?.thickness.text ?? "85 mm or 3 1/4 in"}
						/>
					</>
				)}
			</div>
			<div className="fields">
				<TimeField
					label="Served at, if not with the rest"
					at={at("serve_at")}
					zone={cook.zone}
					near={cook.serve_at}
					value={piece.serve_at ?? ""}
					error={wrong("serve_at")}
					onChange={serve.set}
				/>
			</div>
			<div className="decisions">
				{!weighed && (
					<ChoiceField
						label="Trim"
						at={at("trim_style")}
						usual="usual"
						options={[
							{
								value: "light",
								label: "light",
								note: `hard fat and silver skin only, −${cut?.trim_loss.low} %`,
							},
							{
								value: "usual",
								label: "as usual",
								note: `cap to about ${units === "us" ? "¼ in" : "6 mm"}, −${cut?.trim_loss.mid} %`,
							},
							{ value: "close", label: "close", note: `bare meat on top, −${cut?.trim_loss.high} %` },
						]}
					/>
				)}
				<ChoiceField
					label="Where the coat goes"
					at={at("faces")}
					usual={cut?.sealed ? "one" : "all"}
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
			<Photos piece={piece.key ?? ""} title={piece.label || "this piece"} unsaved={isNew} />
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
					const back = change((c) => {
						const [gone] = c.pieces.splice(index, 1);
						// A time that was fixed for it has nothing to be of any more.
						if (gone) c.wishes = c.wishes?.filter((w) => w.piece !== gone.key);
					});
					undoable(`${piece.label || cut?.name} is off this cook-out.`, back);
					goto("occasion");
				}}
			>
				Take this piece off
			</Button>
		</>
	);
}
