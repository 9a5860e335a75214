import {
	BookOutlined,
	CalendarOutlined,
	CloseCircleFilled,
	ExperimentOutlined,
	FireOutlined,
	PrinterOutlined,
	WarningFilled,
} from "@ant-design/icons";
import { Button } from "antd";
import { Link, useNavigate, useParams } from "react-router";
import { api, type Plan } from "../api/client";
import { ChoiceField, Field } from "../record/field";
import { useTake } from "../record/use-field";
import { Ask } from "../shared/ask";
import { Agenda } from "./agenda";
import { AllCautions } from "./all-cautions";
import { useInHand } from "./context";
import { CountedBack } from "./counted-back";
import { serveAt } from "./marks";
import { Pits } from "./pits";
import { Rooms } from "./rooms";
import "./plan-page.css";

/** The days laid out: which plan, what to do when, what conflicts. */
export function PlanPage() {
	const { cook, sheet, goto } = useInHand();
	const { id } = useParams();
	const plan = sheet?.plan;
	if (!plan && (cook.pieces.length === 0 || cook.serve_at === "")) {
		return (
			<>
				<h2>The plan</h2>
				<p className="says">
					{cook.pieces.length === 0
						? "Add a piece of meat and set the serving time to see the plan."
						: "Set the serving time: everything is counted back from it."}
				</p>
				<Button
					type="primary"
					size="large"
					onClick={() => goto(cook.pieces.length === 0 ? "add" : "occasion")}
				>
					{cook.pieces.length === 0 ? "Add a piece of meat" : "Set the serving time"}
				</Button>
			</>
		);
	}
	return (
		<>
			<div className="plan-head">
				<h2>The plan</h2>
				<p className="plan-links">
					<a href={`/api/cooks/${id}/calendar.ics`} download>
						<CalendarOutlined aria-hidden /> To a calendar
					</a>
					<Practise id={id ?? ""} />
					<Link to={`/cooks/${id}/pit`}>
						<FireOutlined aria-hidden /> Pit side
					</Link>
					<Link to={`/cooks/${id}/after`}>
						<BookOutlined aria-hidden /> How it went
					</Link>
					<Link to={`/cooks/${id}/card`}>
						<PrinterOutlined aria-hidden /> Pit card
					</Link>
				</p>
			</div>
			{plan ? (
				<LaidOut plan={plan} />
			) : (
				<p className="says">{sheet ? "Fix the fields marked in red to see the plan." : "Working it out…"}</p>
			)}
			<Setting rooms={plan?.rooms ?? []} />
			<AllCautions />
		</>
	);
}

/** The plans there are, what the chosen one says, and what is to do. */
function LaidOut({ plan }: { plan: Plan }) {
	const { change } = useInHand();
	const take = useTake();
	return (
		<>
			<fieldset className="plans">
				<legend className="unseen">Which plan</legend>
				{plan.options.map((o) => (
					<label key={o.kind} className={o.chosen ? "plan plan-chosen" : "plan"}>
						<input
							type="radio"
							name="plan"
							checked={o.chosen}
							onChange={() =>
								change((c) => {
									c.plan = o.kind;
								})
							}
						/>
						<b>{o.name}</b>
						<span className="plan-chance">
							{o.chance.text}
							<small> % to serve on time</small>
						</span>
						<span className="muted">{o.outline}</span>
						{o.late && (
							<span className="plan-late">
								<WarningFilled aria-hidden /> some of it should have been done already
							</span>
						)}
					</label>
				))}
			</fieldset>
			<p className="says">
				{plan.options.find((o) => o.chosen)?.summary}{" "}
				<Ask name="Chance to serve on time" figure={plan.chance} /> is the chance that every piece is ready
				{plan.safer && (
					<>
						. Serving at{" "}
						<Button
							onClick={() =>
								change((c) => {
									serveAt(c, plan.safer_at);
								})
							}
						>
							{plan.safer}
						</Button>{" "}
						is safer
					</>
				)}
				.
			</p>
			{plan.instead && (
				<p className="plan-told" role="status">
					{plan.instead}
				</p>
			)}
			{plan.change && (
				<p className="plan-told" role="status">
					{plan.change}
				</p>
			)}
			{plan.conflicts.length > 0 && (
				<ul className="plan-conflicts" aria-label="Conflicts">
					{plan.conflicts.map((c) => (
						<li key={`${c.kind}${c.at}${c.message}`}>
							<WarningFilled aria-hidden /> {c.message}.
						</li>
					))}
				</ul>
			)}
			<Agenda plan={plan} />
			<CountedBack />
			{plan.refused.length > 0 && (
				<>
					<h3>Other plans</h3>
					<ul className="plan-refused">
						{plan.refused.map((r) => (
							<li key={r.name}>
								<CloseCircleFilled aria-hidden /> <b>{r.name}:</b> {r.reason}.
								{r.offer && <Button onClick={() => take(r.offer)}>{r.offer.text}</Button>}
							</li>
						))}
					</ul>
				</>
			)}
			{plan.learnt.length > 0 && (
				<>
					<h3>What your pits taught</h3>
					{plan.learnt.map((l) => (
						<p key={l} className="says">
							{l}
						</p>
					))}
				</>
			)}
		</>
	);
}

/** Quiet hours, hands and pits: what the plan is laid around. */
function Setting({ rooms }: { rooms: Plan["rooms"] }) {
	const { catalogue } = useInHand();
	return (
		<section className="plan-set">
			<h3>Your pits and helpers</h3>
			<div className="fields fields-four">
				<Field label="Quiet hours" at="/quiet" usual={catalogue.usual.quiet} />
				<ChoiceField
					label="Pairs of hands"
					at="/hands"
					usual="1"
					options={Array.from({ length: catalogue.usual.hands }, (_, i) => String(i + 1)).map((n) => ({
						value: n,
						label: n,
					}))}
				/>
			</div>
			<Pits />
			{rooms.length > 0 && <Rooms rooms={rooms} />}
		</section>
	);
}

/** Copies the cook, to practise it on a simulated pit. */
function Practise({ id }: { id: string }) {
	const go = useNavigate();
	const practise = async () => {
		const { data } = await api.POST("/api/cooks/{id}/practise", {
			params: { path: { id } },
			body: { speed: 60 },
		});
		if (data) go(`/cooks/${data.id}/pit`);
	};
	if (!id) return null;
	return (
		<button type="button" onClick={practise}>
			<ExperimentOutlined aria-hidden /> Practise it
		</button>
	);
}
