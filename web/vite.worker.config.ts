import { appendFileSync } from "node:fs";
import { defineConfig } from "vite";

/** The worker that opens the pit side without the program: one script of its own, at the top. */
export default defineConfig({
	publicDir: false,
	plugins: [
		{
			name: "licences",
			writeBundle({ dir = "dist" }) {
				appendFileSync(
					`${dir}/packages.txt`,
					["workbox-core", "workbox-routing", "workbox-strategies", ""].join("\n"),
				);
			},
		},
	],
	build: {
		target: "es2022",
		emptyOutDir: false,
		rolldownOptions: {
			input: "src/pit/worker.ts",
			output: { format: "iife", entryFileNames: "sw.js" },
		},
	},
});
