import { CloseOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import { api, type Cook, need, type Pit } from "../api/client";
import { usePrefs } from "../prefs";
import { Field } from "../record/field";
import { FindSelect } from "../shared/find-select";
import { useMessage } from "../shared/messages";
import { useInHand } from "./context";
import { usePits } from "./use-pits";

/** The pits of the cook. Each is on record with its name, so that it is the same pit at the next cook. */
export function Pits() {
	const { cook, change, error, catalogue } = useInHand();
	const pits = cook.pits ?? [];
	const known = usePits();
	const [{ units }] = usePrefs();
	const message = useMessage();
	const failed = (e: Error) => void message.error(e.message);
	/** Removes a pit; the server says which pit its pieces are on then. */
	const without = async (pit: number) => {
		const less = need(
			await api.POST("/api/new/without-pit", { params: { query: { pit } }, body: cook }),
		) as Cook;
		change((c) => {
			c.pits = less.pits;
			c.pieces.forEach((p, i) => {
				p.fire.on = less.pieces[i]?.fire.on;
			});
		});
	};
	const add = async (choice: string) => {
		const mine = known.list.find((p) => p.id === choice);
		const kind = catalogue.pits.find((k) => k.id === choice);
		if (!mine && !kind) return;
		const pit: Pit = (mine?.doc as Pit | undefined) ?? {
			name: known.newName(kind?.name ?? choice),
			kind: choice,
			room: "",
		};
		const id = mine?.id ?? (await known.keep(pit));
		change((c) => {
			c.pits = [...(c.pits ?? []), { ...pit, id }];
		});
	};
	/** Puts what was typed of a pit on record. */
	const keep = async (i: number) => {
		const pit = pits[i];
		if (!pit?.name.trim() || error(`/pits/${i}/room`) || error(`/pits/${i}/kind`)) return;
		const id = await known.keep(pit);
		if (id !== pit.id)
			change((c) => {
				if (c.pits?.[i]) c.pits[i].id = id;
			});
	};
	const others = known.list.filter((p) => !pits.some((one) => one.id === p.id || one.name === p.doc.name));
	return (
		<>
			<ul className="pits" aria-label="Pits">
				{pits.map((p, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: pits are told apart by their place
					<li key={i} onBlur={() => keep(i).catch(failed)}>
						<Field label={`Name of pit ${i + 1}`} at={`/pits/${i}/name`} />
						<Select
							variant="underlined"
							aria-label={`Kind of pit ${i + 1}`}
							value={p.kind}
							onChange={(kind) =>
								change((c) => {
									if (c.pits?.[i]) c.pits[i].kind = kind;
								})
							}
							options={catalogue.pits.map((k) => ({ value: k.id, label: `${k.name}: ${k.note}` }))}
						/>
						<Field
							label="Grate size"
							at={`/pits/${i}/room`}
							usual={catalogue.pits.find((k) => k.id === p.kind)?.[units === "us" ? "room_us" : "room"]}
							error={error(`/pits/${i}/kind`)}
						/>
						<Field label="Set to over the day" at={`/pits/${i}/sets`} usual="what each piece asks for" />
						<Button
							type="text"
							icon={<CloseOutlined />}
							aria-label={`Leave out ${p.name}`}
							onClick={() => without(i).catch(failed)}
						/>
					</li>
				))}
			</ul>
			<Field label="Weather at the pit" at="/weather" usual="mild and still, or as each piece says" />
			<FindSelect
				className="pits-add"
				variant="underlined"
				aria-label="Add a pit"
				placeholder="Add a pit"
				value={null}
				options={[
					...others.map((p) => ({ value: p.id, label: p.doc.name })),
					...catalogue.pits.map((k) => ({
						value: k.id,
						label: others.length > 0 ? `another: ${k.name}` : k.name,
					})),
				]}
				popupMatchSelectWidth={260}
				onChange={(choice: string | null) => choice && add(choice).catch(failed)}
			/>
		</>
	);
}
