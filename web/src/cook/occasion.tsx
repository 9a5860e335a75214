import { ArrowRightOutlined, PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { ChoiceField, Field } from "../record/field";
import { useField } from "../record/use-field";
import { Ask } from "../shared/ask";
import { TimeField } from "../shared/time-field";
import { useInHand } from "./context";
import "./occasion.css";

/** Who eats, how many, when: serving time is what everything is counted back from. */
export function Occasion() {
	const { cook, change, error, catalogue, sheet, isNew, goto, undoable } = useInHand();
	const serve = useField("/serve_at");
	const blank = isNew && cook.name === "";
	return (
		<>
			<h2>Who eats, and when?</h2>
			<div className="occasion-fields">
				<Field
					label="Name of this cook-out"
					size="large"
					at="/name"
					autoFocus={blank}
					blank={blank}
					hint={blank ? "Give it a name and it is saved as you go" : undefined}
				/>
				<TimeField
					label={`Serving at${cook.zone ? ` (${cook.zone.replace("_", " ")} time)` : ""}`}
					size="large"
					at="/serve_at"
					value={cook.serve_at}
					error={error("/serve_at") ?? error("/zone")}
					hint={sheet?.away}
					onChange={serve.set}
				/>
				<Field label="Adults" size="large" inputMode="numeric" at="/guests" hint={sheet?.verdict} />
			</div>
			<div className="fields fields-four">
				<Field label="Children" inputMode="numeric" at="/children" usual="none" />
				<Field label="Portions for later" inputMode="numeric" at="/leftovers" usual="none" />
				<ChoiceField
					label="Appetite"
					at="/appetite"
					usual="usual"
					options={catalogue.usual.appetites.map((a) => ({ value: a, label: a }))}
				/>
			</div>
			<div className="fields">
				<Field label="Cooked meat for one" at="/portion" usual={catalogue.usual.portion} />
				<Field label="Your fridge is at" at="/fridge" usual={catalogue.usual.fridge} />
				<Field label="The counter is at" at="/room" usual={catalogue.usual.room} />
			</div>
			{cook.pieces.length > 0 && sheet && (
				<table className="plates">
					<caption>On the fire</caption>
					<thead>
						<tr>
							<th scope="col">piece</th>
							<th scope="col">to buy</th>
							<th scope="col">portions</th>
							<th scope="col">salt in the meat</th>
							<th scope="col">costs</th>
						</tr>
					</thead>
					<tbody>
						{sheet.pieces.map((p, i) => (
							// biome-ignore lint/suspicious/noArrayIndexKey: pieces are told apart by their place
							<tr key={i}>
								<th scope="row">
									<button type="button" onClick={() => goto("piece", i)}>
										{p.count > 1 ? `${p.count} × ` : ""}
										{p.title || "a piece"}
									</button>
								</th>
								<td>
									{sheet.buy[i]?.buy.text && <Ask name="Raw weight to buy" figure={sheet.buy[i].buy} />}
								</td>
								<td>
									{p.meat && (
										<Ask name="Portions" figure={p.meat.servings}>
											{p.meat.servings.text}
										</Ask>
									)}
								</td>
								<td>{p.ledger && <Ask name="Salt in the meat" figure={p.ledger.percent} />}</td>
								<td>{sheet.buy[i]?.cost && <Ask name="What it costs" figure={sheet.buy[i].cost.total} />}</td>
							</tr>
						))}
					</tbody>
					<tfoot>
						<tr>
							<th scope="row">together</th>
							<td />
							<td>
								<Ask name="Portions in all" figure={sheet.servings}>
									{sheet.servings.text}
								</Ask>
							</td>
							<td className={sheet.short ? "plates-short" : undefined}>{sheet.verdict}</td>
							<td>
								{sheet.cost && <Ask name="What all of it costs" figure={sheet.cost.total} />}
								{sheet.cost_per_portion && <small>{sheet.cost_per_portion}</small>}
							</td>
						</tr>
					</tfoot>
				</table>
			)}
			{sheet && cook.pieces.length > 0 && sheet.portions_needed.value > 0 && (
				<p className="says plates-buy">
					You need <Ask name="Portions needed" figure={sheet.portions_needed} />. “To buy” scales these pieces
					so that everyone eats.{" "}
					<Button
						onClick={() => {
							const back = change((c) => {
								c.pieces.forEach((p, i) => {
									const line = sheet.buy[i];
									if (!line?.typed) return;
									p.bought = line.typed;
									p.count = line.count;
									p.trimmed = "";
									p.thickness = "";
									p.each = undefined;
								});
							});
							undoable("The weights now feed everyone.", back);
						}}
					>
						Use these weights
					</Button>
				</p>
			)}
			<div className="occasion-next">
				<Button
					type={cook.pieces.length === 0 ? "primary" : "default"}
					size="large"
					icon={<PlusOutlined />}
					onClick={() => goto("add")}
				>
					Add a piece of meat
				</Button>
				{cook.pieces.length > 0 && (
					<Button size="large" onClick={() => goto("plan")}>
						The plan
					</Button>
				)}
				{cook.pieces.length > 0 && (
					<Button type="primary" size="large" onClick={() => goto("season", 0)}>
						Salt and season <ArrowRightOutlined />
					</Button>
				)}
			</div>
		</>
	);
}
