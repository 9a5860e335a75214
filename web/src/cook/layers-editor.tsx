import { CloseOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import type { Layer } from "../api/client";
import { single } from "../bench/use-formulas";
import { Ask } from "../shared/ask";
import { TypedField } from "../shared/typed-field";
import { usePiece } from "./context";
import { DoseSelect } from "./dose-select";
import "./layers-editor.css";

const kinds: { value: string; label: string; amount: string }[] = [
	{ value: "base", label: "base layer, under the rub", amount: "light" },
	{ value: "binder", label: "binder", amount: "1 Tbsp" },
	{ value: "dusting", label: "second dusting", amount: "light" },
	{ value: "spritz", label: "spritz", amount: "4 Tbsp" },
	{ value: "wrap", label: "in the wrap", amount: "1/4 cup" },
	{ value: "glaze", label: "glaze", amount: "2 Tbsp" },
	{ value: "finish", label: "finishing salt", amount: "2 g" },
	{ value: "juices", label: "juices back on", amount: "1/4 cup" },
];

/** Every other dose on the piece, in the order it goes on: each is in the salt column. */
export function LayersEditor({ index }: { index: number }) {
	const { piece, figures, edit, wrong, shelf, cook, undoable } = usePiece(index);
	const layers = piece.layers ?? [];
	const lines = figures?.ledger?.lines ?? [];
	const freed = figures?.ledger?.freed;
	const offset = (piece.bath ? 1 : 0) + (piece.inject ? 1 : 0);
	const put = (i: number, next: Partial<Layer>) =>
		edit((p) => {
			p.layers = (p.layers ?? []).map((l, at) => (at === i ? { ...l, ...next } : l));
		});
	return (
		<section className="layers" aria-label="More layers">
			<h3>What else goes on it</h3>
			{layers.length === 0 && (
				<p className="says">
					A base layer, a second dusting, the wrap, the glaze, a last pinch: each brings salt, and no one adds
					them up. Here they are.
				</p>
			)}
			<ol>
				{layers.map((l, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: layers are told apart by their place
					<li key={i}>
						<Select
							aria-label={`Kind of layer ${i + 1}`}
							variant="underlined"
							value={l.kind}
							options={kinds}
							showSearch={{ optionFilterProp: "label" }}
							popupMatchSelectWidth={260}
							onChange={(kind) => put(i, { kind })}
						/>
						<DoseSelect
							label={`What layer ${i + 1} is`}
							value={l.formula}
							shelf={shelf}
							onChange={(formula) => put(i, { formula })}
						/>
						<TypedField
							hint={
								freed?.source === `layer-${i}` && (
									<>
										as much as meets the target:{" "}
										<Ask name={`${freed.name} on one ${figures?.noun}`} figure={freed.amount} />
									</>
								)
							}
							label={`On one ${figures?.noun ?? "piece"}`}
							value={l.amount}
							usual="2 Tbsp, 5 g, 2 % or light"
							error={wrong(`layers/${i}/amount`)}
							onChange={(amount) => put(i, { amount })}
						/>
						<b>{lines[offset + i] ? `${lines[offset + i]?.percent.toFixed(2)} %` : ""}</b>
						<Button
							type="text"
							icon={<CloseOutlined />}
							aria-label={`Leave out layer ${i + 1}`}
							onClick={() => {
								undoable("The layer is off.", structuredClone(cook));
								edit((p) => {
									p.layers = (p.layers ?? []).filter((_, at) => at !== i);
								});
							}}
						/>
					</li>
				))}
			</ol>
			<Select
				className="layers-add"
				variant="underlined"
				aria-label="Add a layer"
				placeholder="Add a layer"
				suffixIcon={<PlusOutlined />}
				value={null}
				options={kinds}
				showSearch={{ optionFilterProp: "label" }}
				popupMatchSelectWidth={260}
				onChange={(kind: string | null) => {
					const k = kinds.find((one) => one.value === kind);
					if (!k) return;
					const formula =
						k.value === "finish"
							? single("sea-salt", "flakes", "sea salt")
							: k.value === "base" || k.value === "dusting"
								? structuredClone(piece.season.formula)
								: single("stock", "liquid", "ready stock");
					edit((p) => {
						p.layers = [...(p.layers ?? []), { kind: k.value, formula, amount: k.amount }];
					});
				}}
			/>
		</section>
	);
}
