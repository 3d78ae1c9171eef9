import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

/** What the list of projects and an open project both need, with all that it needs. */
const BEGIN =
  /src\/app\/(main\.tsx|session\/storage\/(projects|trouble)\.ts|ui\/(Button|ThemeToggle)\.tsx)$|src\/core\/model\/(utf8|edits\/add)\.ts$|use-sync-external-store/;

/** What is drawn right after the first view of a project, and what is loaded beside it so that it is there when it is asked for. */
const AT_ONCE =
  /src\/app\/(ui\/icons|features\/walk\/(AddressBar|LayerView|PictureView|Controls)|features\/map\/(MapControls|StartHere)|features\/inspector\/ProjectForm|shell\/(Edge|FileState|Notice))\.tsx$/;
const BESIDE =
  /src\/app\/(features\/walk\/(Beneath|Steps|Walks)|features\/map\/(LensPanel|FarDrawing|PatternPanel|LinkMade|TargetPicker)|features\/inspector\/(Chosen|FactsSheet|WaysIn)|features\/commands\/(DeleteDialog|Palette|IntoSheet)|features\/pictures\/TakesPictures)\.tsx$|src\/core\/map\/focus\.ts$/;

export default defineConfig({
  root: "src/app",
  plugins: [react(), tailwindcss()],
  worker: { format: "es" },
  build: {
    outDir: "../../dist/app",
    emptyOutDir: true,
    manifest: true,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: "begin", test: BEGIN, priority: 4 },
            { name: "map", test: /src\/app\/shell\/(ProjectPage|Workspace)\.tsx$/, priority: 3 },
            { name: "dialog", test: /src\/app\/ui\/Dialog\.tsx$/, priority: 2.5 },
            { name: "at-once", test: AT_ONCE, priority: 2 },
            { name: "beside", test: BESIDE, priority: 1 },
          ],
        },
      },
    },
  },
  server: { port: 5199 },
});
