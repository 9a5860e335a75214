import { Alert, Button } from "antd";
import { useEffect } from "react";
import type { CookInHand } from "./use-cook";

/** Two screens have changed one cook: what keeping this one would take from the other, and the choice. */
export function Conflict({ hand }: { hand: CookInHand }) {
	const { theirs, look, cook } = hand;
	// Looked at anew when more is typed: both values are those of now.
	// biome-ignore lint/correctness/useExhaustiveDependencies: what is typed changes what both have changed
	useEffect(() => {
		const timer = setTimeout(() => look().catch(() => {}), 300);
		return () => clearTimeout(timer);
	}, [look, cook]);
	return (
		<Alert
			className="conflict"
			type="error"
			showIcon
			role="alert"
			title="This cook-out was changed on another screen."
			description={
				<>
					<p>What you typed is still on this screen, but not saved.</p>
					{theirs && theirs.list.length > 0 && (
						<>
							<p>Both screens changed this. All else of both is kept.</p>
							<ul>
								{theirs.list.map((o) => (
									<li key={o.what + o.theirs}>
										{o.what}: <b>{o.theirs}</b> there, <b>{o.mine}</b> here
									</li>
								))}
							</ul>
						</>
					)}
				</>
			}
			action={
				<>
					<Button disabled={!theirs} onClick={() => hand.choose("theirs")}>
						Take theirs
					</Button>
					<Button type="primary" disabled={!theirs} onClick={() => hand.choose("mine")}>
						Keep mine
					</Button>
				</>
			}
		/>
	);
}
