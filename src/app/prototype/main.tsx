import "../policy/noEval.ts";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createStore, type StoreApi } from "zustand";
import type { Project } from "../../core/model/schema.ts";
import { PicturesContext, WalkContext } from "../session/hooks.ts";
import type { PictureUrls } from "../session/pictures.ts";
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
/** The addresses of the pictures, where the page has any. */
function pictures(): StoreApi<PictureUrls> {
  const all = JSON.parse(document.getElementById("pictures")?.textContent ?? "{}") as Record<string, string>;
  const url = (file: string) => (Object.hasOwn(all, file) ? all[file] : undefined);
  return createStore<PictureUrls>(() => ({ url, thumb: url }));
}
const data = document.getElementById("project")?.textContent;
const root = document.getElementById("root");
// The document was read and found valid when this file was made.
if (root && data)
  createRoot(root).render(
    <StrictMode>
      <WalkContext value={createWalk()}>
        <PicturesContext value={pictures()}>
          <Prototype project={JSON.parse(data) as Project} />
        </PicturesContext>
      </WalkContext>
    </StrictMode>,
  );
