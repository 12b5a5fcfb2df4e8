import { defineConfig } from "vite";

/** Builds the bare page that the stage's frames are measured against. */
export default defineConfig({
  build: { outDir: "dist-bench", assetsDir: "bare-assets", rolldownOptions: { input: "bare.html" } },
});
