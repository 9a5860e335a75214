import { CloseOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input, Select } from "antd";
import { useMemo } from "react";
import type { Shelf } from "../api/client";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { TypedField } from "../shared/typed-field";
import { layerFills } from "../theme";
import { usePiece } from "./context";
import { Strata } from "./strata";
import "./season-stage.css";

const shelfValue = (ingredient: string, form: string) => `${ingredient}|${form}`;

/** Every ingredient in every form, as choices of one list. */
function useShelfOptions(shelf: Shelf) {
	return useMemo(
		() =>
			shelf.ingredients.flatMap((i) =>
				i.forms.map((f) => ({ value: shelfValue(i.id, f.name), label: `${i.name}, ${f.name}` })),
			),
		[shelf],
	);
}

/** The rub: what is in it, what drives the amount, and every gram of it. */
export function SeasonStage({ index }: { index: number }) {
	const { piece, figures, edit, wrong, shelf, undoable, cook } = usePiece(index);
	const options = useShelfOptions(shelf);
	const season = piece.season;
	const formula = season.formula;
	const out = figures?.season;
	const mode = season.mode || out?.usual_mode || "coat";
	const house = shelf.formulas.find((f) => f.id === formula.id);
	const fills = layerFills(
		formula.rows.map((r) => shelf.ingredients.find((i) => i.id === r.ingredient)?.kind ?? "spice"),
	);
	const rowError = (i: number) =>
		wrong(`season/formula/rows/${i}/parts`) ??
		wrong(`season/formula/rows/${i}/ingredient`) ??
		wrong(`season/formula/rows/${i}/form`);
	return (
		<>
			<h2>
				Salt and season: {piece.count > 1 ? `${piece.count} × ` : ""}
				{figures?.title || "the piece"}
			</h2>
			<div className="season-top">
				<div>
					<div className="season-formula">
						<Select
							aria-label="Formula"
							variant="underlined"
							size="large"
							value={house ? formula.id : formula.name || "own"}
							popupMatchSelectWidth={340}
							onChange={(id) => {
								const f = shelf.formulas.find((one) => one.id === id);
								if (!f) return;
								edit((p) => {
									p.season.formula = {
										id: f.id ?? "",
										name: f.name,
										note: f.note ?? "",
										basis: f.basis,
										rows: structuredClone(f.rows ?? []),
									};
									p.season.mode = "";
								});
							}}
							options={[
								...(house ? [] : [{ value: formula.name || "own", label: formula.name || "your own mix" }]),
								...shelf.formulas.map((f) => ({ value: f.id, label: f.name })),
							]}
						/>
						<Choice
							label="What a part is"
							quiet
							value={formula.basis}
							error={wrong("season/formula/basis")}
							onChange={(v) =>
								edit((p) => {
									p.season.formula.basis = v as "volume";
								})
							}
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
										on the meat; mix <b>{out.to_mix.text} g</b>
									</p>
								</div>
								<div>
									<Ask size="huge" name="Salt of the rub" figure={out.salt} />
									<p>of it salt</p>
								</div>
								<div>
									<Ask size="huge" name="Salt in the meat" figure={out.percent} />
									<p>salt in the meat</p>
								</div>
							</>
						) : (
							<p className="says">The amounts appear when nothing above or below is marked.</p>
						)}
					</div>
				</div>
				{out && <Strata season={out} fills={fills} />}
			</div>
			<div className="season-drive">
				<Choice
					label="What drives the amount"
					value={mode}
					error={wrong("season/mode")}
					onChange={(v) =>
						edit((p) => {
							p.season.mode = v;
						})
					}
					options={[
						{ value: "target", label: "target salt" },
						{ value: "coat", label: "coat" },
					]}
				/>
				{mode === "target" ? (
					<TypedField
						label="Salt in the meat"
						value={season.target}
						usual={shelf.usual.target}
						error={wrong("season/target") ?? wrong("season")}
						hint={
							out && (
								<>
									{out.coat_words}, <Ask name="Coat" figure={out.coat} />
								</>
							)
						}
						onChange={(v) =>
							edit((p) => {
								p.season.target = v;
							})
						}
					/>
				) : (
					<Choice
						label={`Coat${out ? `, ${out.coat.text} mL on a dm²` : ""}`}
						value={season.coat || "medium"}
						error={wrong("season/coat")}
						onChange={(v) =>
							edit((p) => {
								p.season.coat = v;
							})
						}
						options={shelf.coats.map((c) => ({ value: c.name, label: c.name }))}
					/>
				)}
				<Choice
					label="Binder"
					value={season.binder ? "yes" : "no"}
					onChange={(v) =>
						edit((p) => {
							p.season.binder = v === "yes";
						})
					}
					options={[
						{ value: "no", label: "none" },
						{ value: "yes", label: "binder" },
					]}
				/>
				<TypedField
					label="Mixed over"
					value={season.spare}
					usual={shelf.usual.spare}
					error={wrong("season/spare")}
					onChange={(v) =>
						edit((p) => {
							p.season.spare = v;
						})
					}
				/>
			</div>
			{out?.too_thick && (
				<p className="typed-error">
					That is {out.coat.text} mL on every dm²: more than the surface holds. Choose a saltier mix or a
					lower target.
				</p>
			)}
			<ul className="rows" aria-label="Ingredients">
				<li className="rows-head" aria-hidden>
					<span>parts</span>
					<span>ingredient</span>
					<span>spoons</span>
					<span>weigh</span>
				</li>
				{formula.rows.map((row, i) => {
					const r = out?.rows[i];
					const bad = rowError(i);
					const value = shelfValue(row.ingredient, row.form);
					const name = shelf.ingredients.find((one) => one.id === row.ingredient)?.name ?? "this ingredient";
					return (
						// biome-ignore lint/suspicious/noArrayIndexKey: rows are told apart by their place
						<li key={i} className="row">
							<span
								className={`swatch${fills[i] === "salt" ? " swatch-salt" : ""}`}
								style={fills[i] === "salt" ? undefined : { background: fills[i] }}
								aria-hidden
							/>
							<Input
								variant="underlined"
								className="row-parts"
								value={row.parts}
								status={wrong(`season/formula/rows/${i}/parts`) ? "error" : undefined}
								aria-invalid={Boolean(bad)}
								aria-label={`Parts of ${name}`}
								maxLength={40}
								onChange={(e) =>
									edit((p) => {
										const own = p.season.formula.rows[i];
										if (own) own.parts = e.target.value;
									})
								}
							/>
							<Select
								className="row-what"
								variant="borderless"
								aria-label={`Ingredient ${i + 1}`}
								value={value}
								showSearch={{ optionFilterProp: "label" }}
								popupMatchSelectWidth={320}
								options={options}
								onChange={(v: string) =>
									edit((p) => {
										const [ingredient = "", form = ""] = v.split("|");
										const own = p.season.formula.rows[i];
										if (own) Object.assign(own, { ingredient, form });
									})
								}
							/>
							<span className="row-spoons">
								{r?.spoons.text}
								{r?.spoons.note && <small>{r.spoons.note}</small>}
							</span>
							<span className="row-grams">
								{r && <Ask size="large" name={`${r.name}, ${r.form}`} figure={r.mass} />}
							</span>
							<Button
								type="text"
								icon={<CloseOutlined />}
								aria-label={`Leave out ${name}`}
								onClick={() => {
									const before = structuredClone(cook);
									edit((p) => void p.season.formula.rows.splice(i, 1));
									undoable(`The ${name} is out of the mix.`, before);
								}}
							/>
							{bad && <p className="typed-error row-error">{bad}</p>}
						</li>
					);
				})}
			</ul>
			{wrong("season/formula/rows") && <p className="typed-error">{wrong("season/formula/rows")}</p>}
			<div className="season-foot">
				<Select
					className="row-add"
					variant="underlined"
					aria-label="Add an ingredient"
					placeholder="Add an ingredient"
					value={null}
					suffixIcon={<PlusOutlined />}
					showSearch={{ optionFilterProp: "label" }}
					options={options}
					onChange={(v: string | null) => {
						if (!v) return;
						const [ingredient = "", form = ""] = v.split("|");
						edit((p) => void p.season.formula.rows.push({ ingredient, form, parts: "1" }));
					}}
				/>
				{out && (
					<p className="says">
						{out.spoons} in all, level. {house?.note}
					</p>
				)}
			</div>
		</>
	);
}
