import { BellOutlined, CheckOutlined, PushpinFilled, WarningFilled } from "@ant-design/icons";
import { Button, Checkbox } from "antd";
import { useEffect, useState } from "react";
import type { Plan, TaskLine } from "../api/client";
import { Field } from "../record/field";
import { now } from "../shared/clock";
import { PickTime } from "../shared/time-field";
import { useInHand } from "./context";
import { fix, local, unfix } from "./marks";
import { useReminders } from "./use-reminders";
import { useTick } from "./use-tick";

/** Everything there is to do, in order: mark it done, or fix its time. */
export function Agenda({ plan }: { plan: Plan }) {
	const reminders = useReminders(plan.tasks);
	const [opened, setOpened] = useState(false);
	useEffect(() => setOpened(true), []);
	const days = [...new Set(plan.tasks.map((t) => t.day))];
	return (
		<section className="agenda" aria-label="What to do when">
			<div className="agenda-head">
				<h3>What to do when</h3>
				<Button icon={<BellOutlined />} onClick={reminders.toggle} aria-pressed={reminders.on}>
					{reminders.on ? "Reminders are on" : "Remind me"}
				</Button>
			</div>
			{reminders.says && (
				<p className="says" role="status">
					{reminders.says}
				</p>
			)}
			{days.map((day) => (
				<Day key={day} day={day} folds={!opened} tasks={plan.tasks.filter((t) => t.day === day)} />
			))}
		</section>
	);
}

/** The tasks of a day. One that is over when the page is opened is folded; what is done meanwhile stays in sight. */
function Day({ day, folds, tasks }: { day: string; folds: boolean; tasks: TaskLine[] }) {
	const left = tasks.filter((t) => !t.done).length;
	const [open, setOpen] = useState(left > 0 || !folds);
	return (
		<details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
			<summary>
				<h4>{day}</h4> <span className="muted">{left > 0 ? `${left} to do` : "all done"}</span>
			</summary>
			<ol>
				{tasks.map((t) => (
					<Task key={t.id} task={t} />
				))}
			</ol>
		</details>
	);
}

function Task({ task: t }: { task: TaskLine }) {
	const { change, goto, say, cook } = useInHand();
	const [fixing, setFixing] = useState(false);
	const tick = useTick();
	const done = t.fact !== "";
	const was = (at: string) => say({ kind: "done", piece: t.key, what: t.stage, at });
	return (
		<li className={t.done ? "task task-done" : "task"}>
			<b className="task-time">{t.time}</b>
			<div>
				<p>
					{t.done && <CheckOutlined aria-label="done" />}{" "}
					{t.fixed && <PushpinFilled aria-label="its time is set" />}{" "}
					{t.piece >= 0 ? (
						<button type="button" onClick={() => goto(t.stage === "salt" ? "season" : "fire", t.piece)}>
							{t.label}
						</button>
					) : (
						t.label
					)}
				</p>
				<p className="muted">{t.note}</p>
				{t.warning && (
					<p className="task-warn">
						<WarningFilled aria-hidden /> {t.warning}
					</p>
				)}
				{t.checks && !t.done && (
					<ul className="task-checks" aria-label={`Before: ${t.label}`}>
						{t.checks.map((c) => (
							<li key={c.tick}>
								<Checkbox checked={c.ticked} onChange={() => tick(c)}>
									{c.text}
								</Checkbox>
							</li>
						))}
						<li className="task-probe">
							<Field label="Probe reading in ice water" at="/probe" usual="0 °C" />
						</li>
					</ul>
				)}
				{fixing && (
					<PickTime
						autoFocus
						zone={cook.zone}
						name={`Time of: ${t.label}`}
						value={t.local}
						onShut={() => setFixing(false)}
						onChange={(at) => {
							if (!at || at === t.local) return;
							if (done) was(at);
							else change((c) => fix(c, t.key, t.stage, at));
						}}
					/>
				)}
			</div>
			{t.can_mark && (
				<div className="task-acts">
					{done ? (
						<>
							<Button aria-label={`Say when: ${t.label}`} onClick={() => setFixing(true)}>
								when?
							</Button>
							<Button onClick={() => say({ kind: "withdrawn", what: t.fact, at: t.at })}>not done</Button>
						</>
					) : (
						!t.done && (
							<>
								{t.fixed ? (
									<Button onClick={() => change((c) => unfix(c, t.key, t.stage))}>let it move</Button>
								) : (
									t.can_fix && (
										<Button aria-label={`Set the time of: ${t.label}`} onClick={() => setFixing(true)}>
											set the time
										</Button>
									)
								)}
								<Button
									type="primary"
									aria-label={`Done now: ${t.label}`}
									onClick={() => {
										const at = now();
										if (at) was(local(at, cook.zone));
									}}
								>
									done
								</Button>
							</>
						)
					)}
				</div>
			)}
		</li>
	);
}
