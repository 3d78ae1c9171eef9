/**
 * The rules about ids that no shape can express: uniqueness, containers that
 * contain themselves, and where `after` and `arrive` legs may start. Works on
 * unchecked data, so that these errors are reported together with those of shape.
 */
export interface Problem {
  /** Path in the document, e.g. `screens[3].params[0].type`; empty for the whole. */
  path: string;
  /** What stands there, in words. */
  found: string;
  /** What should stand there, in words. */
  expected: string;
}

const SIMPLE_TYPES = ["text", "integer", "number", "boolean", "date"];

/** All violations of the id rules in a parsed JSON value, in document order. */
export function identityProblems(data: unknown): Problem[] {
  const problems: Problem[] = [];
  const project = asRecord(data);
  const screens = entries(project.screens, "screens");
  const containers = entries(project.containers, "containers");
  unique([...containers, ...screens], "id", "a place id that no other screen or container has", problems);
  for (const kind of ["facts", "types", "legs", "entrances", "walks", "rules"] as const)
    unique(entries(project[kind], kind), "id", `an id that no other of the ${kind} has`, problems);
  for (const place of [...containers, ...screens])
    unique(entries(place.value.elements, `${place.path}.elements`), "id", "an element id that occurs once in its place", problems);
  for (const screen of screens)
    unique(entries(screen.value.params, `${screen.path}.params`), "name", "a parameter name that occurs once on its screen", problems);
  for (const type of entries(project.types, "types")) {
    unique(entries(type.value.fields, `${type.path}.fields`), "name", "a field name that occurs once in its type", problems);
    if (SIMPLE_TYPES.includes(String(type.value.id))) add(problems, `${type.path}.id`, type.value.id, "an id that is not one of the simple types");
  }
  facts(entries(project.facts, "facts"), problems);
  defaults(screens, problems);
  selfContainment(containers, problems);
  const screenIds = new Set(screens.map((s) => s.value.id));
  const placeIds = new Set([...screenIds, ...containers.map((c) => c.value.id)]);
  for (const leg of entries(project.legs, "legs")) {
    const trigger = asRecord(leg.value.on).kind;
    if ((trigger === "after" || trigger === "arrive") && placeIds.has(leg.value.from) && !screenIds.has(leg.value.from))
      add(problems, `${leg.path}.from`, leg.value.from, `the id of a screen, because legs on "${trigger}" start from screens`);
  }
  return problems;
}

interface Entry {
  path: string;
  value: Record<string, unknown>;
}

function entries(list: unknown, path: string): Entry[] {
  if (!Array.isArray(list)) return [];
  return list.map((value, i) => ({ path: `${path}[${i}]`, value: asRecord(value) }));
}

function asRecord(value: unknown): Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : {};
}

function add(problems: Problem[], path: string, found: unknown, expected: string) {
  problems.push({ path, found: JSON.stringify(found) ?? "nothing", expected });
}

function unique(list: Entry[], key: string, expected: string, problems: Problem[]) {
  const first = new Map<unknown, string>();
  for (const { path, value } of list) {
    const id = value[key];
    if (typeof id !== "string") continue;
    const earlier = first.get(id);
    if (earlier === undefined) first.set(id, path);
    else problems.push({ path: `${path}.${key}`, found: `${JSON.stringify(id)}, which ${earlier} has already`, expected });
  }
}

function facts(list: Entry[], problems: Problem[]) {
  for (const { path, value } of list) {
    if (value.type === "boolean" && value.initial !== undefined && typeof value.initial !== "boolean")
      add(problems, `${path}.initial`, value.initial, "true or false, because the fact is boolean");
    if (value.type !== "choice") continue;
    if (!Array.isArray(value.values) || value.values.length === 0) add(problems, `${path}.values`, value.values, "a list of at least one value to choose from");
    else if (value.initial !== undefined && !value.values.includes(value.initial)) add(problems, `${path}.initial`, value.initial, "one of the fact's values");
  }
}

function defaults(screens: Entry[], problems: Problem[]) {
  for (const screen of screens)
    for (const { path, value } of entries(screen.value.params, `${screen.path}.params`)) {
      if (value.default === undefined) continue;
      const ok = defaultFits(value.type, value.default);
      if (!ok) add(problems, `${path}.default`, value.default, `a value of the type ${String(value.type)}`);
    }
}

function defaultFits(type: unknown, value: unknown): boolean {
  switch (type) {
    case "text":
    case "date":
      return typeof value === "string";
    case "integer":
      return Number.isInteger(value);
    case "number":
      return typeof value === "number";
    case "boolean":
      return typeof value === "boolean";
    default:
      return true;
  }
}

function selfContainment(containers: Entry[], problems: Problem[]) {
  const members = new Map<unknown, unknown[]>();
  for (const { value } of containers) members.set(value.id, Array.isArray(value.members) ? value.members : []);
  for (const { path, value } of containers) {
    const seen = new Set<unknown>();
    const queue = [...(members.get(value.id) ?? [])];
    for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
      if (seen.has(next)) continue;
      seen.add(next);
      queue.push(...(members.get(next) ?? []));
    }
    if (seen.has(value.id)) add(problems, `${path}.members`, value.id, "members that do not contain the container itself");
  }
}
