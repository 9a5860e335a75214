import { WarningFilled } from "@ant-design/icons";
import { Field, YesNoField } from "../record/field";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { usePiece } from "./context";
import { DepthPicture } from "./depth-picture";

/** Salt and wait: how long, covered or open, and how far the salt gets. */
export function WaitStage({ index }: { index: number }) {
	const { piece, figures, at, edit, wrong, catalogue } = usePiece(index);
	const usual: Record<string, string | undefined> = catalogue.usual.wait;
	const d = figures?.depth;
	const style = piece.wait.style || catalogue.usual.style;
	return (
		<>
			<h2>Wait between salt and fire</h2>
			{d && (
				<div className="amounts">
					<div>
						<Ask size="huge" name="How deep the salt gets" figure={d.depth} />
						<p>deep at the fire</p>
					</div>
					<div>
						<Ask size="huge" name="When the coat is taken up" figure={d.taken_up} />
						<p>until the coat is taken up</p>
					</div>
					<div>
						<Ask size="huge" name="How even it is" figure={d.even} />
						<p>{d.even_note}</p>
					</div>
				</div>
			)}
			{d && <DepthPicture depth={d} />}
			<div className="wait-choices">
				<Choice
					label="How long"
					value={style}
					error={wrong("wait/style")}
					onChange={(v) =>
						edit((p) => {
							p.wait.style = v;
							p.wait.for = usual[v] ?? "";
						})
					}
					options={[
						{ value: "minutes", label: "minutes", note: "while the fire comes up" },
						{ value: "overnight", label: "overnight", note: "salted in the evening" },
						{ value: "day", label: "a day or more", note: "for thick cuts" },
					]}
				/>
				<Field label="Salted before the fire" at={at("wait/for")} usual={usual[style]} />
				<YesNoField
					label="In the fridge"
					at={at("wait/open")}
					no={{ label: "covered", note: "keeps wet, cleaner fridge" }}
					yes={{ label: "open", note: "dry surface, better bark" }}
				/>
			</div>
			{d && (
				<>
					{d.wait_note && <p className="says wait-follows">{d.wait_note}</p>}
					<p className={d.bad_moment ? "typed-error" : "says"}>
						{d.bad_moment && <WarningFilled aria-hidden />} {d.surface}
					</p>
					<p className="says">
						{d.even_at} {d.advice}
					</p>
				</>
			)}
		</>
	);
}
