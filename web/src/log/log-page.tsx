import { Button, Select } from "antd";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { useCatalogue } from "../api/use-catalogue";
import { Nothing, Unread } from "../shared/nothing";
import { ListHead, ListPages, useSearch } from "../shared/record-list";
import { useMedia } from "../shared/use-media";
import { Carry } from "./carry";
import { Lessons } from "./lessons";
import { TrendTable } from "./trend-table";
import { perPage, type Sought, useLogbook } from "./use-logbook";
import "./log.css";

const most = 5;
const words: Record<string, string> = {
	none: "no wrap",
	pink: "pink, sliced",
	done: "done",
	sliced: "sliced",
	pulled: "pulled",
};

/** Every cook-out that went on the fire: found again, laid over one another, learnt from. */
export default function LogPage() {
	const search = useSearch(perPage);
	const [filter, setFilter] = useState<Omit<Sought, "search">>({});
	const [picked, setPicked] = useState<string[]>([]);
	const narrow = useMedia("(max-width: 640px)");
	const chosen = Object.values(filter).filter((v) => v !== undefined).length;
	const navigate = useNavigate();
	const { data: catalogue } = useCatalogue();
	const book = useLogbook({ ...filter, search: search.search }, search.page);
	if (book.error) {
		return <Unread title="The logbook cannot be read" error={book.error} again={book.refetch} />;
	}
	if (!book.data) return <p className="loading">Opening…</p>;
	const { choices, items, total } = book.data;
	const nothing = choices.cuts.length === 0;
	if (nothing) {
		return (
			<Nothing title="The logbook is empty">
				<p>
					What you press at the pit comes here by itself. A cook-out from before can be written down in two
					minutes, in your own words.
				</p>
				<Button type="primary" size="large" onClick={() => navigate("/past")}>
					Write down a past cook-out
				</Button>
				<Carry />
			</Nothing>
		);
	}
	const cutName = (id: string) => catalogue?.cuts.find((c) => c.id === id)?.name ?? id;
	const pick = (
		key: keyof typeof filter,
		label: string,
		of: string[],
		name = (v: string) => words[v] ?? v,
	) => (
		<Select
			key={key}
			aria-label={label}
			placeholder={label}
			variant="underlined"
			allowClear
			value={filter[key]}
			options={of.map((value) => ({ value, label: name(value) }))}
			onChange={(value) => {
				setFilter((f) => ({ ...f, [key]: value }));
				search.setPage(1);
			}}
		/>
	);
	return (
		<>
			<ListHead title="Logbook" search={search} find="Find" label="Find in the logbook">
				{(!narrow || picked.length > 0) && (
					<Button
						type="primary"
						size="large"
						disabled={picked.length < 2}
						onClick={() => navigate(`/log/compare?cooks=${picked.join(",")}`)}
					>
						{picked.length < 2
							? `Tick ${picked.length === 0 ? "two" : "one more"} to compare`
							: `Compare ${picked.length}`}
					</Button>
				)}
				<Button size="large" onClick={() => navigate("/past")}>
					Write down a past one
				</Button>
				<Button size="large" onClick={() => navigate("/meals")}>
					Later meals
				</Button>
			</ListHead>
			<details className="log-fold" open={!narrow || undefined}>
				<summary>{chosen > 0 ? `Filters, ${chosen} chosen` : "Filters"}</summary>
				<div className="log-filters">
					{pick("cut", "Cut", choices.cuts, cutName)}
					{pick("finish", "Finish", choices.finishes)}
					{pick("pit", "Pit", choices.pits)}
					{pick("wrap", "Wrap", choices.wraps)}
					{pick("formula", "Formula", choices.formulas)}
					{pick("weather", "Weather", choices.weathers)}
					<Select
						aria-label="Score"
						placeholder="Score"
						variant="underlined"
						allowClear
						value={filter.score}
						options={[3, 3.5, 4, 4.5].map((value) => ({ value, label: `${value} and better` }))}
						onChange={(score) => {
							setFilter((f) => ({ ...f, score }));
							search.setPage(1);
						}}
					/>
				</div>
			</details>
			<ul className="log-lines">
				{items.map((c) => (
					<li key={c.id}>
						<input
							type="checkbox"
							aria-label={`Compare ${c.name}`}
							checked={picked.includes(c.id)}
							disabled={!picked.includes(c.id) && picked.length >= most}
							onChange={(e) =>
								setPicked((p) => (e.target.checked ? [...p, c.id] : p.filter((one) => one !== c.id)))
							}
						/>
						<Link to={`/cooks/${c.id}/after`}>
							<span className="log-what">
								<b>{c.name}</b>
								<span>
									{c.day} · {c.pieces.join(" · ")}
								</span>
								{c.note && <i>{c.note}</i>}
							</span>
							<span className="log-figure">
								<b>{c.hours || "–"}</b>
								<span>{c.miss}</span>
							</span>
							<span className="log-figure">
								<b>{c.yield || "–"}</b>
								<span>on the plates</span>
							</span>
							<span className="log-figure">
								<b>{c.score || "–"}</b>
								<span>of 5</span>
							</span>
							<span className="log-how">
								{c.how}
								{!c.over && <b> not over yet</b>}
							</span>
						</Link>
					</li>
				))}
			</ul>
			{total === 0 && <p className="says">No matches. Remove a filter.</p>}
			<ListPages search={search} total={total} />
			<Lessons cooks={items} />
			<TrendTable />
			<Carry />
		</>
	);
}
