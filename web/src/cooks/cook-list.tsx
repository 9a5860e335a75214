import { CopyOutlined, DeleteOutlined, PlusOutlined, SearchOutlined } from "@ant-design/icons";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Input, Pagination } from "antd";
import { useDeferredValue, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type CookSummary, etag, need } from "../api/client";
import { Nothing } from "../shared/nothing";
import { useUndo } from "../shared/use-undo";
import "./cook-list.css";

const perPage = 20;

/** All cooks, the latest serving first. */
export function CookList() {
	const [page, setPage] = useState(1);
	const [typed, setTyped] = useState("");
	const search = useDeferredValue(typed.trim());
	const navigate = useNavigate();
	const list = useQuery({
		queryKey: ["cooks", page, search],
		queryFn: async () =>
			need(await api.GET("/api/cooks", { params: { query: { page, per: perPage, search } } })),
		placeholderData: keepPreviousData,
	});
	if (list.isError) {
		return (
			<Nothing title="Your cooks cannot be read">
				<p>{list.error.message}</p>
				<Button type="primary" onClick={() => list.refetch()}>
					Try again
				</Button>
			</Nothing>
		);
	}
	if (list.data?.total === 0 && search === "") {
		return (
			<Nothing title="What is the occasion?">
				<p>
					Say who eats and when, add a piece of meat, and Verjuice weighs out the rub, adds up the salt and
					counts the clock back from serving.
				</p>
				<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => navigate("/cooks/new")}>
					Plan your first cook
				</Button>
			</Nothing>
		);
	}
	return (
		<>
			<div className="list-head">
				<h1>Cooks</h1>
				<Input
					className="list-search"
					variant="underlined"
					prefix={<SearchOutlined aria-hidden />}
					placeholder="Find by name"
					aria-label="Find a cook by name"
					value={typed}
					maxLength={100}
					allowClear
					onChange={(e) => {
						setTyped(e.target.value);
						setPage(1);
					}}
				/>
				<Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => navigate("/cooks/new")}>
					New cook
				</Button>
			</div>
			{list.data && (
				<ul className="cook-lines">
					{list.data.items.map((c) => (
						<CookLine key={c.id} cook={c} />
					))}
				</ul>
			)}
			{list.data?.total === 0 && <p className="loading">No cook is called “{search}”.</p>}
			{(list.data?.total ?? 0) > perPage && (
				<Pagination
					current={page}
					pageSize={perPage}
					total={list.data?.total}
					onChange={setPage}
					showSizeChanger={false}
				/>
			)}
		</>
	);
}

/** One cook in the list: open it, copy it, take it off. */
function CookLine({ cook }: { cook: CookSummary }) {
	const { message } = App.useApp();
	const undo = useUndo();
	const queries = useQueryClient();
	const navigate = useNavigate();
	const path = { params: { path: { id: cook.id } } };
	const refresh = () => queries.invalidateQueries({ queryKey: ["cooks"] });
	const failed = (error: Error) => message.error(error.message);
	const restore = useMutation({
		mutationFn: async () => need(await api.POST("/api/cooks/{id}/restore", path)),
		onSuccess: refresh,
		onError: failed,
	});
	const copy = useMutation({
		mutationFn: async () => need(await api.POST("/api/cooks/{id}/duplicate", path)),
		onSuccess: (made) => {
			refresh();
			navigate(`/cooks/${made.id}`);
		},
		onError: failed,
	});
	const remove = useMutation({
		mutationFn: async () => {
			const { error, response } = await api.DELETE("/api/cooks/{id}", {
				params: { path: { id: cook.id }, header: { "If-Match": etag(cook.version) } },
			});
			if (error) need({ error, response });
		},
		onSuccess: () => {
			refresh();
			undo(`${cook.name} is off the list.`, () => restore.mutate());
		},
		onError: failed,
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
			<Button
				type="text"
				icon={<CopyOutlined />}
				aria-label={`Copy ${cook.name}`}
				title="Copy"
				onClick={() => copy.mutate()}
			/>
			<Button
				type="text"
				icon={<DeleteOutlined />}
				aria-label={`Delete ${cook.name}`}
				title="Delete"
				onClick={() => remove.mutate()}
			/>
		</li>
	);
}
