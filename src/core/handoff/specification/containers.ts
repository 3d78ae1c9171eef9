import { nameOf } from "../../model/lookup.ts";
import type { Container, Project, Way } from "../../model/schema.ts";

const CLOSED_BY: Record<Way, string> = { outside: "a tap outside", swipe: "a swipe", button: "its ×", back: "Back" };

/** A container in sentences: what is in it, and what Back, choosing again and closing do. */
export function containerSentences(project: Project, container: Container): string[] {
  const named = (id: string) => `“${nameOf(project, id)}”`;
  const { start, members } = container;
  const starts = `It starts with ${named(start)}.`;
  const once = container.once ? ["It is gone through once."] : [];
  switch (container.kind) {
    case "stack":
      return [
        `A stack of ${members.length} ${members.length === 1 ? "place" : "places"}. ${starts} Back goes down to what is beneath; at its bottom, to what is around it.`,
        ...once,
      ];
    case "tabs":
      return [
        `Tabs at the ${container.edge}: ${members.map(named).join(", ")}. ${starts}`,
        container.chosenAgain === "root" ? "Choosing the tab that is chosen goes back to its first screen." : "Choosing the tab that is chosen does nothing.",
        backOf(container.onBack, named(start)),
        kept(container.keeps, "tab"),
        ...once,
      ];
    case "drawer":
      return [
        `A drawer at the ${container.side}: ${members.map(named).join(", ")}. ${starts}`,
        container.pinnedFrom === "never" ? "It is never pinned." : `From ${container.pinnedFrom} widths on it is always there.`,
        `Open, it is closed by ${ways(container.closeOn)}.`,
        backOf(container.onBack, named(start)),
        kept(container.keeps, "member"),
        ...once,
      ];
    case "modal":
      return [
        `It comes up over the page (${container.shape}, from the ${container.edge}). ${starts}`,
        `It is closed by ${ways(container.closeOn.filter((way) => container.shape !== "full" || way !== "outside"))}.`,
        container.blocks ? "Nothing beneath it can be used meanwhile." : "What is beneath it can be used meanwhile.",
        ...once,
      ];
  }
}

function ways(closeOn: readonly Way[]): string {
  return closeOn.length === 0 ? "nothing but legs" : closeOn.map((way) => CLOSED_BY[way]).join(", ");
}

function backOf(onBack: "leave" | "start" | "previous", start: string): string {
  switch (onBack) {
    case "leave":
      return "Back at the bottom goes on to what is around it.";
    case "start":
      return `Back at the bottom goes to ${start} first.`;
    case "previous":
      return "Back at the bottom goes to the tab before.";
  }
}

function kept(keeps: boolean, what: string): string {
  return keeps ? `A ${what} that is left stays as it was.` : `A ${what} that is left starts over.`;
}
