import { CloseOutlined, PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import type { BathSheet, Catalogue, Dose } from "../api/client";
import { single } from "../bench/use-formulas";
import { Field } from "../record/field";
import { DoseSelect } from "./dose-select";

interface Props {
	/** Where the list is in the record. */
	at: string;
	doses: Dose[];
	parts: BathSheet["parts"];
	catalogue: Catalogue;
	wrong: (place: string) => string | undefined;
	onChange: (doses: Dose[]) => void;
	/** Makes a formula the whole bath: no other salt goes in. */
	onBrine: (dose: Dose) => void;
}

/** What goes into the bath besides water and salt: juice, beer, sugar, spice. */
export function BathWith({ at, doses, parts, catalogue, wrong, onChange, onBrine }: Props) {
	const put = (i: number, next: Partial<Dose>) =>
		onChange(doses.map((d, n) => (n === i ? { ...d, ...next } : d)));
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
						<Field
							label="How much"
							at={`${at}/${i}/amount`}
							usual="50 % of the liquid, 1 L, 100 g"
							error={wrong(`/${i}/formula/rows`)}
						/>
						<b>
							{parts[i]?.amount}
							{parts[i]?.salt && <small> with {parts[i].salt} salt</small>}
						</b>
						<Button
							type="text"
							icon={<CloseOutlined />}
							aria-label={`Leave out of the bath, ${i + 1}`}
							onClick={() => onChange(doses.filter((_, n) => n !== i))}
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
			{doses.length === 0 && (
				<Button
					type="link"
					icon={<PlusOutlined />}
					onClick={() => onBrine({ formula: single("water", "", "choose a formula"), amount: "100 %" })}
				>
					A brine from the bench
				</Button>
			)}
		</section>
	);
}
