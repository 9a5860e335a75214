import { useMutation } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { useEffect, useId, useState } from "react";
import { useNavigate } from "react-router";
import { ApiError, api, need } from "../api/client";
import { type AtOnce, AtOnceFields, keptOf, nothingYet } from "../pit/at-once";
import { hereZone } from "../shared/clock";
import { Missing } from "../shared/missing";
import { TimeField } from "../shared/time-field";
import { Labelled, TypedField } from "../shared/typed-field";
import { Understood, useTold } from "./told";

const key = "verjuice.past";
const empty = { ...nothingYet, told: "" };

/** A cook-out that is over and was never planned here, told in a few words. */
export default function PastPage() {
	const [typed, setTyped] = useState(() => keptOf(key, empty));
	const navigate = useNavigate();
	const toldId = useId();
	useEffect(() => localStorage.setItem(key, JSON.stringify(typed)), [typed]);
	const body = { ...typed, zone: hereZone() };
	const understood = useTold({ cut: typed.cut, on: typed.on, zone: body.zone, told: typed.told });
	const write = useMutation({
		mutationFn: async (asRemarks: boolean) =>
			need(await api.POST("/api/past", { body: { ...body, as_remarks: asRemarks } })),
		onSuccess: (made) => {
			localStorage.removeItem(key);
			navigate(`/cooks/${made.id}/after`, { replace: true });
		},
	});
	const problem = write.error instanceof ApiError ? write.error.problem : undefined;
	const wrong = (at: string) => problem?.errors?.find((e) => e.pointer === at)?.message;
	const set = (change: Partial<AtOnce & { told: string }>) => {
		write.reset();
		setTyped((t) => ({ ...t, ...change }));
	};
	return (
		<form
			className="now"
			onSubmit={(e) => {
				e.preventDefault();
				write.mutate(false);
			}}
		>
			<h1>Write down a past cook-out</h1>
			<p className="says">
				What was it, and how did it go? Two minutes are enough: it goes into the logbook.
			</p>
			<AtOnceFields typed={typed} set={set} wrong={wrong} whatLabel="What it was" wrapLabel="Planned wrap">
				<TimeField
					past
					eager
					label="It went on"
					value={typed.on}
					error={wrong("/on")}
					onChange={(on) => set({ on })}
				/>
				<TypedField
					label="What to call it"
					value={typed.name ?? ""}
					usual="named after the cut"
					error={wrong("/name")}
					onChange={(name) => set({ name })}
				/>
			</AtOnceFields>
			<Labelled id={toldId} label="How it went, in your own words" error={wrong("/told")}>
				<Input.TextArea
					id={toldId}
					className="told-words"
					variant="underlined"
					rows={3}
					maxLength={4000}
					value={typed.told}
					placeholder="wrapped about four hours in, 165, foil; off at nine hours, 203"
					onChange={(e) => set({ told: e.target.value })}
				/>
			</Labelled>
			{understood && typed.told.trim() !== "" && (
				<Understood told={understood} onEdit={(told) => set({ told })} />
			)}
			{typed.told.trim() !== "" && (typed.on === "" || typed.cut === "") && (
				<p className="says">Say what it was and when it went on to see how this is understood.</p>
			)}
			{write.error && (
				<p className="typed-error" role="alert">
					{write.error.message}
				</p>
			)}
			<div className="told-acts">
				<Button
					type="primary"
					size="large"
					htmlType="submit"
					loading={write.isPending}
					disabled={!typed.cut || !typed.weight.trim() || !typed.told.trim()}
				>
					Put it in the logbook
				</Button>
				<Missing typed={{ "the cut": typed.cut, "the weight": typed.weight, "how it went": typed.told }} />
				{wrong("/told") && (understood?.asks.length ?? 0) > 0 && (
					<Button size="large" onClick={() => write.mutate(true)}>
						Keep what is not clear as remarks
					</Button>
				)}
			</div>
		</form>
	);
}
