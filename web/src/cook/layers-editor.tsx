import { CloseOutlined, PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import type { Layer } from "../api/client";
import { whole } from "../bench/formula";
import { Field } from "../record/field";
import { Ask } from "../shared/ask";
import { FindSelect } from "../shared/find-select";
import { usePiece } from "./context";
import { DoseRows } from "./dose-rows";
import { DoseSelect } from "./dose-select";
import "./layers-editor.css";

/** Every other dose on the piece, in the order it goes on: each is in the salt column. */
export function LayersEditor({ index }: { index: number }) {
	const { piece, figures, at, edit, catalogue, undoable } = usePiece(index);
	const layers = piece.layers ?? [];
	const lines = figures?.ledger?.lines ?? [];
	const freed = figures?.ledger?.freed;
	const kinds = catalogue.layers.map((l) => ({ value: l.kind, label: l.label }));
	const line = (i: number) => lines.find((l) => l.id === `layer-${i}`);
	const put = (i: number, next: Partial<Layer>) =>
		edit((p) => {
			p.layers = (p.layers ?? []).map((l, one) => (one === i ? { ...l, ...next } : l));
		});
	return (
		<section className="layers" aria-label="More layers">
			<h3>What else goes on it</h3>
			{layers.length === 0 && (
				<p className="says">
					A base layer, a second dusting, the wrap, the glaze, a last pinch: each brings salt. Add them here
					and they count.
				</p>
			)}
			<ol>
				{layers.map((l, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: layers are told apart by their place
					<li key={i}>
						<FindSelect
							aria-label={`Kind of layer ${i + 1}`}
							variant="underlined"
							value={l.kind}
							options={kinds}
							popupMatchSelectWidth={260}
							onChange={(kind) => put(i, { kind })}
						/>
						<DoseSelect
							label={`What layer ${i + 1} is`}
							value={l.formula}
							catalogue={catalogue}
							onChange={(formula) => put(i, { formula })}
						/>
						<Field
							hint={
								freed?.source === `layer-${i}` && (
									<>
										as much as meets the target:{" "}
										<Ask name={`${freed.name} on one ${figures?.noun}`} figure={freed.amount} />
									</>
								)
							}
							label={`On one ${figures?.noun ?? "piece"}`}
							at={at(`layers/${i}/amount`)}
							usual="2 Tbsp, 5 g, 2 % or light"
						/>
						<b>{line(i) && <>{line(i)?.text} %</>}</b>
						<Button
							type="text"
							icon={<CloseOutlined />}
							aria-label={`Leave out layer ${i + 1}`}
							onClick={() => {
								const back = edit((p) => {
									p.layers = (p.layers ?? []).filter((_, one) => one !== i);
								});
								undoable("The layer is off.", back);
							}}
						/>
						<DoseRows
							at={at(`layers/${i}/formula`)}
							formula={l.formula}
							catalogue={catalogue}
							onChange={(formula) => put(i, { formula })}
						/>
					</li>
				))}
			</ol>
			<FindSelect
				className="layers-add"
				variant="underlined"
				aria-label="Add a layer"
				placeholder="Add a layer"
				suffixIcon={<PlusOutlined />}
				value={null}
				options={kinds}
				popupMatchSelectWidth={260}
				onChange={(kind: string | null) => {
					const layer = catalogue.layers.find((l) => l.kind === kind);
					if (!layer) return;
					const formula = layer.formula ? whole(layer.formula) : structuredClone(piece.season.formula);
					edit((p) => {
						p.layers = [...(p.layers ?? []), { kind: layer.kind, formula, amount: layer.amount }];
					});
				}}
			/>
		</section>
	);
}
