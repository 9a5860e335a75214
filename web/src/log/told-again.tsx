import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { useId, useState } from "react";
import { ApiError, api, need } from "../api/client";
import { Labelled } from "../shared/typed-field";
import { Understood, useTold } from "./told";
import type { After } from "./use-after";

/** The words in which a cook-out was told, beside what they became; they can be changed at any time. */
export function ToldAgain({ id, went }: { id: string; went: After }) {
	const field = useId();
	const queries = useQueryClient();
	const [typed, setTyped] = useState<string>();
	const of = went.told_of;
	const understood = useTold({
		cut: of?.cut ?? "",
		on: of?.on ?? "",
		zone: of?.zone ?? "",
		told: typed ?? "",
	});
	const save = useMutation({
		mutationFn: async (as_remarks: boolean) =>
			need(
				await api.PUT("/api/cooks/{id}/told", {
					params: { path: { id } },
					body: { told: typed ?? "", as_remarks },
				}),
			),
		onSuccess: () => {
			setTyped(undefined);
			return Promise.all([
				queries.invalidateQueries({ queryKey: ["after", id] }),
				queries.invalidateQueries({ queryKey: ["logbook"] }),
			]);
		},
	});
	if (!of) return null;
	const problem = save.error instanceof ApiError ? save.error.problem : undefined;
	return (
		<section className="after-told" aria-label="In your own words">
			<h2>In your own words</h2>
			{typed === undefined ? (
				<>
					<p>{went.told || "The words in which this was told were not kept."}</p>
					<Button size="large" onClick={() => setTyped(went.told)}>
						{went.told ? "Change the words" : "Tell it again"}
					</Button>
				</>
			) : (
				<>
					<Labelled id={field} label="How it went" error={problem?.errors?.[0]?.message}>
						<Input.TextArea
							id={field}
							className="told-words"
							variant="underlined"
							rows={4}
							maxLength={4000}
							value={typed}
							onChange={(e) => {
								save.reset();
								setTyped(e.target.value);
							}}
						/>
					</Labelled>
					{understood && typed.trim() !== "" && <Understood told={understood} onEdit={setTyped} />}
					{save.error && !problem?.errors?.length && (
						<p className="typed-error" role="alert">
							{save.error.message}
						</p>
					)}
					<p className="after-acts">
						<Button type="primary" size="large" loading={save.isPending} onClick={() => save.mutate(false)}>
							Save these words
						</Button>
						<Button size="large" onClick={() => setTyped(undefined)}>
							Leave them as they were
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
