import { WarningFilled } from "@ant-design/icons";
import { scaleLinear } from "d3-scale";
import type { Plan } from "../api/client";

/** What stands in each pit and in the fridge over time. */
export function Rooms({ rooms }: { rooms: Plan["rooms"] }) {
	const times = rooms.flatMap((r) => r.uses.flatMap((u) => [Date.parse(u.from), Date.parse(u.to)]));
	const x = scaleLinear([Math.min(...times), Math.max(...times)], [0, 100]);
	const high = scaleLinear([0, Math.max(...rooms.flatMap((r) => r.uses.map((u) => u.dm2)), 1)], [6, 20]);
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
									marginLeft: `${x(Date.parse(u.from))}%`,
									width: `${x(Date.parse(u.to)) - x(Date.parse(u.from))}%`,
									height: `${high(u.dm2)}px`,
								}}
							/>
						))}
					</div>
				</li>
			))}
		</ul>
	);
}
