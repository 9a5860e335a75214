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
	return (
		<nav className="bench-nav" aria-label="Bench">
			{places.map(([to, name]) => (
				<NavLink key={to} to={to} end={to !== "/bench"}>
					{name}
				</NavLink>
			))}
		</nav>
	);
}
