import { Alert, Button } from "antd";
import { useEffect } from "react";
import type { CookInHand } from "./use-cook";

/** Two screens have changed one cook: what keeping this one would take from the other, and the choice. */
export function Conflict({ hand }: { hand: CookInHand }) {
	const { theirs, look } = hand;
	useEffect(() => {
		look().catch(() => {});
	}, [look]);
	return (
		<Alert
			className="conflict"
			type="error"
			showIcon
			role="alert"
			title="This cook was changed on another screen."
			description={
				<>
					<p>What you typed here is still here, and not on record.</p>
					{theirs && theirs.list.length > 0 && (
						<>
							<p>Keep yours, and this from the other screen is overwritten:</p>
							<ul>
								{theirs.list.map((o) => (
									<li key={o.what + o.theirs}>
										{o.what}: <b>{o.theirs}</b> there, <b>{o.mine}</b> here
									</li>
								))}
							</ul>
						</>
					)}
					{theirs && theirs.list.length === 0 && (
						<p>Nothing that was typed there is overwritten when you keep yours.</p>
					)}
				</>
			}
			action={
				<>
					<Button onClick={hand.reload}>Take theirs</Button>
					<Button type="primary" disabled={!theirs} onClick={hand.keepMine}>
						Keep mine
					</Button>
				</>
			}
		/>
	);
}
