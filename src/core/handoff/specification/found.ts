import { appOf } from "../../insight/app.ts";
import { candidateEvents } from "../../insight/available.ts";
import { typedFields } from "../../insight/typed.ts";
import { lookup, nameOf } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { leadOf } from "../../semantics/bar.ts";
import { stateLine } from "../../semantics/line.ts";
import { currentScreen, topBranch } from "../../semantics/state.ts";
import { launch, step } from "../../semantics/step.ts";
import type { State } from "../../semantics/types.ts";

/** States that are looked at, nearest to launch first. */
const MOST = 1_500;

/** What Back and the control at the start of the bar were seen to do on a screen, each way once, the first met first. */
export interface FoundOn {
  back: string[];
  lead: string[];
}

/** By screen what Back and the bar's start do in the states nearest to launch, by what people do, cold ways in among it. */
export function foundOnScreens(project: Project): ReadonlyMap<string, FoundOn> {
  return once(project, look);
}

function look(project: Project): Map<string, FoundOn> {
  const app = appOf(project);
  const plan = planOf(project);
  const out = new Map<string, FoundOn>();
  const queue = [launch(app)];
  const keyOf = (state: State) => `${stateLine(plan, state)} ${JSON.stringify(state.facts)}`;
  const seen = new Set(queue.map(keyOf));
  for (let i = 0; i < queue.length && i < MOST; i++) {
    const state = queue[i] as State;
    const { at } = currentScreen(state);
    const found = out.get(at) ?? { back: [], lead: [] };
    out.set(at, found);
    add(found.back, doneBy(project, state, { do: "back" }));
    const lead = leadOf(plan, state, topBranch(state));
    add(found.lead, lead === "none" ? "nothing" : `${LEADS[lead]}${lead === "idle" || lead === "menu" ? "" : ` ${doneBy(project, state, { do: "lead" })}`}`);
    for (const event of nextEvents(project, state, i === 0)) {
      const { outcome, state: next } = step(app, state, event);
      const key = outcome === "moved" ? keyOf(next) : undefined;
      if (key === undefined || seen.has(key)) continue;
      seen.add(key);
      queue.push(next);
    }
  }
  return out;
}

const LEADS = { back: "Back", up: "Up", menu: "the menu", idle: "Up or a menu that does nothing" };

function add(list: string[], text: string) {
  if (!list.includes(text)) list.push(text);
}

function doneBy(project: Project, state: State, event: NavEvent): string {
  const { outcome, state: next } = step(appOf(project), state, event);
  if (outcome === "left") return "leaves the app";
  if (outcome !== "moved") return "does nothing";
  const [was, is] = [currentScreen(state), currentScreen(next)];
  if (is === was) return "closes what is open";
  return next.layers.length > state.layers.length ? `asks first: “${nameOf(project, is.at)}”` : `to “${nameOf(project, is.at)}”`;
}

/** What people do, each with what might be typed; from the launch cold ways in as well. */
function nextEvents(project: Project, state: State, first: boolean): NavEvent[] {
  return candidateEvents(project, state).flatMap((event): NavEvent[] => {
    if (event.do === "width" || event.do === "launch" || event.do === "fact") return [];
    if (event.do === "enter") return first && event.cold ? [event] : [];
    const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
    return leg ? typedFields(project, state, leg).map((fields) => (fields ? { ...event, fields } : event)) : [event];
  });
}
