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
			title="This cook-out was changed on another screen."
			description={
				<>
					<p>What you typed is still on this screen, but not saved.</p>
					{theirs && theirs.list.length > 0 && (
						<>
							<p>If you keep yours, you overwrite this from the other screen:</p>
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
						<p>Keeping yours overwrites nothing that was typed there.</p>
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
