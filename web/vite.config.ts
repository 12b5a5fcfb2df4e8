import react from "@vitejs/plugin-react";
import { defineConfig, loadEnv } from "vite";

export default defineConfig(({ mode }) => {
  const port = loadEnv(mode, ".", "STAIRPATH_")["STAIRPATH_PORT"] ?? "8400";
  return {
    plugins: [react()],
    // Tables of cases that the core is tested by too.
    resolve: { alias: { "@cases": new URL("../tests/cases", import.meta.url).pathname } },
    server: { host: "127.0.0.1", port: 5173, proxy: { "/api": { target: `http://127.0.0.1:${port}`, ws: true } } },
    build: { chunkSizeWarningLimit: 2000 },
  };
});
