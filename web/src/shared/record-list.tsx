import { CopyOutlined, DeleteOutlined, EditOutlined, SearchOutlined } from "@ant-design/icons";
import Button from "antd/es/button";
import Input from "antd/es/input/Input";
import { lazy, type ReactNode, Suspense, useDeferredValue, useState } from "react";

const Pages = lazy(async () => ({ default: (await import("../pages")).Pages }));

/** A list that is searched and read page by page. */
export function useSearch(perPage: number) {
	const [page, setPage] = useState(1);
	const [typed, setTyped] = useState("");
	return {
		page,
		perPage,
		typed,
		search: useDeferredValue(typed.trim()),
		setPage,
		type: (text: string) => {
			setTyped(text);
			setPage(1);
		},
	};
}

export type Search = ReturnType<typeof useSearch>;

interface HeadProps {
	title: string;
	search: Search;
	/** What is looked for, in the empty field and for those who listen. */
	find: string;
	label: string;
	/** The button that makes a new one. */
	children: ReactNode;
}

/** What a list is called, the field that searches it, and the button that adds to it. */
export function ListHead({ title, search, find, label, children }: HeadProps) {
	return (
		<div className="list-head">
			<h1>{title}</h1>
			<Input
				className="list-search"
				variant="underlined"
				prefix={<SearchOutlined aria-hidden />}
				placeholder={find}
				aria-label={label}
				value={search.typed}
				maxLength={100}
				allowClear
				onChange={(e) => search.type(e.target.value)}
			/>
			{children}
		</div>
	);
}

/** The other pages of a list, when there are any. */
export function ListPages({ search, total = 0 }: { search: Search; total?: number }) {
	if (total <= search.perPage) return null;
	return (
		<Suspense>
			<Pages current={search.page} pageSize={search.perPage} total={total} onChange={search.setPage} />
		</Suspense>
	);
}

interface ActionProps {
	name: string;
	onCopy?: () => void;
	onChange?: () => void;
	onDelete: () => void;
}

/** What can be done with a line of a list besides opening it. */
export function LineActions({ name, onCopy, onChange, onDelete }: ActionProps) {
	const acts = [
		{ say: "Copy", icon: <CopyOutlined />, act: onCopy },
		{ say: "Change", icon: <EditOutlined />, act: onChange },
		{ say: "Delete", icon: <DeleteOutlined />, act: onDelete },
	];
	return acts.map(
		(a) =>
			a.act && (
				<Button
					key={a.say}
					type="text"
					icon={a.icon}
					aria-label={`${a.say} ${name}`}
					title={a.say}
					onClick={a.act}
				/>
			),
	);
}
