import { PrinterOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { Link } from "react-router";

/** Above a card: the way back, and the printer. */
export function CardActs({ back, to }: { back: string; to: string }) {
	return (
		<div className="card-acts">
			<Link to={back}>{to}</Link>
			<Button type="primary" size="large" icon={<PrinterOutlined />} onClick={() => window.print()}>
				Print it, A5
			</Button>
		</div>
	);
}
