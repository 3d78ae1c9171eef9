import address from "../../model/address.ts?raw";
import json from "../../model/json.ts?raw";
import data from "../../plan/data.ts?raw";
import expression from "../../plan/expression.ts?raw";
import plan from "../../plan/plan.ts?raw";
import activate from "../../semantics/activate.ts?raw";
import app from "../../semantics/app.ts?raw";
import back from "../../semantics/back.ts?raw";
import bar from "../../semantics/bar.ts?raw";
import depart from "../../semantics/depart.ts?raw";
import enter from "../../semantics/enter.ts?raw";
import events from "../../semantics/events.ts?raw";
import fire from "../../semantics/fire.ts?raw";
import guards from "../../semantics/guards.ts?raw";
import lanes from "../../semantics/lanes.ts?raw";
import line from "../../semantics/line.ts?raw";
import make from "../../semantics/make.ts?raw";
import motion from "../../semantics/motion.ts?raw";
import moves from "../../semantics/moves.ts?raw";
import operations from "../../semantics/operations.ts?raw";
import reach from "../../semantics/reach.ts?raw";
import stacks from "../../semantics/stacks.ts?raw";
import state from "../../semantics/state.ts?raw";
import step from "../../semantics/step.ts?raw";
import types from "../../semantics/types.ts?raw";
import values from "../../semantics/values.ts?raw";
import history from "./runtime/history.ts?raw";
import log from "./runtime/log.ts?raw";
import looks from "./runtime/looks.ts?raw";
import navigator from "./runtime/navigator.ts?raw";

/** The very source that the engine runs, by what it is about, in the order in which a reader follows it. */
const SOURCES: ReadonlyArray<readonly [title: string, source: string]> = [
  ["What a plan is", data],
  ["Values", json],
  ["Expressions", expression],
  ["The tables of a plan", plan],
  ["What a state is", types],
  ["Reading and changing states", state],
  ["The state in one line", line],
  ["Making places", make],
  ["Looking down stacks", stacks],
  ["An app", app],
  ["Lanes of tabs and drawers", lanes],
  ["Bringing a container up", activate],
  ["Back", back],
  ["Stack operations", operations],
  ["The bar", bar],
  ["What expressions read", values],
  ["What is in reach", reach],
  ["Coming in", enter],
  ["Events", events],
  ["Moves", moves],
  ["Legs", fire],
  ["Asking before leaving", depart],
  ["One step", step],
  ["What only the app can tell", guards],
  ["Addresses", address],
  ["How things move", motion],
  ["Titles and elements", looks],
  ["The log", log],
  ["The navigator", navigator],
  ["The browser's history", history],
];

/** The runtime as one text: the engine's own source, without its imports and with nothing exported. */
export function runtimeSource(): string {
  return SOURCES.map(([title, source]) => `${heading(title)}\n\n${bare(source)}\n`).join("\n");
}

/** Every name that the runtime declares at its outermost level, in order; no two may be the same. */
export function runtimeNames(): string[] {
  return [...runtimeSource().matchAll(/^(?:async )?(?:interface|type|class|function|const|let) (\w+)/gm)].map((match) => match[1] ?? "");
}

/** A line that says what comes next. */
export function heading(title: string): string {
  return `// ---- ${title} ${"-".repeat(Math.max(4, 90 - title.length))}`;
}

function bare(source: string): string {
  return source
    .replace(/^(?:import|export \{)[\s\S]*?from ".*?";\n/gm, "")
    .replace(/^export (?=interface|type|class|function|const)/gm, "")
    .trim();
}
