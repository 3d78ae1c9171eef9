import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import type { Project } from "../../core/model/schema.ts";
import { WalkContext } from "../session/hooks.ts";
import { createWalk } from "../session/walk.ts";
import { Prototype } from "./Prototype.tsx";
import "../ui/tokens.css";
import "../ui/map.css";

const dark = matchMedia("(prefers-color-scheme: dark)");
const applyTheme = () => {
  document.documentElement.dataset.theme = dark.matches ? "dark" : "light";
};
dark.addEventListener("change", applyTheme);
applyTheme();
const data = document.getElementById("project")?.textContent;
const root = document.getElementById("root");
// The document was read and found valid when this file was made.
if (root && data)
  createRoot(root).render(
    <StrictMode>
      <WalkContext value={createWalk()}>
        <Prototype project={JSON.parse(data) as Project} />
      </WalkContext>
    </StrictMode>,
  );
