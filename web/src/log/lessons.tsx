import { Button, Popconfirm, Select } from "antd";
import { useLessons } from "./use-logbook";

/** What was learnt from the logbook, said aloud, and how to leave a cook-out out of it. */
export function Lessons({ cooks }: { cooks: { id: string; name: string }[] }) {
	const { lessons, leaveOut, reset } = useLessons();
	const l = lessons.data;
	if (!l) return null;
	const trouble = leaveOut.error ?? reset.error;
	return (
		<section className="lessons" aria-label="What it has learnt">
			<h2>What it has learnt</h2>
			{l.since && <p className="muted">Only cook-outs from {l.since} on count.</p>}
			{trouble && <p role="alert">{trouble.message}</p>}
			{l.lines.length === 0 ? (
				<p className="says">Nothing yet: it learns from each cook-out that you say is over.</p>
			) : (
				<ul>
					{l.lines.map((line) => (
						<li key={line.id}>
							<span>{line.text}</span> <small className="muted">likely {line.range}</small>
						</li>
					))}
				</ul>
			)}
			<p className="lessons-change">
				<Select
					variant="underlined"
					aria-label="Leave a cook-out out"
					placeholder="leave a cook-out out"
					value={null}
					options={cooks
						.filter((c) => !l.without.some((w) => w.id === c.id))
						.map((c) => ({ value: c.id, label: c.name }))}
					onChange={(cook: string) => leaveOut.mutate({ cook, out: true })}
				/>
				{l.without.map((w) => (
					<Button key={w.id} onClick={() => leaveOut.mutate({ cook: w.id, out: false })}>
						{w.name} is left out: take it in again
					</Button>
				))}
				{l.since ? (
					<Button onClick={() => reset.mutate(true)}>Learn from the whole logbook again</Button>
				) : (
					<Popconfirm
						title="Forget what was learnt?"
						description="Only cook-outs from today on will count. You can take the others in again."
						okText="Forget it"
						cancelText="Keep it"
						onConfirm={() => reset.mutate(false)}
					>
						<Button>Forget it and start again</Button>
					</Popconfirm>
				)}
			</p>
		</section>
	);
}
