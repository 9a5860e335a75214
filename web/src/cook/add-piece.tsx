import { SearchOutlined } from "@ant-design/icons";
import { useMutation } from "@tanstack/react-query";
import { Input } from "antd";
import { useState } from "react";
import { api, need, type Piece } from "../api/client";
import { usePrefs } from "../prefs";
import { useMessage } from "../shared/messages";
import { useInHand } from "./context";
import "./add-piece.css";

/** Every cut, by animal: press one and it is on the list with its usual weight. */
export function AddPiece() {
	const { cook, catalogue, change, goto } = useInHand();
	const message = useMessage();
	const [prefs] = usePrefs();
	const [typed, setTyped] = useState("");
	const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
	const cuts = catalogue.cuts.filter((c) =>
		words.every((w) => `${c.name} ${c.species} ${c.also.join(" ")}`.toLowerCase().includes(w)),
	);
	const add = useMutation({
		mutationFn: async (cut: string) =>
			need(await api.GET("/api/new/piece", { params: { query: { cut, units: prefs.units } } })) as Piece,
		onSuccess: (piece) => {
			change((c) => void c.pieces.push(piece));
			goto("piece", cook.pieces.length);
		},
		onError: (e) => message.error(e.message),
	});
	return (
		<>
			<div className="add-head">
				<h2>Which cut?</h2>
				<Input
					variant="underlined"
					prefix={<SearchOutlined aria-hidden />}
					aria-label="Find a cut"
					placeholder="Find a cut"
					value={typed}
					autoFocus
					onChange={(e) => setTyped(e.target.value)}
					onPressEnter={() => cuts[0] && add.mutate(cuts[0].id)}
				/>
			</div>
			<div className="cuts">
				{catalogue.species.map((s) => {
					const own = cuts.filter((c) => c.species === s);
					return (
						own.length > 0 && (
							<section key={s}>
								<h3>{s}</h3>
								<ul>
									{own.map((c) => (
										<li key={c.id}>
											<button type="button" onClick={() => add.mutate(c.id)}>
												{c.name}
											</button>
										</li>
									))}
								</ul>
							</section>
						)
					);
				})}
			</div>
			{cuts.length === 0 && (
				<p className="says">
					No cut is called “{typed}”. Choose the one nearest in shape; you can name the piece yourself.
				</p>
			)}
		</>
	);
}
