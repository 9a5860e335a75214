import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
	// The compiler keeps what has not changed from being drawn again while a cook types.
	plugins: [react({ compiler: true })],
	build: { target: "es2022", chunkSizeWarningLimit: 1200, assetsInlineLimit: 0 },
	server: { proxy: { "/api": "http://127.0.0.1:8470" } },
});
