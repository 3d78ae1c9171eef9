import { firstScreen, lookup, nameOf, upTarget } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { placesExist } from "../../plan/lower/moves.ts";
import type { Found } from "./rule.ts";

const quote = (project: Project, id: string) => `"${nameOf(project, id)}"`;

/** Legs, entrances, starts, Ups and `otherwise` that name no place or the wrong kind of place. */
export function brokenTarget(project: Project): Found[] {
  const { places, screens } = lookup(project);
  const legs = project.legs.flatMap((leg) => {
    const to = leg.move && "to" in leg.move ? leg.move.to : undefined;
    if (!places.has(leg.from)) return [{ subjects: [leg.id], message: `A leg (${leg.id}) starts from "${leg.from}", which is no place of the project.` }];
    if (!leg.move || placesExist(project, leg.move)) return [];
    const target = to === undefined ? "a place" : `"${to}"`;
    return [
      {
        subjects: [leg.id],
        message: `The leg from ${quote(project, leg.from)} leads to ${target}, but a place it names is not there or is of the wrong kind for "${leg.move.kind}".`,
      },
    ];
  });
  const entrances = project.entrances.flatMap((e) => {
    if (!screens.has(e.to)) return [{ subjects: [e.id], message: `The way in ${quote(project, e.id)} leads to "${e.to}", which is no screen of the project.` }];
    return e.otherwise !== undefined && !places.has(e.otherwise)
      ? [{ subjects: [e.id], message: `The way in ${quote(project, e.id)} leads otherwise to "${e.otherwise}", which is no place of the project.` }]
      : [];
  });
  const starts = project.containers.flatMap((c) =>
    places.has(c.start) ? [] : [{ subjects: [c.id], message: `${quote(project, c.id)} starts with "${c.start}", which is no place of the project.` }],
  );
  const ups = project.screens.flatMap((s) =>
    s.up === "auto" || s.up === "none" || screens.has(s.up)
      ? []
      : [{ subjects: [s.id], message: `Up from ${quote(project, s.id)} leads to "${s.up}", which is no screen of the project.` }],
  );
  return [...legs, ...entrances, ...starts, ...ups];
}

/** Places in no container that are not the root, and places in two. */
export function noOwner(project: Project): Found[] {
  const owners = new Map<string, number>();
  for (const container of project.containers) for (const member of new Set(container.members)) owners.set(member, (owners.get(member) ?? 0) + 1);
  return [...project.containers, ...project.screens].flatMap((place) => {
    const count = owners.get(place.id) ?? 0;
    const isModal = "kind" in place && place.kind === "modal";
    if (count > 1) return [{ subjects: [place.id], message: `${quote(project, place.id)} is in ${count} containers at once; a place has one owner.` }];
    if (count === 0 && place.id !== project.root && !isModal)
      return [{ subjects: [place.id], message: `${quote(project, place.id)} is in no container, so no history holds it.` }];
    return [];
  });
}

/** Containers with no member, or whose start is none of their members. */
export function noStart(project: Project): Found[] {
  return project.containers.flatMap((c) => {
    if (c.members.length === 0) return [{ subjects: [c.id], message: `${quote(project, c.id)} has nothing in it to start with.` }];
    return c.members.includes(c.start)
      ? []
      : [{ subjects: [c.id], message: `${quote(project, c.id)} starts with ${quote(project, c.start)}, which is none of its members.` }];
  });
}

/** Up that leads round without end; the screens of the round, in document order. */
export function upCycle(project: Project): Found[] {
  const { screens } = lookup(project);
  const found = new Map<string, Found>();
  for (const screen of project.screens) {
    const path: string[] = [];
    let at: string | undefined = screen.id;
    while (at !== undefined && screens.has(at) && !path.includes(at)) {
      path.push(at);
      at = upTarget(project, at);
    }
    if (at === undefined || !path.includes(at)) continue;
    const round = new Set(path.slice(path.indexOf(at)));
    const subjects = project.screens.filter((s) => round.has(s.id)).map((s) => s.id);
    found.set(subjects.join(" "), { subjects, message: `Up leads round without end: ${subjects.map((id) => quote(project, id)).join(", ")}.` });
  }
  return [...found.values()];
}

/** Screens whose up target needs an argument that they do not have by that name. */
export function upArguments(project: Project): Found[] {
  return project.screens.flatMap((screen) => {
    const target = upTarget(project, screen.id);
    const shown = target === undefined ? undefined : firstScreen(project, target);
    if (target === undefined || !shown) return [];
    return shown.params
      .filter((p) => p.required && p.default === undefined && !screen.params.some((own) => own.name === p.name))
      .map((p) => ({
        subjects: [screen.id, target, p.name],
        message: `Up from ${quote(project, screen.id)} leads to ${quote(project, target)}, which needs "${p.name}", and ${quote(project, screen.id)} has none to hand on.`,
      }));
  });
}

/** Tab sets with one member, and bottom bars with more than five. */
export function tabCount(project: Project): Found[] {
  return project.containers.flatMap((c) => {
    if (c.kind !== "tabs") return [];
    if (c.members.length === 1) return [{ subjects: [c.id], message: `The tab set ${quote(project, c.id)} has only one tab.` }];
    return c.edge === "bottom" && c.members.length > 5
      ? [{ subjects: [c.id], message: `The bottom bar of ${quote(project, c.id)} has ${c.members.length} tabs; more than five do not fit a hand.` }]
      : [];
  });
}

/** Modals that fill the screen and count on being closed by a tap outside. */
export function noOutside(project: Project): Found[] {
  return project.containers.flatMap((c) =>
    c.kind === "modal" && c.shape === "full" && c.closeOn.includes("outside")
      ? [{ subjects: [c.id], message: `${quote(project, c.id)} fills the screen, so there is no outside to tap to close it.` }]
      : [],
  );
}
