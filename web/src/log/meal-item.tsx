import { DeleteOutlined, WarningFilled } from "@ant-design/icons";
import { Button, Select } from "antd";
import { useId } from "react";
import { ChoiceField, Field } from "../record/field";
import { useField } from "../record/use-field";
import { TimeField } from "../shared/time-field";
import { Labelled } from "../shared/typed-field";
import type { MealItem, MealSheet } from "./meal-kind";

interface Choices {
	forms: { id: string; name: string; how: string }[];
	dishes: { id: string; name: string; takes: string }[];
}

interface Props extends Choices {
	n: number;
	item: MealItem;
	out?: MealSheet["items"][number];
	onRemove: () => void;
}

/** Something that is warmed: how much, as what, and how many it feeds. */
export function MealItemPart({ n, item, out, forms, dishes, onRemove }: Props) {
	const at = (field: string) => `/items/${n}/${field}`;
	const dish = useField(at("dish"));
	return (
		<section className="meal-item" aria-label={out?.title || "Something to warm"}>
			<header>
				<Field at={at("title")} label="What" usual={out?.title ?? ""} />
				<Button
					type="text"
					icon={<DeleteOutlined />}
					aria-label={`Take away ${out?.title ?? "this"}`}
					onClick={onRemove}
				/>
			</header>
			{out?.from && <p className="muted">From {out.from}</p>}
			<div className="meal-figures">
				<Big figure={out?.feeds} />
				<Big figure={out?.takes} />
			</div>
			{out?.problem && (
				<p className="typed-error" role="alert">
					<WarningFilled aria-hidden /> {out.problem}
				</p>
			)}
			<div className="fields">
				<Field
					at={at("weight")}
					label="Meat, without bones"
					usual={out?.weight || "1.2 kg"}
					blank={!item.weight}
				/>
				<Pick
					at={at("form")}
					label="How it is warmed"
					options={forms.map((f) => ({ value: f.id, label: f.name }))}
				/>
				<Pick
					at={at("dish")}
					label="Goes into"
					options={dishes.map((d) => ({ value: d.id, label: d.name }))}
				/>
				<Field at={at("for")} label="Portions wanted" usual="as many as it makes" inputMode="numeric" />
				<Field at={at("each")} label="Meat in a portion" usual={out?.each ?? ""} />
				<Field at={at("deep")} label="Depth or thickness" usual={out?.deep ?? ""} />
				<ChoiceField at={at("kept")} label="Kept in the" usual="fridge" options={places} />
				{!item.cook && <Cooked at={at("cooked")} />}
			</div>
			{out && out.shares.length > 1 && (
				<p className="meal-shares">
					<span className="muted">All of it makes </span>
					{out.shares.map((s) => (
						<Button
							key={s.dish}
							size="small"
							type="text"
							title={s.takes}
							aria-pressed={(dish.text || "plate") === s.dish}
							onClick={() => dish.set(s.dish)}
						>
							<b>{s.makes}</b> {s.label}
						</Button>
					))}
				</p>
			)}
		</section>
	);
}

const places = [
	{ value: "fridge", label: "fridge" },
	{ value: "freezer", label: "freezer" },
];

function Big({ figure }: { figure?: { text: string; note: string } }) {
	if (!figure?.text) return null;
	return (
		<p>
			<b>{figure.text}</b> <small>{figure.note}</small>
		</p>
	);
}

/** The day on which something was cooked that is from no cook-out here. */
function Cooked({ at }: { at: string }) {
	const { text, set, wrong } = useField(at);
	return <TimeField day label="Day it was cooked" at={at} value={text} error={wrong} onChange={set} />;
}

interface PickProps {
	at: string;
	label: string;
	options: { value: string; label: string }[];
}

function Pick({ at, label, options }: PickProps) {
	const id = useId();
	const { text, set, wrong } = useField(at);
	return (
		<Labelled id={id} label={label} error={wrong}>
			<Select
				id={id}
				data-at={at}
				variant="underlined"
				value={text || options[0]?.value}
				options={options}
				onChange={set}
			/>
		</Labelled>
	);
}
