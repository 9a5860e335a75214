import { BellOutlined, CheckOutlined, PushpinFilled, WarningFilled } from "@ant-design/icons";
import { Button, Input } from "antd";
import { useState } from "react";
import type { Plan, TaskLine } from "../api/client";
import { now } from "../shared/clock";
import { useInHand } from "./context";
import { local, mark, unmark } from "./marks";
import { useReminders } from "./use-reminders";

/** Everything there is to do, in order: mark it done, or fix its time. */
export function Agenda({ plan }: { plan: Plan }) {
	const reminders = useReminders(plan.tasks);
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
				<div key={day}>
					<h4>{day}</h4>
					<ol>
						{plan.tasks
							.filter((t) => t.day === day)
							.map((t) => (
								<Task key={t.id} task={t} />
							))}
					</ol>
				</div>
			))}
		</section>
	);
}

function Task({ task: t }: { task: TaskLine }) {
	const { cook, change, goto } = useInHand();
	const [fixing, setFixing] = useState(false);
	const pinned = (cook.marks ?? []).some((m) => m.piece === t.key && m.stage === t.stage && !m.done);
	const done = (cook.marks ?? []).some((m) => m.piece === t.key && m.stage === t.stage && m.done);
	return (
		<li className={t.done ? "task task-done" : "task"}>
			<b className="task-time">{t.time}</b>
			<div>
				<p>
					{t.done && <CheckOutlined aria-label="done" />} {pinned && <PushpinFilled aria-label="fixed" />}{" "}
					{t.piece >= 0 ? (
						<button type="button" onClick={() => goto(t.stage === "salt" ? "season" : "fire", t.piece)}>
							{t.label}
						</button>
					) : (
						t.label
					)}
				</p>
				<p className="muted">
					{[t.note, !t.done && t.stage !== "fire" && t.stage !== "off" && t.lasts].filter(Boolean).join("; ")}
				</p>
				{(t.wakes || t.clash) && (
					<p className="task-warn">
						<WarningFilled aria-hidden /> {t.wakes && "in the quiet hours"}
						{t.wakes && t.clash && ", "}
						{t.clash && "more at once than there are hands"}
					</p>
				)}
				{fixing && (
					<Input
						type="datetime-local"
						variant="underlined"
						autoFocus
						aria-label={`Time of: ${t.label}`}
						defaultValue={t.local}
						onBlur={(e) => {
							const at = e.target.value;
							setFixing(false);
							if (at && at !== t.local) change((c) => mark(c, t.key, t.stage, at, done));
						}}
						onPressEnter={(e) => e.currentTarget.blur()}
					/>
				)}
			</div>
			{t.can && (
				<div className="task-acts">
					{done ? (
						<>
							<Button aria-label={`Say when: ${t.label}`} onClick={() => setFixing(true)}>
								when?
							</Button>
							<Button onClick={() => change((c) => unmark(c, t.key, t.stage))}>not yet</Button>
						</>
					) : (
						!t.done && (
							<>
								{pinned ? (
									<Button onClick={() => change((c) => unmark(c, t.key, t.stage))}>let it move</Button>
								) : (
									t.stage !== "off" && (
										<Button aria-label={`Fix the time of: ${t.label}`} onClick={() => setFixing(true)}>
											fix
										</Button>
									)
								)}
								<Button
									type="primary"
									aria-label={`Done now: ${t.label}`}
									onClick={() => {
										const at = now();
										if (at) change((c) => mark(c, t.key, t.stage, local(at, c.zone), true));
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
