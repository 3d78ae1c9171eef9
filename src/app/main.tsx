import "./policy/noEval.ts";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { ROUTES } from "./routes.tsx";
import { afterPaint } from "./ui/afterPaint.ts";
import { applyTheme } from "./ui/theme.ts";
import "./ui/fonts.css";
import "./ui/tokens.css";
import "./ui/map.css";
import "../core/map/draw/marks.css";

applyTheme();
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <RouterProvider router={createBrowserRouter(ROUTES)} />
    </StrictMode>,
  );

// Once everything else is there: the files are kept for when the server is not.
if (import.meta.env.PROD) window.addEventListener("load", () => afterPaint(async () => (await import("./offline/keepOffline.tsx")).keepOffline()));
