import { useEffect, useRef } from "react";
import { NavLink } from "react-router";
import "./bench.css";
import "./bench-nav.css";

const places = [
	["/bench", "Formulas"],
	["/jars", "Jars"],
	["/larder", "Larder"],
	["/label", "Read a label"],
	["/read", "Read a file"],
	["/guess", "Guess the salt"],
] as const;

/** What else stands on the bench. */
export function BenchNav() {
	const nav = useRef<HTMLElement>(null);
	// On a phone they run off the side: bring the open one into sight.
	useEffect(() => {
		const list = nav.current;
		const open = list?.querySelector<HTMLElement>(".active");
		if (list && open)
			list.scrollLeft = open.offsetLeft - list.offsetLeft - (list.clientWidth - open.clientWidth) / 2;
	}, []);
	return (
		<nav ref={nav} className="bench-nav" aria-label="Bench">
			{places.map(([to, name]) => (
				<NavLink key={to} to={to} end={to !== "/bench"}>
					{name}
				</NavLink>
			))}
		</nav>
	);
}
