import { ArrowRightOutlined, PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { ChoiceField, Field } from "../record/field";
import { Ask } from "../shared/ask";
import { TimeField } from "../shared/time-field";
import { useInHand } from "./context";
import { serveAt } from "./marks";
import "./occasion.css";
import { Plates } from "./plates";

/** Who eats, how many, when: serving time is what everything is counted back from. */
export function Occasion() {
	const { cook, change, error, catalogue, sheet, isNew, goto, undoable } = useInHand();
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
					zone={cook.zone}
					value={cook.serve_at}
					error={error("/serve_at") ?? error("/zone")}
					hint={sheet?.away}
					onChange={(at) => change((c) => serveAt(c, at))}
				/>
				<Field label="Adults" size="large" inputMode="numeric" at="/guests" hint={sheet?.verdict} />
				<Field label="Children" size="large" inputMode="numeric" at="/children" usual="none" />
				<Field label="Portions for later" inputMode="numeric" at="/leftovers" usual="none" />
				<ChoiceField
					label="Appetite"
					at="/appetite"
					usual="usual"
					options={catalogue.usual.appetites.map((a) => ({ value: a, label: a }))}
				/>
				<Field label="Cooked meat for one" at="/portion" usual={catalogue.usual.portion} />
				<Field label="Your fridge is at" at="/fridge" usual={catalogue.usual.fridge} />
				<Field label="The counter is at" at="/room" usual={catalogue.usual.room} />
			</div>
			{cook.pieces.length > 0 && sheet && <Plates />}
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
