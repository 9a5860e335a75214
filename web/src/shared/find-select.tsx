import { Select, type SelectProps } from "antd";
import { matchSorter, rankings } from "match-sorter";
import { type ReactNode, useMemo, useState } from "react";
import { Link } from "react-router";

/** Something to find: what it is called where it is chosen, and all that it goes by. */
export interface Findable {
	value: string;
	label: string;
	/** Names that count as much as the label. */
	names?: string[];
}

/**
 * What is meant by what is typed: each word of it is in one of the names. The best come first: a name that is just that,
 * then one that begins with it, then a word of one that does; among equals those that were first before.
 */
export function find<T extends Findable>(all: T[], typed: string): T[] {
	const text = typed.trim();
	if (text === "") return all;
	const by = {
		keys: [(o: T) => o.names ?? [], "label"],
		threshold: rankings.CONTAINS,
		baseSort: (a: { index: number }, b: { index: number }) => a.index - b.index,
	};
	const whole = matchSorter(all, text, by);
	// "mustard yellow" and "the flat of a brisket": all words, in any order.
	const words = text.split(/\s+/).reduce((left, word) => matchSorter(left, word, by), all);
	const singular = text.length > 3 ? matchSorter(all, text.replace(/(?:e?s|ies)$/i, ""), by) : [];
	const found = [...new Set([...whole, ...words, ...(whole.length + words.length === 0 ? singular : [])])];
	// Salt is a word of sea salt, and only the beginning of one of salted butter.
	const low = text.toLowerCase();
	const rank = (o: T) => {
		const names = [...(o.names ?? []), o.label].map((n) => n.toLowerCase());
		if (names.includes(low)) return 0;
		return names.some((n) => n.split(/[\s,]+/).includes(low)) ? 1 : 2;
	};
	return found
		.map((o) => ({ o, by: rank(o) }))
		.sort((a, b) => a.by - b.by)
		.map(({ o }) => o);
}

type Props<V extends string | null> = Omit<
	SelectProps<V, Findable>,
	"options" | "showSearch" | "notFoundContent"
> & {
	options: Findable[];
	/** Words that do not say which is meant: then it is asked, and Enter alone takes none. */
	asks?: { word: string; ask: string }[];
	/** What is offered when nothing goes by that name. */
	unfound?: (typed: string) => ReactNode;
};

/** That no ingredient goes by a name, with the way to add one. */
export function noIngredient(typed: string): ReactNode {
	return (
		<p className="says">
			No ingredient goes by that name.{" "}
			<Link to={`/larder?add=${encodeURIComponent(typed.trim())}`}>Add “{typed.trim()}” to your larder</Link>
		</p>
	);
}

/** A list that is found in by typing any name. */
export function FindSelect<V extends string | null>({ options, unfound, asks, ...rest }: Props<V>) {
	const [typed, setTyped] = useState("");
	const found = useMemo(() => find(options, typed), [options, typed]);
	const asked = asks?.find((a) => a.word === typed.trim().toLowerCase())?.ask;
	return (
		<Select<V, Findable>
			{...rest}
			defaultActiveFirstOption={!asked}
			popupRender={(list) => (
				<>
					{asked && <p className="find-ask">{asked}</p>}
					{list}
				</>
			)}
			showSearch={{ searchValue: typed, onSearch: setTyped, filterOption: false }}
			options={found}
			notFoundContent={unfound?.(typed) ?? "Nothing goes by that name."}
			onOpenChange={(open) => {
				if (!open) setTyped("");
				rest.onOpenChange?.(open);
			}}
		/>
	);
}
