import { useMutation } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { ApiError, api, need } from "../api/client";
import { hereZone } from "../shared/clock";
import { Missing } from "../shared/missing";
import { TimeField } from "../shared/time-field";
import { type AtOnce, AtOnceFields, keptOf, nothingYet } from "./at-once";

const key = "verjuice.now";

/** It is on the fire already, and was never planned here: what now? */
export default function NowPage() {
	const [typed, setTyped] = useState(() => keptOf(key, nothingYet));
	const navigate = useNavigate();
	useEffect(() => localStorage.setItem(key, JSON.stringify(typed)), [typed]);
	const begin = useMutation({
		mutationFn: async () => need(await api.POST("/api/now", { body: { ...typed, zone: hereZone() } })),
		onSuccess: (made) => {
			localStorage.removeItem(key);
			navigate(`/cooks/${made.id}/pit`, { replace: true });
		},
	});
	const problem = begin.error instanceof ApiError ? begin.error.problem : undefined;
	const wrong = (at: string) => problem?.errors?.find((e) => e.pointer === at)?.message;
	const set = (change: Partial<AtOnce>) => {
		begin.reset();
		setTyped((t) => ({ ...t, ...change }));
	};
	return (
		<form
			className="now"
			onSubmit={(e) => {
				e.preventDefault();
				begin.mutate();
			}}
		>
			<h1>It is on the fire now</h1>
			<p className="says">
				Say what went on and when. The pit side then tells how it goes on from here, when to wrap and when it
				is done.
			</p>
			<AtOnceFields typed={typed} set={set} wrong={wrong} wrapLabel="Wrap">
				<TimeField
					past
					eager
					label="It went on"
					value={typed.on}
					hint="Empty is now."
					error={wrong("/on")}
					onChange={(on) => set({ on })}
				/>
				<TimeField
					eager
					label="Serve at"
					value={typed.serve_at ?? ""}
					hint="Leave empty: whenever it is done."
					error={wrong("/serve_at")}
					onChange={(serve_at) => set({ serve_at })}
				/>
			</AtOnceFields>
			{begin.error && (
				<p className="typed-error" role="alert">
					{begin.error.message}
				</p>
			)}
			<Button
				type="primary"
				size="large"
				htmlType="submit"
				loading={begin.isPending}
				disabled={!typed.cut || !typed.weight.trim()}
			>
				Go to the pit side
			</Button>
			<Missing typed={{ "the cut": typed.cut, "the weight": typed.weight }} />
		</form>
	);
}
