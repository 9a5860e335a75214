import { ArrowRightOutlined, PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { Ask } from "../shared/ask";
import { TypedField } from "../shared/typed-field";
import { useInHand } from "./context";
import "./occasion.css";

/** Who eats, how many, when: serving time is what everything is counted back from. */
export function Occasion() {
	const { cook, change, error, shelf, sheet, isNew, goto } = useInHand();
	const blank = isNew && cook.name === "";
	return (
		<>
			<h2>Who eats, and when?</h2>
			<div className="occasion-fields">
				<TypedField
					label="Name of the cook"
					size="large"
					value={cook.name}
					autoFocus={blank}
					error={blank ? undefined : error("/name")}
					hint={blank ? "Give it a name and it is saved as you go" : undefined}
					onChange={(v) =>
						change((c) => {
							c.name = v;
						})
					}
				/>
				<TypedField
					label={`Serving at${cook.zone ? ` (${cook.zone.replace("_", " ")} time)` : ""}`}
					size="large"
					type="datetime-local"
					value={cook.serve_at}
					error={error("/serve_at") ?? error("/zone")}
					hint={sheet?.away}
					onChange={(v) =>
						change((c) => {
							c.serve_at = v;
						})
					}
				/>
				<TypedField
					label="Guests"
					size="large"
					inputMode="numeric"
					value={cook.guests > 0 ? String(cook.guests) : ""}
					error={error("/guests")}
					hint={sheet?.verdict}
					onChange={(v) =>
						change((c) => {
							c.guests = Number.parseInt(v.replace(/\D/g, "").slice(0, 6), 10) || 0;
						})
					}
				/>
			</div>
			<div className="fields">
				<TypedField
					label="Cooked meat for one"
					value={cook.portion}
					usual={shelf.usual.portion}
					error={error("/portion")}
					onChange={(v) =>
						change((c) => {
							c.portion = v;
						})
					}
				/>
				<TypedField
					label="Your fridge is at"
					value={cook.fridge}
					usual={shelf.usual.fridge}
					error={error("/fridge")}
					onChange={(v) =>
						change((c) => {
							c.fridge = v;
						})
					}
				/>
				<TypedField
					label="The counter is at"
					value={cook.room}
					usual={shelf.usual.room}
					error={error("/room")}
					onChange={(v) =>
						change((c) => {
							c.room = v;
						})
					}
				/>
			</div>
			{cook.pieces.length > 0 && sheet && (
				<table className="plates">
					<caption>On the fire</caption>
					<thead>
						<tr>
							<th scope="col">piece</th>
							<th scope="col">trimmed</th>
							<th scope="col">feeds</th>
							<th scope="col">salt in the meat</th>
						</tr>
					</thead>
					<tbody>
						{sheet.pieces.map((p, i) => (
							// biome-ignore lint/suspicious/noArrayIndexKey: pieces are told apart by their place
							<tr key={i}>
								<th scope="row">
									<button type="button" onClick={() => goto("piece", i)}>
										{p.count > 1 ? `${p.count} × ` : ""}
										{p.title || "a piece"}
									</button>
								</th>
								<td>{p.meat && <Ask name="Trimmed weight" figure={p.meat.all_green} />}</td>
								<td>{p.meat && <Ask name="Portions" figure={p.meat.servings} />}</td>
								<td>{p.ledger && <Ask name="Salt in the meat" figure={p.ledger.percent} />}</td>
							</tr>
						))}
					</tbody>
					<tfoot>
						<tr>
							<th scope="row">together</th>
							<td />
							<td>
								<Ask name="Portions in all" figure={sheet.servings} />
							</td>
							<td className={sheet.short ? "plates-short" : undefined}>{sheet.verdict}</td>
						</tr>
					</tfoot>
				</table>
			)}
			<div className="occasion-next">
				<Button
					type={cook.pieces.length === 0 ? "primary" : "default"}
					size="large"
					icon={<PlusOutlined />}
					onClick={() => goto("add")}
				>
					Add a piece of meat
				</Button>
				{cook.pieces.length > 0 && (
					<Button type="primary" size="large" onClick={() => goto("season", 0)}>
						Salt and season <ArrowRightOutlined />
					</Button>
				)}
			</div>
		</>
	);
}
