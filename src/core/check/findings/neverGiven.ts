import { followValue, providersOf } from "../../insight/flow.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { firstScreen, lookup, passTarget } from "../../model/lookup.ts";
import type { Leg, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { handOn } from "../fixes/arguments.ts";
import { valuedOf } from "../system/parameterValues.ts";
import { quote } from "./parts.ts";

/** A leg that leads to a place and never does, for what it must pass never has a value. */
interface Lacking {
  leg: Leg;
  name: string;
}

/** The legs that lead to a place and fail each time, because something that they must pass is never there. */
export function lackingOn(project: Project, placeId: string): Lacking[] {
  const plan = planOf(project);
  const valued = valuedOf(project);
  return project.legs.flatMap((leg) => {
    const made = passTarget(project, leg) === placeId ? plan.legs.get(leg.id) : undefined;
    const found = made?.pass.find(({ required, value }) => required && lookup(project).screens.has(leg.from) && !valued.mayBe(value.tree, leg.from));
    return found ? [{ leg, name: found.name }] : [];
  });
}

/** Why nobody gets to a place, where a leg leads there that always fails; nothing where none does. */
export function whyLacking(project: Project, placeId: string): string {
  const [first] = lackingOn(project, placeId);
  return first ? ` A leg from ${quote(project, first.leg.from)} leads there, but the "${first.name}" that it must pass never has a value.` : "";
}

/** Fixes for legs that fail each time: whoever should have handed the value over does, as far back as it is lost. */
export function handOver(project: Project, placeId: string): Edit[] {
  const screen = firstScreen(project, placeId);
  if (!screen) return [];
  return lackingOn(project, placeId).flatMap(({ name }) =>
    followValue(project, { screen: screen.id, param: name }).slots.flatMap((slot) => {
      const at = lookup(project).screens.get(slot.screen);
      const param = at?.params.find((one) => one.name === slot.param);
      if (!at || !param) return [];
      const gaps = providersOf(project, at, param).flatMap((provider) => (provider.kind === "leg" && provider.source === undefined ? [provider.leg] : []));
      return gaps.flatMap((leg) => {
        const [fix] = handOn(project, leg, at.id, param.name);
        return fix ? [{ ...fix, name: `${fix.name} from ${quote(project, leg.from)} to ${quote(project, at.id)}` }] : [];
      });
    }),
  );
}
