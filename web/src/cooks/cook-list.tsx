import { ExclamationCircleFilled, PlusOutlined } from "@ant-design/icons";
import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import Button from "antd/es/button";
import { Link, useNavigate } from "react-router";
import { api, type CookSummary, need } from "../api/client";
import { Nothing, Unread } from "../shared/nothing";
import { LineActions, ListHead, ListPages, useSearch } from "../shared/record-list";
import { useRemoval } from "../shared/use-removal";
import "./cook-list.css";

/** All cooks, the latest serving first. */
export function CookList() {
	const found = useSearch(20);
	const { page, perPage, search } = found;
	const navigate = useNavigate();
	const list = useQuery({
		queryKey: ["cooks", page, search],
		queryFn: async () =>
			need(await api.GET("/api/cooks", { params: { query: { page, per: perPage, search } } })),
		placeholderData: keepPreviousData,
	});
	if (list.isError) {
		return <Unread title="Your cook-outs cannot be read" error={list.error} again={list.refetch} />;
	}
	if (list.data?.total === 0 && search === "") {
		return (
			<Nothing title="What is the occasion?">
				<p>
					Say who eats and when, add a piece of meat, and Verjuice weighs out the rub, adds up the salt and
					counts the clock back from serving.
				</p>
				<div className="nothing-acts">
					<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => navigate("/cooks/new")}>
						Plan your first cook-out
					</Button>
					<Button size="large" onClick={() => navigate("/cooks/new/add")}>
						Weigh out a rub first
					</Button>
					<Button size="large" onClick={() => navigate("/now")}>
						Something is on the fire now
					</Button>
				</div>
				<p>
					New to this? <Link to="/terms">Words, schools and a worked example</Link>
				</p>
			</Nothing>
		);
	}
	return (
		<>
			<ListHead title="Cook-outs" search={found} find="Find by name" label="Find a cook-out by name">
				<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => navigate("/cooks/new")}>
					New cook-out
				</Button>
				<Button size="large" onClick={() => navigate("/now")}>
					It is on now
				</Button>
			</ListHead>
			<OnNow />
			{list.data && (
				<>
					<ul className="cook-lines" aria-label="To come">
						{list.data.items
							.filter((c) => !c.past)
							.map((c) => (
								<CookLine key={c.id} cook={c} />
							))}
					</ul>
					{list.data.items.some((c) => c.past) && (
						<>
							<h2 className="cook-over">Over</h2>
							<ul className="cook-lines" aria-label="Over">
								{list.data.items
									.filter((c) => c.past)
									.map((c) => (
										<CookLine key={c.id} cook={c} />
									))}
							</ul>
						</>
					)}
				</>
			)}
			{list.data?.total === 0 && <p className="loading">No cook-out is called “{search}”.</p>}
			<ListPages search={found} total={list.data?.total} />
			<p className="list-foot muted">
				<Link to="/bin">Bin</Link> · <Link to="/terms">Help</Link> · Verjuice is made with the work of others:{" "}
				<a href="/licences.txt">their licences</a>.
			</p>
		</>
	);
}

/** What is on the fire, where the pit side is one press away. */
function OnNow() {
	const on = useQuery({
		queryKey: ["on-now"],
		queryFn: async () => need(await api.GET("/api/live", { params: { query: { brief: true } } })),
		refetchInterval: 60_000,
	});
	if (!on.data?.length) return null;
	return (
		<ul className="on-now" aria-label="On the fire now">
			{on.data.map((c) => (
				<li key={c.id}>
					<Link to={`/cooks/${c.id}/pit`}>
						<b>{c.name}</b> is on the fire: to the pit side
					</Link>
					{c.problem && (
						<p className="typed-error">
							<ExclamationCircleFilled aria-hidden /> {c.problem}
						</p>
					)}
				</li>
			))}
		</ul>
	);
}

/** One cook in the list: open it, copy it, take it off. */
function CookLine({ cook }: { cook: CookSummary }) {
	const navigate = useNavigate();
	const { refresh, onError, remove } = useRemoval("cooks", ["cooks"]);
	const copy = useMutation({
		mutationFn: async () =>
			need(await api.POST("/api/cooks/{id}/duplicate", { params: { path: { id: cook.id } } })),
		onSuccess: (made) => {
			refresh();
			navigate(`/cooks/${made.id}`);
		},
		onError,
	});
	return (
		<li className={cook.past ? "cook-line cook-past" : "cook-line"}>
			<Link to={`/cooks/${cook.id}`} className="cook-open">
				<span className="cook-when">
					{cook.serve ? (
						<>
							<b>{cook.serve}</b>
							<span>{cook.away}</span>
						</>
					) : (
						<b>no date yet</b>
					)}
				</span>
				<span className="cook-what">
					<b>{cook.name}</b>
					<span>{cook.pieces.length > 0 ? cook.pieces.join(" · ") : "nothing on the fire yet"}</span>
				</span>
				<span className="cook-guests">
					{cook.guests > 0 && (
						<>
							<b>{cook.guests}</b> <span>at table</span>
						</>
					)}
				</span>
			</Link>
			<LineActions
				name={cook.name}
				onCopy={() => copy.mutate()}
				onDelete={() => remove({ ...cook, said: `${cook.name} is off the list.` })}
			/>
		</li>
	);
}
