import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { ProjectsPage } from "./projects/ProjectsPage.tsx";
import { ProjectPage } from "./shell/ProjectPage.tsx";
import { NoSuchPage, RouteError } from "./shell/RouteError.tsx";
import { applyTheme } from "./store/theme.ts";
import "./fonts.css";
import "./tokens.css";
import "./map.css";

applyTheme();
const router = createBrowserRouter([
  { path: "/", element: <ProjectsPage />, errorElement: <RouteError /> },
  { path: "/p/:id/:view?", element: <ProjectPage />, errorElement: <RouteError /> },
  { path: "*", element: <NoSuchPage /> },
]);
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <RouterProvider router={router} />
    </StrictMode>,
  );
