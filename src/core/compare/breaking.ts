import { lookup, mustBePassed } from "../model/lookup.ts";
import type { Param, Project } from "../model/schema.ts";
import type { Change } from "./compare.ts";

/** What of a change breaks others: links that people have, code that calls, facts that were stored. A sentence each; none where nothing does. */
export function breaksOthers(older: Project, newer: Project, { kind, id }: Change): string[] {
  switch (kind) {
    case "way in": {
      const [was, is] = [lookup(older).entrances.get(id)?.pattern, lookup(newer).entrances.get(id)?.pattern];
      return address(was, is);
    }
    case "screen": {
      const [was, is] = [lookup(older).screens.get(id), lookup(newer).screens.get(id)];
      return [...address(was?.path, is?.path), ...(was && is ? parameters(was.params, is.params) : [])];
    }
    case "fact": {
      const [was, is] = [lookup(older).facts.get(id), lookup(newer).facts.get(id)];
      if (!was?.persists) return [];
      const gone = !is?.persists || is.type !== was.type ? (was.values ?? ["its value"]) : (was.values ?? []).filter((value) => !is.values?.includes(value));
      return gone.length > 0 ? [`What was stored of it is forgotten: ${gone.join(", ")}.`] : [];
    }
    default:
      return [];
  }
}

function address(was: string | undefined, is: string | undefined): string[] {
  if (was === undefined || was === is) return [];
  return [`Links to ${was} ${is === undefined ? "lead nowhere now" : `do not lead here any longer; the address is ${is} now`}.`];
}

function parameters(was: readonly Param[], is: readonly Param[]): string[] {
  const needed = (param: Param | undefined) => param !== undefined && mustBePassed(param);
  const old = new Map(was.map((param) => [param.name, param]));
  return is.flatMap((param) => {
    const before = old.get(param.name);
    if (needed(param) && !needed(before)) return [before ? `${param.name} has to be passed now.` : `${param.name} is new and has to be passed.`];
    return before && before.type !== param.type ? [`${param.name} was ${before.type} and is ${param.type} now.`] : [];
  });
}
