import message from "antd/es/message";
import type { MessageInstance } from "antd/es/message/interface";
import { createContext, type ReactNode, useContext } from "react";

const Context = createContext<MessageInstance | null>(null);

/** Where short messages are shown, one at a time. */
export function Messages({ children }: { children: ReactNode }) {
	const [instance, holder] = message.useMessage({ maxCount: 1 });
	return (
		<Context value={instance}>
			{holder}
			{children}
		</Context>
	);
}

/** Shows short messages. */
export function useMessage(): MessageInstance {
	const instance = useContext(Context);
	if (!instance) throw new Error("outside the frame");
	return instance;
}
