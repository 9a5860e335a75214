import { Button, Input } from "antd";
import { useId, useState } from "react";
import { api } from "../api/client";
import type { components } from "../api/schema";
import { uuid } from "../shared/uuid";
import type { LivePiece } from "./use-live";

type Device = components["schemas"]["DeviceLine"];

/** What measures at this cook-out: each device hands its readings in with a key of its own. */
export function Devices({ cook, piece }: { cook: string; piece: LivePiece }) {
	const id = useId();
	const [open, setOpen] = useState(false);
	const [all, setAll] = useState<Device[]>();
	const [added, setAdded] = useState<Device>();
	const [name, setName] = useState("");
	const [trouble, setTrouble] = useState("");
	const path = { id: cook };
	const list = async () => {
		try {
			const { data, error } = await api.GET("/api/cooks/{id}/devices", { params: { path } });
			if (data) setAll(data.items);
			setTrouble(error?.detail ?? "");
		} catch {
			setTrouble("Verjuice is not responding: thermometers show when it is back.");
		}
	};
	const change = async (does: () => Promise<{ error?: { detail?: string } }>) => {
		try {
			const { error } = await does();
			await list();
			setTrouble(error?.detail ?? "");
		} catch {
			setTrouble("Verjuice is not responding: nothing was changed.");
		}
	};
	return (
		<section className="pit-devices">
			<button
				type="button"
				className="press"
				aria-expanded={open}
				onClick={() => {
					setOpen(!open);
					if (!open && !all) void list();
				}}
			>
				Thermometers that send their readings
			</button>
			{open && (
				<>
					{trouble && <p role="alert">{trouble}</p>}
					<ul>
						{all?.map((d) => (
							<li key={d.id}>
								<b>{d.name}</b>
								<Button
									aria-label={`Remove ${d.name}`}
									onClick={() =>
										change(() =>
											api.DELETE("/api/cooks/{id}/devices/{device}", {
												params: { path: { ...path, device: d.id } },
											}),
										)
									}
								>
									remove
								</Button>
							</li>
						))}
					</ul>
					<form
						className="pit-asked"
						onSubmit={(e) => {
							e.preventDefault();
							void change(async () => {
								const got = await api.POST("/api/cooks/{id}/devices", { params: { path }, body: { name } });
								if (got.data) {
									setAdded(got.data);
									setName("");
								}
								return got;
							});
						}}
					>
						<p>
							<label htmlFor={id}>Name of a thermometer</label>
							<Input
								id={id}
								variant="underlined"
								maxLength={60}
								value={name}
								placeholder="kitchen probe"
								onChange={(e) => setName(e.target.value)}
							/>
						</p>
						<Button size="large" htmlType="submit" disabled={!name.trim()}>
							Add
						</Button>
					</form>
					{added?.key && (
						<div className="pit-key">
							<p>
								The key of {added.name}. Copy it now: it is not shown again.
								<code>{added.key}</code>
							</p>
							<p>
								It sends lines like this, with a new id each time:
								<code>
									{`curl ${location.origin}/api/cooks/${cook}/readings.csv?hand_in=${uuid()} -H "Authorization: Bearer ${added.key}" -H "Content-Type: text/csv" -d "core:${piece.key},2026-11-28T07:20:15Z,68.2 C"`}
								</code>
							</p>
						</div>
					)}
				</>
			)}
		</section>
	);
}
