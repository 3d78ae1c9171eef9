import type { RouteObject } from "react-router";
import { Opening } from "./shell/Opening.tsx";
import { NoSuchPage, RouteError } from "./shell/RouteError.tsx";

/** The addresses of the page. Each view is loaded when it is first gone to, and says so itself where it fails. */
export const ROUTES: RouteObject[] = [
  {
    HydrateFallback: Opening,
    errorElement: <RouteError />,
    children: [
      { index: true, lazy: async () => ({ Component: (await import("./features/projects/ProjectsPage.tsx")).ProjectsPage }) },
      {
        path: "p/:id",
        lazy: async () => {
          const { loadOpen, ProjectPage } = await import("./shell/ProjectPage.tsx");
          return { loader: loadOpen, Component: ProjectPage };
        },
        // An edit is no reason to read the document again: the session has it.
        shouldRevalidate: ({ currentParams, nextParams }) => currentParams.id !== nextParams.id,
        errorElement: <RouteError />,
        children: [
          { index: true, lazy: async () => ({ Component: (await import("./shell/Workspace.tsx")).MapWorkspace }), errorElement: <RouteError /> },
          { path: "rules", lazy: async () => ({ Component: (await import("./shell/RulesPage.tsx")).RulesPage }), errorElement: <RouteError /> },
          { path: "pictures", lazy: async () => ({ Component: (await import("./shell/PicturesPage.tsx")).PicturesPage }), errorElement: <RouteError /> },
          { path: "parameters", lazy: async () => ({ Component: (await import("./shell/ParametersPage.tsx")).ParametersPage }), errorElement: <RouteError /> },
          { path: "versions", lazy: async () => ({ Component: (await import("./shell/VersionsPage.tsx")).VersionsPage }), errorElement: <RouteError /> },
          { path: "hand-off", lazy: async () => ({ Component: (await import("./shell/HandoffPage.tsx")).HandoffPage }), errorElement: <RouteError /> },
          { path: "walk", lazy: async () => ({ Component: (await import("./features/walk/WalkView.tsx")).WalkView }), errorElement: <RouteError /> },
          { path: "*", element: <NoSuchPage /> },
        ],
      },
      { path: "*", element: <NoSuchPage /> },
    ],
  },
];
