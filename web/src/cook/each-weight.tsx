import { CloseOutlined, PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { Field } from "../record/field";
import { usePiece } from "./context";

/** Pieces of one line that are unlike: each with its weight and thickness, and what that makes of it. */
export function EachWeight({ index }: { index: number }) {
	const { piece, figures, at, edit } = usePiece(index);
	const each = piece.each ?? [];
	const told = figures?.meat?.each ?? [];
	return (
		<section className="each" aria-label="Each piece">
			<ol>
				{each.map((_, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: pieces are told apart by their place
					<li key={i}>
						<Field label={`Piece ${i + 1}, as bought`} at={at(`each/${i}/bought`)} usual="3.1 kg" />
						<Field
							label="After trimming"
							at={at(`each/${i}/trimmed`)}
							usual={told[i]?.weight ?? "not weighed"}
						/>
						<Field
							label="Thickest point"
							at={at(`each/${i}/thickness`)}
							usual={told[i]?.thickness ?? "not measured"}
						/>
						<p className="muted">
							{told[i]?.rub && <b>{told[i].rub} of rub</b>} {told[i]?.fire && <>{told[i].fire} on the fire</>}
						</p>
						<Button
							type="text"
							icon={<CloseOutlined />}
							aria-label={`Leave out piece ${i + 1}`}
							onClick={() =>
								edit((p) => {
									p.each?.splice(i, 1);
									p.count = String(Math.max(1, p.each?.length ?? 1));
									if (p.each?.length === 0) p.each = undefined;
								})
							}
						/>
					</li>
				))}
			</ol>
			<Button
				type="link"
				icon={<PlusOutlined />}
				onClick={() =>
					edit((p) => {
						p.each = [...(p.each ?? []), { bought: "", trimmed: "", thickness: "" }];
						p.count = String(p.each.length);
					})
				}
			>
				One more piece
			</Button>
		</section>
	);
}
