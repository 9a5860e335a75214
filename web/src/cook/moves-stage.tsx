import { HolderOutlined, PlusOutlined } from "@ant-design/icons";
import {
	closestCenter,
	DndContext,
	type DragEndEvent,
	KeyboardSensor,
	PointerSensor,
	useSensor,
	useSensors,
} from "@dnd-kit/core";
import {
	SortableContext,
	sortableKeyboardCoordinates,
	useSortable,
	verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { Button } from "antd";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Cook, MoveLine } from "../api/client";
import { whole } from "../bench/formula";
import { Field } from "../record/field";
import { applied, at as valueAt } from "../record/pointer";
import { useField } from "../record/use-field";
import { FindSelect } from "../shared/find-select";
import { TypedField } from "../shared/typed-field";
import { uuid } from "../shared/uuid";
import { useInHand, usePiece } from "./context";
import { DoseRows } from "./dose-rows";
import { DoseSelect } from "./dose-select";
import { KeptMethods } from "./kept-methods";
import "./moves-stage.css";

/** All that is done to a piece, in order and with its times: add, move, change or take out. */
export function MovesStage({ index }: { index: number }) {
	const { piece, figures, cook, change, edit, undoable, catalogue } = usePiece(index);
	const { id } = useParams();
	const [open, setOpen] = useState("");
	const lines = figures?.moves ?? [];
	const sensors = useSensors(
		useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
		useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
	);
	/** What is moved, and the line that it would stand after. */
	const between = ({ active, over }: Pick<DragEndEvent, "active" | "over">) => {
		const from = lines.findIndex((l) => l.id === active.id);
		const to = lines.findIndex((l) => l.id === over?.id);
		return { moved: lines[from], before: to < 0 || to === from ? undefined : lines[to > from ? to : to - 1] };
	};
	const name = (line: unknown) => lines.find((l) => l.id === line)?.label ?? "It";
	const dropped = (event: DragEndEvent) => {
		const { moved, before } = between(event);
		if (!moved || moved.own < 0 || !before?.drop) return;
		const back = edit((p) => {
			const m = p.moves?.[moved.own];
			if (m) m.when = before.drop;
		});
		undoable(`${moved.label}: ${before.drop}.`, back);
	};
	const add = (what: string) => {
		const kind = catalogue.moves.find((m) => m.what === what);
		if (!kind) return;
		const own = piece.moves?.length ?? 0;
		edit((p) => {
			p.moves = [...(p.moves ?? []), { key: uuid().slice(0, 8), what, when: kind.when, with: kind.with }];
		});
		setOpen(`own-${own}`);
	};
	const on = piece.fire.on ?? 0;
	return (
		<>
			<h2>The moves{figures && `: ${figures.title}`}</h2>
			<p className="says">
				Everything that is done to it, in order. The stages write most of it; change when a move is made, add
				your own, or drag one of yours to another place.
			</p>
			{!figures && <p className="says">Working it out…</p>}
			<DndContext
				sensors={sensors}
				collisionDetection={closestCenter}
				onDragEnd={dropped}
				accessibility={{
					screenReaderInstructions: {
						draggable:
							"Press space to pick it up, up and down to move it, space to put it down, escape to leave it.",
					},
					announcements: {
						onDragStart: ({ active }) => `${name(active.id)} is picked up.`,
						onDragOver: ({ active, over }) => {
							const { before } = between({ active, over });
							return before ? `${name(active.id)} after ${before.label}.` : undefined;
						},
						onDragEnd: ({ active }) => `${name(active.id)} is put down.`,
						onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
					},
				}}
			>
				<SortableContext items={lines.map((l) => l.id)} strategy={verticalListSortingStrategy}>
					<ol className="moves">
						{lines.map((l) => (
							<Row
								key={l.id}
								line={l}
								index={index}
								open={open === l.id}
								toggle={() => setOpen(open === l.id ? "" : l.id)}
							/>
						))}
					</ol>
				</SortableContext>
			</DndContext>
			<FindSelect
				className="moves-add"
				variant="underlined"
				aria-label="Add a move"
				placeholder="Add a move"
				suffixIcon={<PlusOutlined />}
				value={null}
				options={catalogue.moves.map((m) => ({ value: m.what, label: m.label }))}
				popupMatchSelectWidth={260}
				onChange={(what: string | null) => what && add(what)}
			/>
			<section className="moves-pit" aria-label="The pit over the day">
				<h3>The pit over the day</h3>
				{cook.pits?.[on] ? (
					<PitList pit={on} change={change} />
				) : (
					<p className="says">
						Name your pit on <Link to={`/cooks/${id}/plan`}>Plan</Link> first: what it is set to over the day
						counts for all that is on it.
					</p>
				)}
			</section>
			<KeptMethods index={index} />
		</>
	);
}

function Row({
	line: l,
	index,
	open,
	toggle,
}: {
	line: MoveLine;
	index: number;
	open: boolean;
	toggle: () => void;
}) {
	const { change, undoable, goto } = usePiece(index);
	const own = l.own >= 0;
	const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
		useSortable({ id: l.id, disabled: { draggable: !l.drags } });
	const remove = () => {
		const back = change((c) => Object.assign(c, applied(c, l.removes)));
		undoable(`${l.label} is taken out.`, back);
	};
	return (
		<li
			ref={setNodeRef}
			className={`move${isDragging ? " move-dragged" : ""}${own ? " move-own" : ""}`}
			style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
		>
			<p className="move-time">{l.time || "–"}</p>
			<div>
				<p className="move-label">{l.label}</p>
				<p className="muted">
					{[l.when, l.note, l.range && `between ${l.range}`].filter(Boolean).join("; ")}
				</p>
				{l.never && <p className="move-never">{l.never}</p>}
			</div>
			<div className="move-acts">
				{l.drags && (
					<button
						type="button"
						ref={setActivatorNodeRef}
						className="move-handle"
						aria-label={`Move ${l.label} to another place`}
						{...attributes}
						{...listeners}
					>
						<HolderOutlined />
					</button>
				)}
				<Button
					aria-expanded={l.field ? open : undefined}
					aria-label={`${open ? "Done with" : "Change"} ${l.label}`}
					onClick={() => (l.field ? toggle() : goto(l.stage, l.stage === "plan" ? undefined : index))}
				>
					{open ? "done" : "change"}
				</Button>
				{l.removes.length > 0 && (
					<Button aria-label={`Take out ${l.label}`} onClick={remove}>
						take out
					</Button>
				)}
			</div>
			{open && l.field && (
				<div className="move-edit">
					<When line={l} index={index} />
					{own && <OwnMove index={index} own={l.own} />}
				</div>
			)}
		</li>
	);
}

/** When a move is made, as cooks say it. */
function When({ line: l, index }: { line: MoveLine; index: number }) {
	const { cook, change, catalogue } = usePiece(index);
	const { text, set, wrong, offers, take } = useField(l.field);
	const examples = l.what === "set" ? catalogue.pit_lists : catalogue.moments;
	return (
		<TypedField
			label={l.what === "set" ? "What the pit is set to" : "When"}
			at={l.field}
			value={text}
			usual={l.when || examples[1]}
			error={wrong}
			offers={offers}
			onOffer={take}
			hint={
				l.what === "again" ? "or so long after it came off: 30 min after it is off" : examples.join(" · ")
			}
			onChange={(v) => {
				if (v && l.clears.some((c) => valueAt(cook, c.pointer)))
					change((c) => Object.assign(c, applied(c, l.clears)));
				set(v);
			}}
		/>
	);
}

/** What else is said of a move of the cook's own: what it is done with, and what it brings. */
function OwnMove({ index, own }: { index: number; own: number }) {
	const { piece, at, edit, catalogue, count } = usePiece(index);
	const move = piece.moves?.[own];
	const kind = catalogue.moves.find((m) => m.what === move?.what);
	const wrap = useField(at(`moves/${own}/with`));
	if (!move || !kind) return null;
	const bring = (formula?: object) =>
		edit((p) => {
			const m = p.moves?.[own];
			if (!m) return;
			m.formula = formula as typeof m.formula;
			m.amount = formula ? m.amount || kind.amount : undefined;
		});
	const stock = catalogue.layers.find((l) => l.kind === "spritz")?.formula;
	return (
		<>
			{kind.withs.length > 0 && (
				<FindSelect
					variant="underlined"
					aria-label={kind.what === "again" ? "How it goes on" : "What it is wrapped in"}
					value={wrap.text}
					options={kind.withs.map((w) => ({ value: w, label: w }))}
					onChange={wrap.set}
				/>
			)}
			{kind.what === "again" && (
				<>
					<Field label="How long" at={at(`moves/${own}/for`)} usual={kind.usual[wrap.text]?.for} />
					<Field label="Pit at" at={at(`moves/${own}/pit`)} usual={kind.usual[wrap.text]?.pit} />
				</>
			)}
			{count > 1 && kind.some && (
				<Field
					label="For how many of them"
					inputMode="numeric"
					at={at(`moves/${own}/some`)}
					usual={`all ${count}`}
				/>
			)}
			{kind.what === "other" && <Field label="What is done" at={at(`moves/${own}/with`)} />}
			{kind.brings && !move.formula && stock && (
				<Button onClick={() => bring(whole(stock))}>Add what goes on with it</Button>
			)}
			{kind.brings && move.formula && (
				<>
					<DoseSelect
						label="What it brings"
						value={whole(move.formula)}
						catalogue={catalogue}
						onChange={bring}
					/>
					<Field label="How much, all times together" at={at(`moves/${own}/amount`)} />
					<DoseRows
						at={at(`moves/${own}/formula`)}
						formula={whole(move.formula)}
						catalogue={catalogue}
						onChange={bring}
					/>
					<Button onClick={() => bring(undefined)}>Nothing goes on with it</Button>
				</>
			)}
		</>
	);
}

/** What a pit is set to over the day: typed on one line, for all that is on it. */
function PitList({ pit, change }: { pit: number; change: (edit: (c: Cook) => void) => () => void }) {
	const { catalogue } = useInHand();
	const { text, set, wrong, offers, take } = useField(`/pits/${pit}/sets`);
	return (
		<TypedField
			label="Set to"
			at={`/pits/${pit}/sets`}
			value={text}
			usual="what each piece asks for"
			error={wrong}
			offers={offers}
			onOffer={take}
			hint={catalogue.pit_lists.join(" · ")}
			onChange={(v) => {
				// A pit with a list of its own has the last word: what its pieces asked for goes.
				if (v && !text)
					change((c) => {
						for (const p of c.pieces) if ((p.fire.on ?? 0) === pit) p.fire.pit = "";
					});
				set(v);
			}}
		/>
	);
}
