import { PlusOutlined } from "@ant-design/icons";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { Link, useNavigate } from "react-router";
import { api, need } from "../api/client";
import { Nothing, Unread } from "../shared/nothing";
import { LineActions, ListHead, ListPages, useSearch } from "../shared/record-list";
import { useRemoval } from "../shared/use-removal";
import "./meal.css";

/** Every later meal from what was kept. */
export default function MealsPage() {
	const found = useSearch(20);
	const { page, search } = found;
	const navigate = useNavigate();
	const { remove } = useRemoval("meals", ["meals"]);
	const list = useQuery({
		queryKey: ["meals", page, search],
		placeholderData: keepPreviousData,
		queryFn: async () => need(await api.GET("/api/meals", { params: { query: { page, search } } })),
	});
	if (list.isError) {
		return <Unread title="Your later meals cannot be read" error={list.error} again={list.refetch} />;
	}
	if (list.data?.total === 0 && search === "") {
		return (
			<Nothing title="Reheat for a later meal">
				<p>
					Chilled racks, pulled meat or slices: say when they are on the table, and Verjuice says how many
					they feed, when each goes into the oven, and when it is hot through.
				</p>
				<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => navigate("/meals/new")}>
					Plan a later meal
				</Button>
			</Nothing>
		);
	}
	return (
		<>
			<ListHead title="Later meals" search={found} find="Find by name" label="Find a later meal by name">
				<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => navigate("/meals/new")}>
					Plan a later meal
				</Button>
			</ListHead>
			<ul className="meal-lines">
				{list.data?.items.map((m) => (
					<li key={m.id} className={m.over ? "meal-over" : undefined}>
						<Link to={`/meals/${m.id}`}>
							<b>{m.name}</b>
							<span>{m.serve}</span>
							<small>{m.what}</small>
						</Link>
						<LineActions
							name={m.name}
							onDelete={() => remove({ id: m.id, version: m.version, said: `“${m.name}” is deleted.` })}
						/>
					</li>
				))}
			</ul>
			{list.data?.total === 0 && <p className="loading">No later meal is called “{search}”.</p>}
			<ListPages search={found} total={list.data?.total} />
		</>
	);
}
