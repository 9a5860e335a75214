import { Button } from "antd";
import { useState } from "react";
import type { Catalogue, Formula } from "../api/client";
import { RowsEditor, rowFills } from "../bench/rows-editor";
import { useInHand } from "./context";
import "./dose-rows.css";

interface Props {
	/** Where the formula is in the record. */
	at: string;
	formula: Formula;
	catalogue: Catalogue;
	/** Returns what takes the change back. */
	onChange: (formula: Formula) => () => void;
}

/** What is in a dose, ingredient by ingredient: folded, until somebody wants to see or change it. */
export function DoseRows({ at, formula, catalogue, onChange }: Props) {
	const { error, undoable } = useInHand();
	const [open, setOpen] = useState(false);
	const n = formula.rows.length;
	const bad =
		error(`${at}/rows`) !== undefined || formula.rows.some((_, i) => error(`${at}/rows/${i}/parts`));
	const shown = open || bad;
	return (
		<div className="dose-rows">
			<Button type="link" aria-expanded={shown} onClick={() => setOpen(!open)}>
				{n > 1 ? `What is in it: ${n} ingredients` : "Mix in more ingredients"}
			</Button>
			{shown && (
				<RowsEditor
					at={`${at}/rows`}
					rows={formula.rows}
					fills={rowFills(formula.rows, catalogue)}
					catalogue={catalogue}
					wrong={(place) => error(`${at}/rows${place}`)}
					onChange={(rows) => onChange({ ...formula, rows })}
					onRemoved={(name, back) => undoable(`${name} is out of the mix.`, back)}
				/>
			)}
		</div>
	);
}
