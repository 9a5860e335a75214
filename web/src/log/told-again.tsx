import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { useId, useState } from "react";
import { ApiError, api, need } from "../api/client";
import { TimeField } from "../shared/time-field";
import { Labelled } from "../shared/typed-field";
import { Understood, useTold } from "./told";
import type { After } from "./use-after";

type Telling = After["tellings"][number];

/** The words in which pieces were told, beside what they became; they can be changed at any time. */
export function ToldAgain({ id, went }: { id: string; went: After }) {
	const untold = went.tellings.some((of) => !of.before);
	return (
		<>
			{untold && (
				<p className="says">
					Nothing was pressed while it cooked. Tell how it went, in a few words, and it goes into the logbook.
				</p>
			)}
			{went.tellings.map((of) => (
				<ToldOf key={of.piece} id={id} of={of} />
			))}
		</>
	);
}

/** The words of one piece; of one that was never told, a place to tell them. */
function ToldOf({ id, of }: { id: string; of: Telling }) {
	const field = useId();
	const queries = useQueryClient();
	const [typed, setTyped] = useState<string>();
	const [on, setOn] = useState(of.on);
	const understood = useTold({ cut: of.cut, on, zone: of.zone, told: typed ?? "" });
	const save = useMutation({
		mutationFn: async (as_remarks: boolean) =>
			need(
				await api.PUT("/api/cooks/{id}/told", {
					params: { path: { id } },
					body: { told: typed ?? "", as_remarks, piece: of.piece, on },
				}),
			),
		onSuccess: () => {
			setTyped(undefined);
			return Promise.all([
				queries.invalidateQueries({ queryKey: ["after", id] }),
				queries.invalidateQueries({ queryKey: ["facts", id] }),
				queries.invalidateQueries({ queryKey: ["logbook"] }),
			]);
		},
	});
	const problem = save.error instanceof ApiError ? save.error.problem : undefined;
	const wrong = (at: string) => problem?.errors?.find((e) => e.pointer === at)?.message;
	const name = of.name || "In your own words";
	const change = (text: string) => {
		save.reset();
		setTyped(text);
	};
	return (
		<section className="after-told" aria-label={name}>
			<h2>{name}</h2>
			{typed === undefined ? (
				<>
					{of.before && (
						<p>
							{of.words ||
								"The words in which this was told were not kept, and an earlier version may have misread them. Nothing is learnt from it until it is told again."}
						</p>
					)}
					<Button size="large" onClick={() => setTyped(of.words)}>
						{of.words ? "Change the words" : of.before ? "Tell it again" : "Tell how it went"}
					</Button>
				</>
			) : (
				<>
					{!of.pressed && (
						<TimeField
							past
							eager
							label="It went on"
							zone={of.zone}
							value={on}
							error={wrong("/on")}
							onChange={(at) => {
								save.reset();
								setOn(at);
							}}
						/>
					)}
					<Labelled id={field} label="How it went" error={wrong("/told")}>
						<Input.TextArea
							id={field}
							className="told-words"
							variant="underlined"
							rows={4}
							maxLength={4000}
							value={typed}
							placeholder="wrapped about four hours in, 165, foil; off at nine hours, 203"
							onChange={(e) => change(e.target.value)}
						/>
					</Labelled>
					{understood && typed.trim() !== "" && <Understood told={understood} onEdit={change} />}
					{save.error && !wrong("/told") && !wrong("/on") && (
						<p className="typed-error" role="alert">
							{save.error.message}
						</p>
					)}
					<p className="after-acts">
						<Button type="primary" size="large" loading={save.isPending} onClick={() => save.mutate(false)}>
							Save these words
						</Button>
						<Button size="large" onClick={() => setTyped(undefined)}>
							{of.before ? "Leave them as they were" : "Not now"}
						</Button>
						{problem && (understood?.asks.length ?? 0) > 0 && (
							<Button size="large" onClick={() => save.mutate(true)}>
								Keep what is not clear as remarks
							</Button>
						)}
					</p>
				</>
			)}
		</section>
	);
}
