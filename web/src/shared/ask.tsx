import { Popover } from "antd";
import type { ReactNode } from "react";
import type { Figure } from "../api/client";
import "./ask.css";

interface Props {
	figure: Figure;
	/** What the number is, for the explanation's heading and screen readers. */
	name: string;
	size?: "huge" | "large" | "usual";
	/** Shown instead of the figure's own text. */
	children?: ReactNode;
}

/** A number that answers "where from": press it. */
export function Ask({ figure, name, size = "usual", children }: Props) {
	const shown = (
		<>
			{figure.text}
			{figure.unit && <small> {figure.unit}</small>}
		</>
	);
	return (
		<Popover
			trigger="click"
			placement="bottomLeft"
			title={name}
			content={
				<div className="ask-answer">
					<p className="ask-value">{shown}</p>
					<p>{figure.explanation}</p>
					{figure.inputs.length > 0 && (
						<dl>
							{figure.inputs.map((i) => (
								<div key={i.name}>
									<dt>{i.name}</dt>
									<dd>{i.text}</dd>
								</div>
							))}
						</dl>
					)}
					<p>
						<b>Likely range:</b> {figure.range || "as exact as what was typed"}
					</p>
					<p className="muted">
						<b>Source:</b> {figure.source}
					</p>
				</div>
			}
		>
			<button
				type="button"
				className={`ask ask-${size}`}
				aria-label={`${name}: ${figure.text} ${figure.unit}. Where from?`}
			>
				{children ?? shown}
			</button>
		</Popover>
	);
}
