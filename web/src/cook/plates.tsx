import { Table } from "antd";
import { Ask } from "../shared/ask";
import { useInHand } from "./context";

/** What each piece gives: what to buy, portions, salt and cost, and all of it together. */
export function Plates() {
	const { sheet, goto } = useInHand();
	if (!sheet) return null;
	const lines = sheet.pieces.map((piece, i) => ({ i, piece, buy: sheet.buy[i], key: piece.key }));
	const cell = (name: string) => ({ onCell: () => ({ "data-name": name }) as object, title: name });
	return (
		<Table
			className="plates"
			pagination={false}
			title={() => <h3>On the fire</h3>}
			dataSource={lines}
			columns={[
				{
					title: "piece",
					rowScope: "row",
					render: (_, { i, piece }) => (
						<button type="button" onClick={() => goto("piece", i)}>
							{piece.count > 1 ? `${piece.count} × ` : ""}
							{piece.title || "a piece"}
						</button>
					),
				},
				{
					...cell("to buy"),
					render: (_, { buy }) => buy?.buy.text && <Ask name="Raw weight to buy" figure={buy.buy} />,
				},
				{
					...cell("portions"),
					render: (_, { piece }) =>
						piece.meat && (
							<Ask name="Portions" figure={piece.meat.servings}>
								{piece.meat.servings.text}
							</Ask>
						),
				},
				{
					...cell("salt in the meat"),
					render: (_, { piece }) =>
						piece.ledger && <Ask name="Salt in the meat" figure={piece.ledger.percent} />,
				},
				{
					...cell("costs"),
					render: (_, { buy }) => buy?.cost && <Ask name="What it costs" figure={buy.cost.total} />,
				},
			]}
			summary={() => (
				<Table.Summary.Row>
					<Table.Summary.Cell index={0} colSpan={2}>
						together
					</Table.Summary.Cell>
					<Table.Summary.Cell index={2}>
						<Ask name="Portions in all" figure={sheet.servings}>
							{sheet.servings.text}
						</Ask>
					</Table.Summary.Cell>
					<Table.Summary.Cell index={3} className={sheet.short ? "plates-short" : undefined}>
						{sheet.verdict}
					</Table.Summary.Cell>
					<Table.Summary.Cell index={4}>
						{sheet.cost && <Ask name="What all of it costs" figure={sheet.cost.total} />}
						{sheet.cost_per_portion && <small>{sheet.cost_per_portion}</small>}
					</Table.Summary.Cell>
				</Table.Summary.Row>
			)}
		/>
	);
}
