import { readFileSync, writeFileSync } from "node:fs";
import { brotliCompressSync } from "node:zlib";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** What the first page needs none of, so that it need not wait for it. */
const later = new RegExp(
	[
		"node_modules/@ant-design/icons(-svg)?/es/(icons|asn)/(?!CheckCircleFilled|CloseCircleFilled|CloseOutlined|CopyOutlined|DeleteOutlined|EditOutlined|ExclamationCircleFilled|InfoCircleFilled|LoadingOutlined|PlusOutlined|SearchOutlined|QuestionCircle|Eye)",
		"node_modules/(dayjs|immer|d3-[a-z]+|internmap|@dnd-kit/[a-z]+)/",
		"node_modules/antd/es/(index|input/(index|OTP|Password|Search|TextArea)|(alert|app|calendar|checkbox|date-picker|form|grid|modal|pagination|popconfirm|popover|radio|select|skeleton|slider|switch|table|time-picker|tooltip|dropdown|menu|tree|spin|upload|progress|breadcrumb|layout)/(?!locale|context|hooks/useVariants|UniqueProvider|validateMessagesContext))",
		"node_modules/@rc-component/(checkbox|context|dialog|dropdown|menu|overflow|pagination|picker|progress|select|slider|switch|table|tooltip|tree|upload|virtual-list|mini-decimal)/(?!es/locale)",
	].join("|"),
);
/**
 * Writes a well squeezed copy of each script and style beside it, for browsers that can
 * read it, and a list of the packages in them, whose licences are shipped with them.
 */
const shipped: Plugin = {
	name: "shipped",
	apply: "build",
	writeBundle({ dir = "dist" }, files) {
		const packages = new Set(["@fontsource-variable/archivo"]);
		for (const [name, file] of Object.entries(files)) {
			if (/\.(js|css)$/.test(name))
				writeFileSync(`${dir}/${name}.br`, brotliCompressSync(readFileSync(`${dir}/${name}`)));
			for (const id of file.type === "chunk" ? Object.keys(file.modules) : []) {
				const of = id.match(/.*node_modules\/((?:@[^/]+\/)?[^/]+)\//)?.[1];
				if (of) packages.add(of);
			}
		}
		writeFileSync(`${dir}/packages.txt`, `${[...packages].sort().join("\n")}\n`);
	},
};

export default defineConfig({
	// The compiler keeps what has not changed from being drawn again while a cook types.
	plugins: [react({ compiler: true }), shipped],
	build: {
		target: "es2022",
		chunkSizeWarningLimit: 1200,
		assetsInlineLimit: 0,
		cssCodeSplit: false,
		rolldownOptions: {
			output: {
				// Two files, so that opening a cook asks for little: what the first page needs, and
				// all the others with their part of the libraries.
				codeSplitting: {
					includeDependenciesRecursively: false,
					groups: [
						{
							name: "libraries",
							test: (id) => /node_modules|rolldown.runtime/.test(id) && !later.test(id),
						},
					],
				},
			},
		},
	},
	server: { proxy: { "/api": "http://127.0.0.1:8470" } },
});
