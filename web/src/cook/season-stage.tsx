import { ArrowRightOutlined } from "@ant-design/icons";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { Link } from "react-router";
import { api, need } from "../api/client";
import { whole } from "../bench/formula";
import { RowsEditor, rowFills } from "../bench/rows-editor";
import { useOwnFormulas } from "../bench/use-formulas";
import { ChoiceField, Field, YesNoField } from "../record/field";
import { useField } from "../record/use-field";
import { Ask } from "../shared/ask";
import { FindSelect } from "../shared/find-select";
import { useMessage } from "../shared/messages";
import { usePaused } from "../shared/pace";
import { usePiece } from "./context";
import { FreeSource } from "./free-source";
import { FromJar } from "./from-jar";
import { LayersEditor } from "./layers-editor";
import { Strata } from "./strata";
import "./season-stage.css";

/** The rub: what is in it, how the amount is set, and every gram of it. */
export function SeasonStage({ index }: { index: number }) {
	const { piece, figures, at, count, edit, wrong, catalogue, undoable, cook, goto } = usePiece(index);
	const season = piece.season;
	const weighed = useField(at("weighed"));
	const formula = season.formula;
	const out = figures?.season;
	// What comes and goes above the rows waits for a pause in typing.
	const habit = usePaused(out?.habit);
	const tooThick = usePaused(out?.too_thick ? `${out.coat.text} ${out.coat.unit}` : "");
	const mode = season.mode || out?.usual_mode || "coat";
	const house = catalogue.formulas.find((f) => f.id === formula.id);
	const mine = useOwnFormulas(true).filter((f) => f.kind === "rub" || f.kind === "base");
	const known = house ?? mine.find((f) => String(f.id) === formula.id);
	// A rub whose rows were changed is a mix of its own.
	const still = formula.id !== "" && out?.formula_id !== "";
	const message = useMessage();
	const queries = useQueryClient();
	const none = formula.rows.length === 0;
	const take = async (id: string) => {
		if (id === "none") {
			edit((p) => {
				p.season.formula = whole({ name: "", basis: formula.basis, rows: [] });
				p.season.mode = "";
				p.weighed = undefined;
			});
			return;
		}
		const told =
			catalogue.formulas.find((f) => f.id === id) ??
			need(await api.GET("/api/formulas/{id}", { params: { path: { id } } })).doc;
		edit((p) => {
			p.season.formula = whole(told);
			p.season.mode = "";
			p.weighed = undefined;
		});
	};
	const keep = useMutation({
		mutationFn: async () =>
			need(
				await api.POST("/api/formulas", {
					body: {
						...formula,
						spoons: formula.spoons ?? cook.spoons,
						name: out?.name || formula.name || "A mix from a cook-out",
					},
				}),
			),
		onSuccess: (made) => {
			queries.invalidateQueries({ queryKey: ["formulas"] });
			edit((p) => {
				p.season.formula = whole(made.doc);
			});
			message.success(
				<>
					It is on your bench. <Link to={`/bench/${made.id}`}>Open it there</Link>
				</>,
			);
		},
		onError: (e) => message.error(e.message),
	});
	const fills = rowFills(formula.rows, catalogue);
	return (
		<>
			<h2>
				Salt and season: {count > 1 ? `${count} × ` : ""}
				{figures?.title || "the piece"}
			</h2>
			<div className="season-top">
				<div>
					<div className="season-formula">
						<FindSelect
							aria-label="Formula"
							variant="underlined"
							size="large"
							value={none ? "none" : still ? formula.id : "own"}
							popupMatchSelectWidth={340}
							onChange={(id) => take(id)}
							options={[
								...(none || (still && known)
									? []
									: [
											{
												value: (still && formula.id) || "own",
												label: out?.name || formula.name || "your own mix",
											},
										]),
								...mine.map((f) => ({ value: String(f.id), label: f.name })),
								...catalogue.formulas.map((f) => ({ value: f.id ?? "", label: f.name })),
								{ value: "none", label: "no rub" },
							]}
						/>
						<ChoiceField
							label="What a part is"
							quiet
							at={at("season/formula/basis")}
							options={[
								{ value: "volume", label: "parts by volume" },
								{ value: "weight", label: "by weight" },
							]}
						/>
					</div>
					<div className="amounts">
						{out ? (
							<>
								<div>
									<Ask size="huge" name="Rub on the meat" figure={out.on_meat} />
									<p>
										on the meat; {out.weighed ? "weighed" : mode === "amount" ? "you use" : "mix"}{" "}
										<Ask name="Rub to mix" figure={out.to_mix} />
									</p>
								</div>
								<div>
									<Ask size="huge" name="Salt of the rub" figure={out.salt} />
									<p>
										of it salt, <Ask name="Salt in the mix" figure={out.salt_share} />
									</p>
								</div>
								{out.percent && (
									<div>
										<Ask size="huge" name="Salt in the meat" figure={out.percent} />
										<p>salt in the meat</p>
									</div>
								)}
							</>
						) : none ? (
							<p className="says">No rub on this piece. Add a row below, or choose a formula.</p>
						) : (
							<p className="says">
								{figures ? "Fix the fields marked in red to see the amounts." : "Working it out…"}
							</p>
						)}
					</div>
				</div>
				{out && <Strata season={out} fills={fills} />}
			</div>
			{!none && (
				<div className="season-drive">
					<ChoiceField
						label="Set the amount by"
						at={at("season/mode")}
						usual={mode}
						options={[
							{ value: "target", label: "target salt" },
							{ value: "coat", label: "coat" },
							{ value: "amount", label: "amount" },
						]}
					/>
					{mode === "target" ? (
						<Field
							label="Salt in the meat"
							at={at("season/target")}
							usual={catalogue.usual.target}
							error={wrong("season")}
							hint={
								out && (
									<>
										{out.coat_name}, <Ask name="Coat" figure={out.coat} />
									</>
								)
							}
						/>
					) : mode === "amount" ? (
						<Field
							label={count > 1 ? "How much goes on all of them" : "How much goes on"}
							at={at("season/amount")}
							usual="3/4 cup, 85 g, 1 Tbsp/lb, all of it"
							error={wrong("season")}
							hint={
								out && (
									<>
										{out.coat_name}, <Ask name="Coat" figure={out.coat} />
									</>
								)
							}
						/>
					) : (
						<ChoiceField
							label="Coat"
							at={at("season/coat")}
							usual={catalogue.usual.coat}
							options={catalogue.coats.map((c) => ({ value: c.name, label: c.name }))}
						/>
					)}
					<YesNoField
						label="Binder"
						at={at("season/binder")}
						no={{ label: "none" }}
						yes={{ label: "binder" }}
					/>
					{mode !== "amount" && (
						<Field label="Spare mix" at={at("season/spare")} usual={catalogue.usual.spare} />
					)}
				</div>
			)}
			{mode === "target" && <FreeSource index={index} />}
			{habit && <p className="says">{habit}</p>}
			{tooThick && (
				<p className="typed-error">
					That is {tooThick}: more than the surface holds.{" "}
					{mode === "target" ? "Choose a saltier mix or a lower target." : "Use less of it."}
				</p>
			)}
			<RowsEditor
				at={at("season/formula/rows")}
				// What was weighed no longer fits a mix that was changed.
				onTyped={() => piece.weighed && weighed.set(undefined)}
				rows={formula.rows}
				figures={out?.rows}
				fills={fills}
				catalogue={catalogue}
				wrong={(place) => wrong(`season/formula/rows${place}`)}
				onChange={(rows) =>
					edit((p) => {
						p.season.formula.rows = rows;
						p.weighed = undefined;
					})
				}
				nestable={[
					...mine.map((f) => ({ id: String(f.id), name: f.name })),
					...catalogue.formulas.map((f) => ({ id: f.id ?? "", name: f.name })),
				]}
				onRemoved={(name, back) => undoable(`${name} is out of the mix.`, back)}
			>
				{out && (
					<p className="says">
						{out.spoons} in all, level: {out.coat_name}, <Ask name="Coat" figure={out.coat} />.{" "}
						<Button type="link" loading={keep.isPending} onClick={() => keep.mutate()}>
							Keep this mix on the bench
						</Button>
					</p>
				)}
			</RowsEditor>
			{out?.cost && (
				<p className="says">
					The mix costs <Ask name="What the mix costs" figure={out.cost.total} />
					{out.cost.note && `, ${out.cost.note}`}.
				</p>
			)}
			{out && (
				<Button type="primary" className="season-weigh" onClick={() => goto("weigh", index)}>
					{out.weighed ? "Weighed out" : "Weigh it out"} <ArrowRightOutlined />
				</Button>
			)}
			<FromJar index={index} />
			<LayersEditor index={index} />
		</>
	);
}
