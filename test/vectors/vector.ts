import type { NavEvent, Project } from "../../src/core/model/schema.ts";

/** One sentence of the rules, a small document, and what each event comes to. */
export interface Vector {
  /** The rule that it pins down, in words. */
  says: string;
  app: Project;
  /** The state line at launch. */
  launch: string;
  /** An event and what it comes to: the line after a move, or `ignored`, `refused WHY`, `left`. */
  steps: Array<[string | NavEvent, string]>;
}

/**
 * An event from its short form: `go` (the leg), `tab x`, `pick x`, `lead`, `close swipe`, `back`,
 * `enter x`, `cold x`, `launch`, `fact f true`, `width wide`.
 */
export function eventOf(short: string | NavEvent): NavEvent {
  if (typeof short !== "string") return short;
  const [word = "", name = "", value = ""] = short.split(" ");
  switch (word) {
    case "tab":
    case "pick":
      return { do: word, to: name };
    case "lead":
    case "back":
    case "launch":
      return { do: word };
    case "close":
      return { do: "close", via: name as "swipe" };
    case "enter":
      return { do: "enter", entrance: name };
    case "cold":
      return { do: "enter", entrance: name, cold: true };
    case "fact":
      return { do: "fact", fact: name, value: value === "true" ? true : value === "false" ? false : value };
    case "width":
      return { do: "width", to: name as "wide" };
    default:
      return { do: "leg", leg: word };
  }
}
