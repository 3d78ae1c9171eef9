import { create } from "zustand";

export type Theme = "light" | "dark";

function initial(): Theme {
  const kept = localStorage.getItem("etape-theme");
  if (kept === "light" || kept === "dark") return kept;
  return matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
}

export const useTheme = create<{ theme: Theme; toggle: () => void }>((set, get) => ({
  theme: initial(),
  toggle: () => {
    const theme = get().theme === "light" ? "dark" : "light";
    localStorage.setItem("etape-theme", theme);
    document.documentElement.dataset.theme = theme;
    set({ theme });
  },
}));

/** Puts the theme onto the page before anything is drawn. */
export function applyTheme() {
  document.documentElement.dataset.theme = useTheme.getState().theme;
}
