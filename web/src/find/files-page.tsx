import { Link } from "react-router";
import { Carry } from "../log/carry";
import "./find.css";

/** Where files come in and go out. */
export default function FilesPage() {
	return (
		<>
			<div className="list-head">
				<h1>Files in and out</h1>
			</div>
			<Carry />
			<h2>Formulas</h2>
			<p className="says">
				<Link to="/read">Read formulas from a file</Link>: our own JSON, a recipe as schema.org writes it, or
				a table (CSV). A formula goes out from its own page, under “Save as”.
			</p>
			<h2>A cook-out</h2>
			<p className="says">
				Its plan goes to a calendar from “The plan”. What was read and done goes out as a table from “How it
				went”, where readings of another thermometer come in as well.
			</p>
		</>
	);
}
