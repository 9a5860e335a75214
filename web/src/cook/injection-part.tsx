import { WarningFilled } from "@ant-design/icons";
import { Checkbox } from "antd";
import type { Injection } from "../api/client";
import { RowsEditor, rowFills } from "../bench/rows-editor";
import { single } from "../bench/use-formulas";
import { Field } from "../record/field";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { usePiece } from "./context";
import { DoseSelect } from "./dose-select";
import { NeedleGrid } from "./needle-grid";
import { Pockets } from "./pockets";
import "./brine-stage.css";

const newInjection = (): Injection => ({
	formula: single("stock", "liquid", "ready stock"),
	amount: "",
	pump: "",
	spacing: "",
	syringe: "",
	bore: "",
	avoid: [],
});

/** Brine through the needle: how much, where, and how far it spreads. */
export function InjectionPart({ index }: { index: number }) {
	const { piece, figures, at, edit, wrong, catalogue, undoable } = usePiece(index);
	const n = piece.inject;
	const out = figures?.inject;
	const put = (next: Partial<Injection>) =>
		edit((p) => {
			if (p.inject) p.inject = { ...p.inject, ...next };
		});
	return (
		<section className="injection">
			<h2>Injection</h2>
			<Choice
				label="Injection or none"
				quiet
				value={n ? "yes" : ""}
				onChange={(v) =>
					edit((p) => {
						p.inject = v === "" ? undefined : newInjection();
					})
				}
				options={[
					{ value: "", label: "none" },
					{
						value: "yes",
						label: "inject",
						note: "for lean or big cuts: along the grain, never through the skin",
					},
				]}
			/>
			{n && (
				<>
					<div className="injection-top">
						<div>
							<DoseSelect
								label="What is injected"
								value={n.formula}
								catalogue={catalogue}
								onChange={(formula) => put({ formula })}
							/>
							{out && (
								<div className="amounts">
									<div>
										<Ask size="huge" name="Injected into one piece" figure={out.volume} />
										<p>
											into one; mix <Ask name="Injection to mix" figure={out.batch} />
										</p>
									</div>
									<div>
										<Ask size="huge" name="mL a site" figure={out.per_site} />
										<p>
											at each of <Ask name="Sites" figure={out.sites} />
										</p>
									</div>
									<div>
										<Ask size="huge" name="Salt of the injection" figure={out.salt} />
										<p>salt that stays</p>
									</div>
								</div>
							)}
							<div className="fields fields-four">
								<Field
									label="How much, for all"
									at={at("inject/amount")}
									usual="by pump; or 6 cups, 200 mL each"
									hint={out?.pump}
								/>
								{!n.amount?.trim() && (
									<Field label="Pump, of the meat" at={at("inject/pump")} usual={catalogue.usual.pump} />
								)}
								<Field label="Grid" at={at("inject/spacing")} usual={catalogue.usual.spacing} />
								<Field label="Syringe" at={at("inject/syringe")} usual={catalogue.usual.syringe} />
								<Field label="Needle bore" at={at("inject/bore")} usual={catalogue.usual.bore} />
							</div>
						</div>
						{out && <NeedleGrid injection={out} />}
					</div>
					<fieldset className="avoid">
						<legend>Keep the needle out of</legend>
						{catalogue.avoid.map((a) => (
							<Checkbox
								key={a.place}
								checked={n.avoid?.includes(a.place)}
								onChange={(e) =>
									put({
										avoid: e.target.checked
											? [...(n.avoid ?? []), a.place]
											: (n.avoid ?? []).filter((one) => one !== a.place),
									})
								}
							>
								{a.label}
							</Checkbox>
						))}
						{out && <p className="says">{out.keep_out}</p>}
					</fieldset>
					{out?.left_over && <p className="says">{out.left_over}</p>}
					<RowsEditor
						at={at("inject/formula/rows")}
						rows={n.formula.rows}
						figures={out?.rows}
						fills={rowFills(n.formula.rows, catalogue)}
						catalogue={catalogue}
						wrong={(place) => wrong(`inject/formula/rows${place}`)}
						onChange={(rows) =>
							edit((p) => {
								if (p.inject) p.inject.formula = { ...p.inject.formula, rows };
							})
						}
						onRemoved={(name, back) => undoable(`${name} is out of the injection.`, back)}
					/>
					{out && <Pockets spread={out.spread} note={out.spreads} />}
					{out && (
						<>
							<p className={out.clogs ? "typed-error" : "says"}>
								{out.clogs && <WarningFilled aria-hidden />} {out.bore_note}
							</p>
							<p className="says">
								{out.refills.text} syringes for one. {out.runs_out} {out.warm_note} After the wait the meat
								between two sites has <Ask name="How even the pockets are" figure={out.even} /> of the average
								salt.
							</p>
						</>
					)}
				</>
			)}
		</section>
	);
}
