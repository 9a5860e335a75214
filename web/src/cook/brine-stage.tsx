import { WarningFilled } from "@ant-design/icons";
import type { Bath, BathSheet } from "../api/client";
import { usePrefs } from "../prefs";
import { Field } from "../record/field";
import { Ask } from "../shared/ask";
import { Choice } from "../shared/choice";
import { BathWith } from "./bath-with";
import { usePiece } from "./context";
import { InjectionPart } from "./injection-part";
import "./brine-stage.css";

const newBath = (kind: string): Bath => ({
	kind,
	strength: "",
	salt: "",
	target: "",
	liquid: "",
	pot: "",
	for: "",
	hot: "",
	with: [],
});

/** Salt by water: a cold bath, or brine through the needle. */
export function BrineStage({ index }: { index: number }) {
	return (
		<>
			<BathPart index={index} />
			<InjectionPart index={index} />
		</>
	);
}

function BathPart({ index }: { index: number }) {
	const { piece, figures, at, edit, wrong, catalogue } = usePiece(index);
	const [{ units }] = usePrefs();
	const b = piece.bath;
	const out = figures?.bath;
	const put = (next: Partial<Bath>) =>
		edit((p) => {
			if (p.bath) p.bath = { ...p.bath, ...next };
		});
	return (
		<section>
			<h2>Wet brine</h2>
			<Choice
				label="Kind of bath"
				quiet
				value={b?.kind ?? ""}
				error={wrong("bath/kind")}
				onChange={(kind) =>
					edit((p) => {
						p.bath = kind === "" ? undefined : { ...(p.bath ?? newBath(kind)), kind };
					})
				}
				options={[
					{ value: "", label: "none" },
					{
						value: "equilibrium",
						label: "equilibrium bath",
						note: "meat and water end at the target: it cannot get saltier than that",
					},
					{ value: "strong", label: "strong bath", note: "quick, and lifted out in time" },
				]}
			/>
			{b && out && (
				<>
					<div className="amounts">
						<div>
							<Ask size="huge" name="Liquid in the pot" figure={out.liquid} />
							<p>in the pot</p>
						</div>
						<div>
							<Ask size="huge" name="Salt to dissolve" figure={out.salt} />
							<p>
								salt, <Ask name="Strength of the bath" figure={out.strength} />
							</p>
						</div>
						<div>
							<Ask size="huge" name="Salt it leaves in the meat" figure={out.takes} />
							<p>in the meat when it comes out</p>
						</div>
					</div>
					<p className={out.too_full ? "typed-error" : "says"}>
						{out.too_full && <WarningFilled aria-hidden />} {out.fits} {out.window}
					</p>
				</>
			)}
			{b && (
				<div className="fields fields-four">
					<Field
						label={b.kind === "strong" ? "Aim for, in the meat" : "Target, in the meat"}
						at={at("bath/target")}
						usual={catalogue.usual.bath_target}
					/>
					<Field
						label="Salt, by your recipe"
						at={at("bath/salt")}
						usual="60 g/L"
						hint="for example 1 cup table salt in 5 qt"
					/>
					{b.kind === "strong" && !b.salt?.trim() && (
						<Field label="Strength" at={at("bath/strength")} usual={catalogue.usual.bath_strength} />
					)}
					<Field label="Time in the bath" at={at("bath/for")} usual={catalogue.usual.bath_time} />
					<Field
						label="Liquid for all pieces"
						at={at("bath/liquid")}
						usual={
							out
								? `${out.liquid.text} ${out.liquid.unit} covers`.replace("  ", " ")
								: units === "us"
									? "4 qt"
									: "4 L"
						}
					/>
					<Field label="The pot holds" at={at("bath/pot")} usual={units === "us" ? "10 qt" : "10 L"} />
					<Field label="Boiled part is at" at={at("bath/hot")} usual={catalogue.usual.bath_hot} />
				</div>
			)}
			{b && (
				<BathWith
					at={at("bath/with")}
					doses={b.with ?? []}
					parts={out?.parts ?? []}
					catalogue={catalogue}
					wrong={(place) => wrong(`bath/with${place}`)}
					onChange={(doses) => put({ with: doses })}
					onBrine={(brine) => put({ with: [brine], salt: "none", kind: "strong" })}
				/>
			)}
			{b && out && <BathDetails out={out} />}
		</section>
	);
}

/** How to make the bath, check it, and what it does over the hours. */
function BathDetails({ out }: { out: BathSheet }) {
	const most = Math.max(...out.at.map((m) => m.percent), out.takes.value, 0.1);
	return (
		<div className="bath-details">
			<ol className="bath-hours" aria-label="What the meat will hold">
				{out.at.map((m) => (
					<li key={m.hours}>
						<b>{m.hours} h</b>
						<span className="bath-bar" style={{ width: `${(m.percent / most) * 60}%` }} aria-hidden />
						<span>
							<b>{m.text}</b> <span className="muted">{m.inside}</span>
						</span>
					</li>
				))}
			</ol>
			<dl className="pairs">
				{out.parts.length > 0 && (
					<div>
						<dt>of the liquid, plain water</dt>
						<dd>
							<Ask name="Plain water" figure={out.water} />
						</dd>
					</div>
				)}
				<div>
					<dt>boil up, with the salt</dt>
					<dd>
						<Ask name="Boiled part" figure={out.hot} />
					</dd>
				</div>
				<div>
					<dt>then ice, to fridge cold</dt>
					<dd>
						<Ask name="Ice" figure={out.ice} />
					</dd>
				</div>
				<div>
					<dt>hydrometer, at room temperature</dt>
					<dd>
						<Ask name="Density" figure={out.density} />
					</dd>
				</div>
				<div>
					<dt>salometer</dt>
					<dd>
						<Ask name="Salometer" figure={out.salometer} />
					</dd>
				</div>
				<div>
					<dt>the meat gains</dt>
					<dd>
						<Ask name="Weight gained" figure={out.gain} />
					</dd>
				</div>
			</dl>
			<p className="says">
				{out.egg} {out.school} {out.parts_note} {out.chill}
			</p>
		</div>
	);
}
