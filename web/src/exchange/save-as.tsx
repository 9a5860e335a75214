import { DownloadOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { api, type Formula, need } from "../api/client";
import { useMessage } from "../shared/messages";
import "./exchange.css";

const formats = [
	{ as: "json", label: "JSON", ending: "json" },
	{ as: "jsonld", label: "recipe", ending: "jsonld" },
	{ as: "csv", label: "table", ending: "csv" },
] as const;

/** A formula as a file, with those that it uses. */
export function SaveAs({ formula }: { formula: Formula }) {
	const message = useMessage();
	const save = async (as: "json" | "jsonld" | "csv", ending: string) => {
		try {
			const data = need(
				await api.POST("/api/exchange/write", {
					params: { query: { as } },
					body: [formula],
					parseAs: "blob",
				}),
			) as Blob;
			const link = document.createElement("a");
			link.href = URL.createObjectURL(data);
			link.download = `${formula.name.replace(/[^\p{L}\p{N}]+/gu, "-").replace(/^-|-$/g, "") || "formula"}.${ending}`;
			link.click();
			URL.revokeObjectURL(link.href);
		} catch (error) {
			message.error((error as Error).message);
		}
	};
	return (
		<p className="save-as">
			<span className="muted">Save as a file:</span>
			{formats.map((f) => (
				<Button
					key={f.as}
					icon={<DownloadOutlined />}
					aria-label={`Save as ${f.label}`}
					onClick={() => save(f.as, f.ending)}
				>
					{f.label}
				</Button>
			))}
		</p>
	);
}
