import { CloseOutlined, PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import type { BathSheet, Catalogue, Dose } from "../api/client";
import { single } from "../bench/use-formulas";
import { TypedField } from "../shared/typed-field";
import { DoseSelect } from "./dose-select";

interface Props {
	doses: Dose[];
	parts: BathSheet["parts"];
	catalogue: Catalogue;
	wrong: (place: string) => string | undefined;
	onChange: (doses: Dose[]) => void;
}

/** What goes into the bath besides water and salt: juice, beer, sugar, spice. */
export function BathWith({ doses, parts, catalogue, wrong, onChange }: Props) {
	const put = (i: number, next: Partial<Dose>) =>
		onChange(doses.map((d, at) => (at === i ? { ...d, ...next } : d)));
	return (
		<section className="layers bath-with" aria-label="What else is in the bath">
			<ol>
				{doses.map((d, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: doses are told apart by their place
					<li key={i}>
						<DoseSelect
							label={`What else is in the bath, ${i + 1}`}
							value={d.formula}
							catalogue={catalogue}
							onChange={(formula) => put(i, { formula })}
						/>
						<TypedField
							label="How much"
							value={d.amount}
							usual="50 % of the liquid, 1 L, 100 g"
							error={wrong(`/${i}/amount`) ?? wrong(`/${i}/formula/rows`)}
							onChange={(amount) => put(i, { amount })}
						/>
						<b>
							{parts[i]?.amount}
							{parts[i] && parts[i].salt !== "0 g" && <small> with {parts[i].salt} salt</small>}
						</b>
						<Button
							type="text"
							icon={<CloseOutlined />}
							aria-label={`Leave out of the bath, ${i + 1}`}
							onClick={() => onChange(doses.filter((_, at) => at !== i))}
						/>
					</li>
				))}
			</ol>
			{wrong("") && <p className="typed-error">{wrong("")}</p>}
			<Button
				type="link"
				icon={<PlusOutlined />}
				onClick={() =>
					onChange([...doses, { formula: single("apple-juice", "liquid", "apple juice"), amount: "50 %" }])
				}
			>
				Juice, beer, sugar or spice in it
			</Button>
		</section>
	);
}
