import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button, Select } from "antd";
import { useMemo } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, type Catalogue, need } from "../api/client";
import { useCatalogue } from "../api/use-catalogue";
import { Strata } from "../cook/strata";
import { SaveAs } from "../exchange/save-as";
import { Field } from "../record/field";
import { type Written, WrittenContext } from "../record/use-field";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { useMessage } from "../shared/messages";
import { Nothing } from "../shared/nothing";
import { useUndo } from "../shared/use-undo";
import { BatchFields } from "./batch-fields";
import { RowsEditor, rowFills } from "./rows-editor";
import { useFormula } from "./use-formula";
import { useOwnFormulas } from "./use-formulas";
import { Versions } from "./versions";
import "./bench.css";

/** One formula: what is in it, what that adds up to, and how much of it to make. */
export default function FormulaPage() {
	const { id = "new" } = useParams();
	const catalogue = useCatalogue();
	if (!catalogue.data) return <p className="loading">Opening…</p>;
	return <FormulaInHand key={id} id={id} catalogue={catalogue.data} />;
}

function FormulaInHand({ id, catalogue }: { id: string; catalogue: Catalogue }) {
	const navigate = useNavigate();
	const message = useMessage();
	const queries = useQueryClient();
	const undo = useUndo();
	const hand = useFormula(id, catalogue);
	const mine = useOwnFormulas();
	const nestable = useMemo(
		() => [
			...mine.filter((f) => String(f.id) !== id).map((f) => ({ id: String(f.id), name: f.name })),
			...catalogue.formulas.filter((f) => f.id !== id).map((f) => ({ id: f.id ?? "", name: f.name })),
		],
		[mine, catalogue, id],
	);
	const { formula, sheet, change, wrong, offers } = hand;
	const fill = useMutation({
		mutationFn: async () => {
			const batch = sheet?.batch;
			if (!formula || !batch) throw new Error("There is no batch yet.");
			return need(
				await api.POST("/api/jars", {
					body: { formula, made: "", amount: `${batch.text} g`, note: "", draws: [] },
				}),
			);
		},
		onSuccess: () => {
			queries.invalidateQueries({ queryKey: ["jars"] });
			navigate("/jars");
		},
		onError: (e) => message.error(e.message),
	});
	const written = useMemo<Written | null>(
		() =>
			hand.typing
				? {
						typing: hand.typing as Written["typing"],
						wrong: (at) => wrong(`/formula${at}`),
						offers,
					}
				: null,
		[hand.typing, wrong, offers],
	);
	const unknown = hand.failure || (!hand.own && id !== "new" && !hand.shipped);
	if (unknown) return <Nothing title="There is no such formula" />;
	if (!formula || !written) return <p className="loading">Opening…</p>;
	const fills = rowFills(formula.rows, catalogue);
	const keep = async () => {
		const made = await hand.save();
		if (made === undefined) return;
		message.success(hand.own ? "A new version is on the bench." : "It is on your bench.");
		if (!hand.own) navigate(`/bench/${made}`, { replace: true });
	};
	const say = hand.own ? "Save as a new version" : hand.shipped ? "Make it mine" : "Put it on the bench";
	return (
		<WrittenContext value={written}>
			<div className="formula-head">
				<h1>{formula.name || "A new formula"}</h1>
				<p role="status" className="muted">
					{hand.dirty ? "changed; kept on this screen" : hand.own ? "on the bench" : ""}
				</p>
				{hand.own && hand.dirty && <Button onClick={hand.revert}>Undo the changes</Button>}
				<Button
					type="primary"
					size="large"
					disabled={(hand.own && !hand.dirty) || (sheet?.errors.length ?? 0) > 0}
					onClick={keep}
				>
					{say}
				</Button>
			</div>
			{hand.problem && (
				<p className="typed-error" role="alert">
					{hand.problem.message}
				</p>
			)}
			<div className="formula-sheet">
				<section>
					<div className="formula-names">
						<Field label="Name" size="large" at="/name" blank={!formula.name && !hand.dirty} />
						<Field label="Note" at="/note" usual="what it is for" />
						<div className="typed">
							<label htmlFor="formula-tags">Tags</label>
							<Select
								id="formula-tags"
								mode="tags"
								variant="underlined"
								className="formula-tags"
								aria-label="Tags"
								value={formula.tags}
								tokenSeparators={[","]}
								open={false}
								suffixIcon={null}
								onChange={(tags) => change({ tags })}
							/>
							<div className="typed-note">
								{wrong("/formula/tags") && <span className="typed-error">{wrong("/formula/tags")}</span>}
							</div>
						</div>
					</div>
					<div className="formula-choices">
						<Choice
							label="Kind"
							value={formula.kind || "rub"}
							error={wrong("/formula/kind")}
							onChange={(kind) => change({ kind: kind as "rub" })}
							options={catalogue.usual.formula_kinds.map((k) => ({ value: k, label: k }))}
						/>
						<Choice
							label="A bare number counts"
							value={formula.basis}
							error={wrong("/formula/basis")}
							onChange={(basis) => change({ basis: basis as "volume" })}
							options={[
								{ value: "volume", label: "parts by volume" },
								{ value: "weight", label: "parts by weight" },
							]}
						/>
					</div>
					<RowsEditor
						at="/rows"
						rows={formula.rows}
						figures={sheet?.ready ? sheet.rows : undefined}
						rounded={sheet?.rounded}
						fills={fills}
						catalogue={catalogue}
						nestable={nestable}
						wrong={(place) => wrong(`/formula/rows${place}`)}
						onChange={(rows) => change({ rows })}
						onRemoved={(name, back) => undo(`${name} is out of the mix.`, back)}
					>
						<p className="says">
							Write parts (2), grams (10 g), percent of the whole (5 %) or a measure (1 Tbsp), in any mix.
						</p>
					</RowsEditor>
					{sheet?.round_note && <p className="says">{sheet.round_note}</p>}
					<BatchFields
						formula={formula}
						batch={hand.batch}
						onChange={hand.setBatch}
						wrong={(place) => wrong(`/batch${place}`)}
						catalogue={catalogue}
					/>
				</section>
				<aside className="formula-totals">
					{sheet?.ready ? (
						<>
							<Strata season={sheet} fills={fills} />
							<div className="amounts">
								<div>
									<Ask size="huge" name="This batch" figure={sheet.batch} />
									<p>this batch, {sheet.spoons}</p>
								</div>
								{sheet.cost && (
									<div>
										<Ask size="large" name="What this batch costs" figure={sheet.cost.total} />
										<p>it costs</p>
										{sheet.cost.note && <p>{sheet.cost.note}</p>}
									</div>
								)}
							</div>
							<Button className="formula-jar" loading={fill.isPending} onClick={() => fill.mutate()}>
								Put this batch in a jar
							</Button>
							<dl>
								{sheet.totals.map((t) => (
									<div key={t.name}>
										<dt>
											{t.name} <span>{t.amount}</span>
										</dt>
										<dd>
											<Ask name={`${t.name} by weight`} figure={t.share} />
										</dd>
									</div>
								))}
								<div>
									<dt>a level Tbsp weighs</dt>
									<dd>
										<Ask name="A level tablespoon" figure={sheet.spoon} />
									</dd>
								</div>
								<div>
									<dt>salt in it</dt>
									<dd>
										<Ask name="Salt in a level tablespoon" figure={sheet.spoon_salt} />
									</dd>
								</div>
							</dl>
							<p className="says">
								Largest grain: {sheet.coarse}. {sheet.keeping}{" "}
								{!sheet.cost && <Link to="/larder">Enter your prices</Link>}
							</p>
							<p className="says">{sheet.contains}</p>
						</>
					) : (
						<p className="muted">Fix the fields marked in red to see the numbers.</p>
					)}
					<p>
						<Link to={`/bench/${id}/card`} state={{ formula, batch: hand.batch }}>
							A card to print
						</Link>
					</p>
					<SaveAs formula={formula} />
					{hand.own && <Versions id={id} onTake={(old) => change({ ...old, id: "" })} />}
				</aside>
			</div>
		</WrittenContext>
	);
}
