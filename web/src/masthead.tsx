import { SearchOutlined } from "@ant-design/icons";
import { Link, NavLink, useNavigate } from "react-router";
import { usePrefs } from "./prefs";
import { useKeys } from "./shared/use-keys";
import "./masthead.css";

/** The top line: where you are, and what the kitchen thinks in. */
export function Masthead() {
	const [prefs, set] = usePrefs();
	const metric = prefs.units === "metric";
	const navigate = useNavigate();
	useKeys({ "/": () => navigate("/find"), "?": () => navigate("/terms#keys") });
	const choices = (
		<>
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
		</>
	);
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
			<Link to="/find" className="masthead-find" title="Search everywhere (key /)">
				<SearchOutlined aria-hidden /> <span>Search</span>
			</Link>
			<details
				className="masthead-menu"
				onBlur={(e) => {
					if (!e.currentTarget.contains(e.relatedTarget)) e.currentTarget.removeAttribute("open");
				}}
			>
				<summary>More</summary>
				{/* biome-ignore lint/a11y/useKeyWithClickEvents: what is chosen in it is a link or a button */}
				{/* biome-ignore lint/a11y/noStaticElementInteractions: as above */}
				<div onClick={(e) => e.currentTarget.closest("details")?.removeAttribute("open")}>
					<Link to="/terms">Help</Link>
					<Link to="/files">Files in and out</Link>
					<Link to="/bin">Bin</Link>
					<div className="masthead-prefs masthead-inside">{choices}</div>
				</div>
			</details>
			<div className="masthead-prefs">{choices}</div>
		</header>
	);
}
