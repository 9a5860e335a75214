import { WarningFilled } from "@ant-design/icons";
import type { Plan } from "../api/client";

/** What stands in each pit and in the fridge over time. */
export function Rooms({ rooms }: { rooms: Plan["rooms"] }) {
	const times = rooms.flatMap((r) => r.uses.flatMap((u) => [Date.parse(u.from), Date.parse(u.to)]));
	const from = Math.min(...times);
	const span = Math.max(...times) - from || 1;
	const most = Math.max(...rooms.flatMap((r) => r.uses.map((u) => u.dm2)), 1);
	return (
		<ul className="rooms" aria-label="Room in pits and fridge">
			{rooms.map((r) => (
				<li key={r.name}>
					<p>
						<b>{r.name}</b>{" "}
						<span className={r.full ? "task-warn" : "muted"}>
							{r.full && <WarningFilled aria-hidden />} {r.message}
						</span>
					</p>
					<div className="room-bars">
						{r.uses.map((u) => (
							<span
								key={u.title + u.from}
								title={u.text}
								style={{
									marginLeft: `${((Date.parse(u.from) - from) / span) * 100}%`,
									width: `${((Date.parse(u.to) - Date.parse(u.from)) / span) * 100}%`,
									height: `${6 + (u.dm2 / most) * 14}px`,
								}}
							/>
						))}
					</div>
				</li>
			))}
		</ul>
	);
}
