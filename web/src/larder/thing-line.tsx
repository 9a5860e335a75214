import { WarningFilled } from "@ant-design/icons";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Input } from "antd";
import { useState } from "react";
import { ApiError, api, need } from "../api/client";

interface Props {
	id: string;
	name: string;
	kind: string;
	thing?: { price?: string; stock?: string; pack?: string };
}

/** One thing: its price and how much of it is here, kept when the field is left. */
export function ThingLine({ id, name, kind, thing }: Props) {
	const [typed, setTyped] = useState({
		price: thing?.price ?? "",
		stock: thing?.stock ?? "",
		pack: thing?.pack ?? "",
	});
	const queries = useQueryClient();
	const put = useMutation({
		mutationFn: async () => {
			const { error, response } = await api.PUT("/api/larder/{thing}", {
				params: { path: { thing: id } },
				body: { price: typed.price.trim(), stock: typed.stock.trim(), pack: typed.pack.trim() },
			});
			if (error) need({ error, response });
		},
		onSuccess: () => queries.invalidateQueries({ queryKey: ["larder"] }),
	});
	const changed = (["price", "stock", "pack"] as const).some((k) => typed[k] !== (thing?.[k] ?? ""));
	const keep = () => changed && put.mutate();
	const wrong = (field: string) =>
		put.error instanceof ApiError
			? put.error.problem?.errors?.find((e) => e.pointer === `/${field}`)?.message
			: undefined;
	const field = (which: "price" | "stock" | "pack", label: string, usual: string) => (
		<div>
			<Input
				variant="underlined"
				aria-label={`${label} of ${name}`}
				aria-invalid={Boolean(wrong(which))}
				status={wrong(which) ? "error" : undefined}
				placeholder={usual}
				value={typed[which]}
				maxLength={100}
				onChange={(e) => setTyped((old) => ({ ...old, [which]: e.target.value }))}
				onBlur={keep}
				onPressEnter={keep}
			/>
			{wrong(which) && (
				<p className="typed-error" role="alert">
					<WarningFilled aria-hidden /> {wrong(which)}
				</p>
			)}
		</div>
	);
	return (
		<li>
			<span>
				<b>{name}</b> <span className="muted">{kind}</span>
			</span>
			{field("price", "Price", kind === "wrap" ? "4.50 for 20 m" : "3.20 for 500 g")}
			{kind !== "wrap" && kind !== "wood" && field("stock", "In stock", kind === "fuel" ? "6 kg" : "350 g")}
			{thing?.pack && (
				<div className="larder-pack">
					<span className="muted">One bottle, can or packet holds</span> {field("pack", "One pack", "500 mL")}
				</div>
			)}
		</li>
	);
}
