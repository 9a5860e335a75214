import { UploadOutlined } from "@ant-design/icons";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Checkbox, Select } from "antd";
import { useState } from "react";
import { api, type Fact, need, said } from "../api/client";
import type { components } from "../api/schema";
import { usePrefs } from "../prefs";
import { ChooseFile } from "../shared/choose-file";
import { now } from "../shared/clock";
import { PickTime } from "../shared/time-field";
import { uuid } from "../shared/uuid";
import type { After } from "./use-after";

type Seen = components["schemas"]["TableSeen"];
type Span = components["schemas"]["TableSpan"];
type How = components["schemas"]["TableAs"];

/** Where the file may have been written, this place first. */
const zones = [
	...new Set([
		Intl.DateTimeFormat().resolvedOptions().timeZone,
		"UTC",
		...Intl.supportedValuesOf("timeZone"),
	]),
].map((z) => ({ value: z, label: z }));

/** Readings from a file of another thermometer: looked at first, then taken whole. */
export function Foreign({ id, pieces }: { id: string; pieces: After["pieces"] }) {
	const [{ units, spoons }] = usePrefs();
	const queries = useQueryClient();
	const [text, setText] = useState("");
	/** Which of the files that were chosen here it is: two may be of one length. */
	const [file, setFile] = useState(0);
	const [how, setHow] = useState<How>();
	const params = { path: { id }, query: { units, spoons } };
	const look = useMutation({
		mutationFn: async (chosen: File) => {
			setHow(undefined); // what was seen of another file is none of this one
			const all = await chosen.text();
			setText(all);
			setFile((n) => n + 1);
			return need(await api.POST("/api/cooks/{id}/table/read", { params, body: { text: all } }));
		},
		onSuccess: (seen) => setHow(guessed(seen, pieces)),
	});
	const preview = useQuery({
		queryKey: ["table", id, file, how, units, spoons],
		gcTime: 0,
		enabled: how !== undefined && how.probes.length > 0,
		retry: false,
		queryFn: async () =>
			need(await api.POST("/api/cooks/{id}/table/read", { params, body: { text, as: how } })),
	});
	/** What was taken last, and the facts that say that it does not count. */
	const [spans, setSpans] = useState<Span[]>([]);
	const [back, setBack] = useState<string[]>([]);
	const undo = useMutation({
		mutationFn: async (facts: Fact[]) => {
			for (const body of facts)
				need(await api.POST("/api/cooks/{id}/facts", { params: { path: { id } }, body }));
			return facts;
		},
		onSuccess: (facts) => {
			setBack(facts.filter((f) => f.kind === "uncounted").map((f) => f.id));
			void queries.invalidateQueries({ queryKey: ["after", id] });
		},
	});
	const take = useMutation({
		mutationFn: async () =>
			need(await api.POST("/api/cooks/{id}/table", { params, body: { text, as: how } })),
		onSuccess: () => {
			setSpans(preview.data?.preview?.spans ?? []);
			setBack([]);
			setHow(undefined);
			void queries.invalidateQueries({ queryKey: ["after", id] });
		},
	});
	const seen = look.data;
	const places = [
		...pieces.map((p) => ({ value: `core:${p.key}`, label: `core of ${p.title}` })),
		{ value: "pit:0", label: "the pit" },
		{ value: "pit:1", label: "the second pit" },
	];
	const change = (part: Partial<How>) => setHow((h) => h && { ...h, ...part });
	return (
		<section className="foreign" aria-label="Readings from a file">
			<h3>Readings from a file</h3>
			<p className="muted">
				A table (CSV) that another thermometer wrote: you see how it is read before it is taken.
			</p>
			<ChooseFile label="A table of temperatures" accept=".csv,.txt,text/csv" onChoose={look.mutate}>
				<Button icon={<UploadOutlined />} loading={look.isPending}>
					Choose a file
				</Button>
			</ChooseFile>
			{look.error && <p role="alert">{said(look.error)}</p>}
			{take.data && !how && (
				<p role="status">
					{take.data.count} readings are on record from this file.{" "}
					{back.length === 0 ? (
						<Button loading={undo.isPending} onClick={() => undo.mutate(spans.map(uncounted))}>
							Take them back
						</Button>
					) : (
						<>
							They count for nothing.{" "}
							<Button loading={undo.isPending} onClick={() => undo.mutate(back.map(withdrawn))}>
								Let them count
							</Button>
						</>
					)}
				</p>
			)}
			{undo.error && <p role="alert">{said(undo.error)}</p>}
			{seen && how && (
				<>
					<div className="foreign-columns">
						{seen.columns.map((c, n) => (
							// biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name
							<p key={n}>
								<b>{c.name}</b> <small className="muted">{c.sample.join(" · ")}</small>
								<Select
									variant="underlined"
									aria-label={`What ${c.name} holds`}
									value={how.time === n ? "time" : (how.probes.find((p) => p.column === n)?.probe ?? "")}
									options={[
										{ value: "", label: "leave it out" },
										{ value: "time", label: "the time" },
										...places,
									]}
									onChange={(v: string) => {
										const probes = how.probes.filter((p) => p.column !== n);
										if (v === "time") change({ time: n, probes });
										else change({ probes: v ? [...probes, { column: n, probe: v }] : probes });
									}}
								/>
							</p>
						))}
					</div>
					<p className="foreign-how">
						<Checkbox checked={how.fahrenheit} onChange={(e) => change({ fahrenheit: e.target.checked })}>
							Temperatures are in °F
						</Checkbox>
						{seen.asks_order && (
							<Checkbox checked={how.month_first} onChange={(e) => change({ month_first: e.target.checked })}>
								Dates are month first
							</Checkbox>
						)}
						<Select
							variant="underlined"
							showSearch
							aria-label="Time zone of the file"
							value={how.zone || undefined}
							placeholder="time zone: that of the cook-out"
							options={zones}
							allowClear
							onChange={(zone?: string) => change({ zone: zone ?? "" })}
						/>
						{seen.columns[how.time]?.holds === "elapsed" && (
							<span>
								It began at{" "}
								<PickTime
									name="When the file begins"
									value={how.start ?? ""}
									onChange={(start) => change({ start })}
								/>
							</span>
						)}
					</p>
					{preview.error && <p role="alert">{said(preview.error)}</p>}
					{preview.data?.preview && (
						<>
							<p role="status">
								{preview.data.preview.count} readings from {preview.data.preview.from} to{" "}
								{preview.data.preview.to}
								{preview.data.preview.skipped > 0 &&
									`, and ${preview.data.preview.skipped} cells without a temperature`}
								. It begins: {preview.data.preview.first.join(" · ")}
							</p>
							{preview.data.preview.gaps.length > 0 && (
								<p>Nothing was read {preview.data.preview.gaps.join(", ")}.</p>
							)}
							{preview.data.preview.notes.map((n) => (
								<p key={n.text} className="foreign-note" role="alert">
									{n.text} {n.as && <Button onClick={() => setHow(n.as)}>{n.offer}</Button>}
								</p>
							))}
							<Button type="primary" loading={take.isPending} onClick={() => take.mutate()}>
								Take these readings
							</Button>
						</>
					)}
					{take.error && <p role="alert">{said(take.error)}</p>}
				</>
			)}
		</section>
	);
}

const stamped = () => ({ id: uuid(), at: new Date(now() ?? 0).toISOString(), device: "file" });

/** That readings of a file do not count. */
const uncounted = (s: Span): Fact => ({
	...stamped(),
	kind: "uncounted",
	what: s.probe,
	values: { from: s.from, to: s.to },
});

/** That a fact was said wrongly. */
const withdrawn = (what: string): Fact => ({ ...stamped(), kind: "withdrawn", what });

/** What the columns seem to hold, to begin with: the first temperature is the core, the second the pit. */
function guessed(seen: Seen, pieces: After["pieces"]): How {
	const time = seen.columns.findIndex((c) => c.holds === "time" || c.holds === "elapsed");
	const places = pieces[0] ? [`core:${pieces[0].key}`, "pit:0"] : ["pit:0", "pit:1"];
	const probes = seen.columns
		.map((c, column) => ({ c, column }))
		.filter(({ c }) => c.holds === "temperature")
		.slice(0, places.length)
		.map(({ column }, i) => ({ column, probe: places[i] ?? "pit:0" }));
	return {
		time: Math.max(0, time),
		probes,
		fahrenheit: seen.fahrenheit,
		month_first: seen.month_first,
		zone: "",
	};
}
