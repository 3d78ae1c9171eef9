import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

/** One script and one style sheet, which scripts/prototype.mjs puts into one page. */
export default defineConfig({
  root: "src/app",
  plugins: [react(), tailwindcss()],
  build: {
    outDir: "../../dist/prototype",
    emptyOutDir: true,
    cssCodeSplit: false,
    chunkSizeWarningLimit: 2000,
    rollupOptions: {
      input: "src/app/prototype/main.tsx",
      output: { entryFileNames: "prototype.js", assetFileNames: "prototype[extname]", codeSplitting: false },
    },
  },
});
