import { Upload } from "antd";
import type { ReactNode } from "react";

interface Props {
	/** What the file is, for those who listen. */
	label: string;
	/** Kinds of file, as a browser lists them. */
	accept: string;
	onChoose: (file: File) => void;
	/** The button that opens the choice. */
	children: ReactNode;
}

/** One file from this device; it is given to the page and goes nowhere by itself. */
export function ChooseFile({ label, accept, onChoose, children }: Props) {
	return (
		<Upload
			accept={accept}
			aria-label={label}
			showUploadList={false}
			beforeUpload={(file) => {
				onChoose(file);
				return false;
			}}
		>
			{children}
		</Upload>
	);
}
