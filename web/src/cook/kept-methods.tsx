import { Button, Input, Select } from "antd";
import { useState } from "react";
import { useMessage } from "../shared/messages";
import { usePiece } from "./context";
import { useMethods } from "./use-methods";

/** Keeps a method under a name, and cooks this piece by one that was kept. */
export function KeptMethods({ index }: { index: number }) {
	const { piece, edit, undoable } = usePiece(index);
	const methods = useMethods();
	const message = useMessage();
	const [name, setName] = useState("");
	const failed = (e: Error) => void message.error(e.message);
	const keep = () => {
		if (!name.trim()) return;
		methods
			.keep(name.trim(), piece)
			.then(() => {
				setName("");
				message.success("The method is kept.");
			})
			.catch(failed);
	};
	const use = async (method: string) => {
		const next = await methods.on(method, piece);
		const back = edit((p) => {
			Object.assign(p, next);
		});
		undoable(`Cooked by ${methods.list.find((m) => m.id === method)?.doc.name}.`, back);
	};
	return (
		<section className="moves-kept" aria-label="Kept methods">
			<h3>Keep this method</h3>
			<p className="says">All from the wait to the knife, to use on another piece or another day.</p>
			<div>
				<Input
					variant="underlined"
					aria-label="Name of the method"
					placeholder="Overnight shoulder"
					maxLength={200}
					value={name}
					onChange={(e) => setName(e.target.value)}
					onPressEnter={keep}
				/>
				<Button disabled={!name.trim()} onClick={keep}>
					keep it
				</Button>
				{methods.list.length > 0 && (
					<Select
						variant="underlined"
						aria-label="Use a kept method"
						placeholder="Use a kept method"
						showSearch={{ optionFilterProp: "label" }}
						value={null}
						options={methods.list.map((m) => ({ value: m.id, label: m.doc.name }))}
						onChange={(m: string | null) => m && use(m).catch(failed)}
					/>
				)}
			</div>
		</section>
	);
}
