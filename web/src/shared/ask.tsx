import { useQuery } from "@tanstack/react-query";
import { Popover } from "antd";
import { createContext, type ReactNode, useContext, useState } from "react";
import type { Figure, Where } from "../api/client";
import "./ask.css";

/** Fetches where a figure comes from, on a page whose figures come without it. */
export const WhereContext = createContext<((figure: Figure) => Promise<Where>) | undefined>(undefined);

interface Props {
	figure: Figure;
	/** What the number is, for the explanation's heading and screen readers. */
	name: string;
	size?: "huge" | "large" | "usual";
	/** The figure that is shown, when only part of it is. */
	of?: Figure;
	/** Shown instead of the figure's own text. */
	children?: ReactNode;
}

/** A number that answers "where from": press it. */
export function Ask({ figure, of = figure, name, size = "usual", children }: Props) {
	const [open, setOpen] = useState(false);
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
			open={open}
			onOpenChange={setOpen}
			content={open && <Answer figure={figure} of={of} shown={shown} />}
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

/** Where a figure comes from: the rule, what went into it, its range and its source. */
function Answer({ figure, of, shown }: { figure: Figure; of: Figure; shown: ReactNode }) {
	const fetch = useContext(WhereContext);
	const asked = useQuery({
		queryKey: ["where", of],
		enabled: !of.where && fetch !== undefined,
		gcTime: 0,
		retry: false,
		queryFn: async () => fetch?.(of),
	});
	const where = of.where ?? asked.data;
	return (
		<div className="ask-answer" role="status">
			<p className="ask-value">{shown}</p>
			{!where && <p className="muted">{asked.error ? asked.error.message : "Looking it up…"}</p>}
			{where && <p>{where.explanation}</p>}
			{where && where.inputs.length > 0 && (
				<dl>
					{where.inputs.map((i) => (
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
			{where && (
				<p className="muted">
					<b>Source:</b> {where.source}
				</p>
			)}
		</div>
	);
}
