import { CheckOutlined, ExclamationCircleFilled, InfoCircleOutlined, StopFilled } from "@ant-design/icons";
import { Button } from "antd";
import type { Caution } from "../api/client";
import { now } from "../shared/clock";
import { useInHand } from "./context";
import "./cautions.css";

const look = {
	stop: { icon: <StopFilled aria-hidden />, word: "Stop" },
	care: { icon: <ExclamationCircleFilled aria-hidden />, word: "Care" },
	note: { icon: <InfoCircleOutlined aria-hidden />, word: "Note" },
} as const;

/** Where a stage's cautions are shown. */
const shownAt: Record<string, string[]> = { clock: ["fire", "rest"], fire: ["fire", "rest"] };

/** The rules that apply here: this stage's, and from other stages whatever says stop. */
export function Cautions({ piece, stage }: { piece: number; stage: string }) {
	const { sheet } = useInHand();
	const here = shownAt[stage] ?? [stage];
	const found = (sheet?.pieces[piece]?.cautions ?? []).filter(
		(c) => here.includes(c.stage) || c.severity === "stop",
	);
	if (found.length === 0) return null;
	return (
		<section className="cautions" aria-label="Cautions">
			<CautionList found={found.map((c) => ({ ...c, piece, title: "" }))} />
		</section>
	);
}

interface ListProps {
	found: (Caution & { piece: number; title: string })[];
	/** Say of which piece each is. */
	named?: boolean;
}

/** Cautions as a list; a stop is read and acknowledged, which is kept in the record. */
export function CautionList({ found, named }: ListProps) {
	const { sheet, cook, say } = useInHand();
	const read = (c: ListProps["found"][number]) => {
		const at = now();
		if (!at) return;
		say({
			kind: "acknowledged",
			piece: cook.pieces[c.piece]?.key ?? "",
			what: c.id,
			at: new Date(at).toISOString(),
			values: c.values,
		});
	};
	return (
		<>
			<ul>
				{found.map((c) => (
					<CautionLine
						key={`${c.id}${c.piece}`}
						caution={c}
						title={named && cook.pieces.length > 1 ? c.title : ""}
						onRead={() => read(c)}
					/>
				))}
			</ul>
			<p className="cautions-close">{sheet?.disclaimer}</p>
		</>
	);
}

interface LineProps {
	caution: Omit<Caution, "stage">;
	/** Of what it is; may be empty. */
	title: string;
	/** Called when a stop was read. */
	onRead: () => void;
}

/** One caution; a stop has a button to say that it was read. */
export function CautionLine({ caution: c, title, onRead }: LineProps) {
	return (
		<li className={`caution caution-${c.severity}`}>
			<b>
				{look[c.severity].icon} {look[c.severity].word}
			</b>
			<div>
				<p>
					{title && <b>{title}: </b>}
					{c.message} <span>{c.action}</span> <small>{c.authority}</small>
				</p>
				{c.severity === "stop" &&
					(c.read ? (
						<p className="muted">
							<CheckOutlined aria-hidden /> Read and acknowledged{" "}
							{new Date(c.read).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
						</p>
					) : (
						<Button onClick={onRead}>I understand the risk</Button>
					))}
			</div>
		</li>
	);
}
