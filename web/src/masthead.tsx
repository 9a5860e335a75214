import { Link, NavLink } from "react-router";
import { usePrefs } from "./prefs";
import "./masthead.css";

/** The top line: where you are, and what the kitchen thinks in. */
export function Masthead() {
	const [prefs, set] = usePrefs();
	const metric = prefs.units === "metric";
	return (
		<header className="masthead">
			<a className="skip" href="#main">
				skip to the page
			</a>
			<Link to="/" className="wordmark">
				verjuice
			</Link>
			<nav aria-label="Main">
				<NavLink to="/" end>
					Cook-outs
				</NavLink>
				<NavLink to="/log">Logbook</NavLink>
				<NavLink to="/bench">Bench</NavLink>
			</nav>
			<div className="masthead-prefs">
				<button type="button" onClick={() => set({ units: metric ? "us" : "metric" })}>
					<span className="unseen">Units: </span>
					<b>
						{metric ? "kg" : "lb"}
						<span className="masthead-more">{metric ? " · mm · °C" : " · in · °F"}</span>
					</b>
				</button>
				<button type="button" onClick={() => set({ spoons: prefs.spoons === "us" ? "metric" : "us" })}>
					<span className="unseen">Measured with </span>
					{prefs.spoons === "us" ? "US spoons" : "metric spoons"}
				</button>
				<button type="button" onClick={() => set({ mode: prefs.mode === "day" ? "night" : "day" })}>
					{prefs.mode === "day" ? "night" : "day"}
				</button>
			</div>
		</header>
	);
}
