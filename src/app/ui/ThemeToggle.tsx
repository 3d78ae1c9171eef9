import { Button } from "./Button.tsx";
import { useTheme } from "./theme.ts";

export function ThemeToggle() {
  const { theme, toggle } = useTheme();
  return (
    <Button tone="quiet" onClick={toggle} aria-label={theme === "light" ? "To the dark look" : "To the light look"}>
      {theme === "light" ? "Dark" : "Light"}
    </Button>
  );
}
