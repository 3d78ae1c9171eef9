import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { ProjectsPage } from "./projects/ProjectsPage.tsx";
import { ProjectPage } from "./shell/ProjectPage.tsx";
import { applyTheme } from "./store/theme.ts";
import "./fonts.css";
import "./tokens.css";
import "./map.css";

applyTheme();
const router = createBrowserRouter([
  { path: "/", element: <ProjectsPage /> },
  { path: "/p/:id/:view?", element: <ProjectPage /> },
]);
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <RouterProvider router={router} />
    </StrictMode>,
  );
