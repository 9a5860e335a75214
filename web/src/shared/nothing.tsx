import type { ReactNode } from "react";
import { Link } from "react-router";
import "./nothing.css";

/** A page with nothing on it, and the first step away from it. */
export function Nothing({ title, children }: { title: string; children?: ReactNode }) {
	return (
		<div className="nothing">
			<h1>{title}</h1>
			{children ?? (
				<p>
					<Link to="/">Back to your cook-outs</Link>
				</p>
			)}
		</div>
	);
}
