import { ExclamationCircleFilled, InfoCircleOutlined, StopFilled } from "@ant-design/icons";
import { useInHand } from "./context";
import "./cautions.css";

const look = {
	stop: { icon: <StopFilled aria-hidden />, word: "Stop" },
	care: { icon: <ExclamationCircleFilled aria-hidden />, word: "Care" },
	note: { icon: <InfoCircleOutlined aria-hidden />, word: "Note" },
} as const;

/** The rules that apply here: this stage's, and from other stages whatever says stop. */
export function Cautions({ piece, stage }: { piece: number; stage: string }) {
	const { sheet } = useInHand();
	const here = stage === "clock" ? "fire" : stage;
	const found = (sheet?.pieces[piece]?.cautions ?? []).filter(
		(c) => c.stage === here || c.severity === "stop",
	);
	if (found.length === 0) return null;
	return (
		<section className="cautions" aria-label="Cautions">
			<ul>
				{found.map((c) => (
					<li key={c.id} className={`caution caution-${c.severity}`}>
						<b>
							{look[c.severity].icon} {look[c.severity].word}
						</b>
						<p>
							{c.what} <span>{c.do}</span> <small>{c.authority}</small>
						</p>
					</li>
				))}
			</ul>
			<p className="cautions-close">{sheet?.closing}</p>
		</section>
	);
}
