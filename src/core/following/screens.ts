import { findByAddress } from "../model/address.ts";
import { firstScreen, lookup } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Project } from "../model/schema.ts";
import type { Args } from "../plan/data.ts";
import { argumentsFromText } from "../semantics/values.ts";

/** The screens that a log may mean by a name, and the arguments that are in the name itself. */
export interface Meant {
  readonly screens: ReadonlySet<string>;
  readonly args: Args;
}

const NOTHING: Meant = { screens: new Set(), args: {} };

/** Names that were looked up, kept with the project; a log may have as many addresses as it likes, so the oldest go. */
const MOST_NAMES = 5_000;
const names = (_: Project) => new Map<string, Meant>();

/** What a log means by `shows`: a screen's id, else its name in code, else an address, else its name. No screens where it is none of them. */
export function meantBy(project: Project, shows: string): Meant {
  const known = once(project, names);
  const found = known.get(shows);
  if (found) return found;
  const meant = look(project, shows);
  if (known.size >= MOST_NAMES) known.clear();
  known.set(shows, meant);
  return meant;
}

function look(project: Project, shows: string): Meant {
  if (lookup(project).screens.has(shows)) return { screens: new Set([shows]), args: {} };
  const byCode = project.screens.filter(({ code }) => code === shows);
  if (byCode.length > 0) return { screens: new Set(byCode.map(({ id }) => id)), args: {} };
  if (shows.includes("/")) return byAddress(project, shows);
  const wanted = shows.trim().toLowerCase();
  return { ...NOTHING, screens: new Set(project.screens.flatMap(({ id, name }) => (name.trim().toLowerCase() === wanted ? [id] : []))) };
}

/** By a screen's own address before one of a way in. */
function byAddress(project: Project, address: string): Meant {
  const own = project.screens.map(({ id, path }) => ({ pattern: path, to: id, pass: undefined }));
  const found = findByAddress(own, address) ?? findByAddress(project.entrances, address);
  const screen = found && firstScreen(project, found.one.to);
  if (!found || !screen) return NOTHING;
  return { screens: new Set([screen.id]), args: found.one.pass ? {} : argumentsFromText(screen.params, found.values) };
}
