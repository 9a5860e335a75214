import Button from "antd/es/button";
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

interface UnreadProps {
	title: string;
	error: Error;
	again: () => unknown;
}

/** What could not be read, why, and a button that tries again. */
export function Unread({ title, error, again }: UnreadProps) {
	return (
		<Nothing title={title}>
			<p>{error.message}</p>
			<Button type="primary" onClick={() => again()}>
				Try again
			</Button>
		</Nothing>
	);
}
