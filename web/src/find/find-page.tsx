import { SearchOutlined } from "@ant-design/icons";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import Input, { type InputRef } from "antd/es/input/Input";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import { Link, useLocation, useSearchParams } from "react-router";
import { api, need } from "../api/client";
import type { components } from "../api/schema";
import "./find.css";

type Found = components["schemas"]["Finding"];

/** What each kind is called over its lines, and where one of it opens. */
const kinds: { kind: Found["kind"]; title: string; at: (f: Found) => string }[] = [
	{ kind: "cook", title: "Cook-outs", at: (f) => `/cooks/${f.id}` },
	{ kind: "formula", title: "Formulas", at: (f) => `/bench/${f.id}` },
	{ kind: "jar", title: "Jars", at: () => "/jars" },
	{ kind: "meal", title: "Later meals", at: (f) => `/meals/${f.id}` },
	{ kind: "ingredient", title: "Ingredients", at: (f) => `/larder?find=${encodeURIComponent(f.name)}` },
	{ kind: "word", title: "Words", at: (f) => `/terms#${encodeURIComponent(f.id)}` },
];

/** One box for everything that has a name. */
export default function FindPage() {
	const [params, setParams] = useSearchParams();
	const asked = params.get("text") ?? "";
	const [typed, type] = useState(asked);
	// The address follows what is typed, and what is typed an address that is opened here.
	const put = useRef(asked);
	useEffect(() => {
		if (asked === put.current) return;
		put.current = asked;
		type(asked);
	}, [asked]);
	const text = useDeferredValue(typed.trim());
	const box = useRef<InputRef>(null);
	const { key } = useLocation();
	// Each time that one comes here, also from here, the box is ready.
	// biome-ignore lint/correctness/useExhaustiveDependencies: once for each visit
	useEffect(() => box.current?.focus(), [asked === "" && key]);
	useEffect(() => {
		const timer = setTimeout(() => {
			if (text === put.current) return;
			put.current = text;
			setParams(text ? { text } : {}, { replace: true });
		}, 400);
		return () => clearTimeout(timer);
	}, [text, setParams]);
	const found = useQuery({
		queryKey: ["find", text],
		enabled: text !== "",
		placeholderData: keepPreviousData,
		queryFn: async () => need(await api.GET("/api/find", { params: { query: { text } } })).items,
	});
	const all = text === "" ? [] : (found.data ?? []);
	return (
		<>
			<div className="list-head">
				<h1>Search</h1>
			</div>
			<Input
				ref={box}
				className="find-box"
				size="large"
				variant="underlined"
				prefix={<SearchOutlined aria-hidden />}
				aria-label="Search everywhere"
				placeholder="A cook-out, a formula, an ingredient, a word"
				maxLength={100}
				allowClear
				value={typed}
				onChange={(e) => type(e.target.value)}
			/>
			{found.isError && <p role="alert">{found.error.message}</p>}
			{text !== "" && found.isSuccess && all.length === 0 && (
				<p className="says">Nothing goes by “{text}”.</p>
			)}
			<div className="find-kinds" aria-live="polite">
				{kinds
					.filter(({ kind }) => all.some((f) => f.kind === kind))
					.map(({ kind, title, at }) => (
						<section key={kind} aria-label={title}>
							<h2>{title}</h2>
							<ul className="find-lines">
								{all
									.filter((f) => f.kind === kind)
									.map((f) => (
										<li key={f.id}>
											<Link to={at(f)}>
												<b>{f.name}</b> <span className="muted">{f.note}</span>
											</Link>
										</li>
									))}
							</ul>
						</section>
					))}
			</div>
		</>
	);
}
