import Button from "antd/es/button";
import { useCallback } from "react";
import { useMessage } from "./messages";

/** Says what is gone, with a button that brings it back. */
export function useUndo() {
	const message = useMessage();
	return useCallback(
		(said: string, bringBack: () => void) => {
			const key = "undo";
			message.open({
				key,
				duration: 12,
				content: (
					<span className="undo">
						{said}
						<Button
							type="primary"
							onClick={() => {
								bringBack();
								message.destroy(key);
							}}
						>
							Put it back
						</Button>
					</span>
				),
			});
		},
		[message],
	);
}
