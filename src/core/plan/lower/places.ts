import { lookup, upTarget, WIDTHS } from "../../model/lookup.ts";
import type { Bar, Container, Project, Screen, Way } from "../../model/schema.ts";
import type { ContainerPlan, Program, ScreenPlan, Template } from "../data.ts";
import { upProgram } from "./moves.ts";
import { holdsOf, templateOf } from "./templates.ts";

/** The screens of a project. Screens with one up target on which Up does the same share one program. */
export function screenPlans(project: Project): Map<string, ScreenPlan> {
  const programs = new Map<string, Program | undefined>();
  const out = new Map<string, ScreenPlan>();
  for (const screen of project.screens) {
    const to = upTarget(project, screen.id);
    if (to !== undefined && !programs.has(to)) programs.set(to, upProgram(project, screen.id));
    out.set(screen.id, screenPlan(screen, to === undefined ? undefined : programs.get(to)));
  }
  return out;
}

function screenPlan({ params, bar, pages, coversTabs, path }: Screen, up: Program | undefined): ScreenPlan {
  return {
    params: params.map(({ name, default: initial }) => (initial === undefined ? { name } : { name, default: initial })),
    ...(up ? { up } : {}),
    ...barPlan(bar),
    ...(pages ? { pages } : {}),
    ...(coversTabs ? { coversTabs } : {}),
    ...(path === undefined ? {} : { path }),
  };
}

/** The containers of a project. */
export function containerPlans(project: Project): Map<string, ContainerPlan> {
  return new Map(project.containers.map((container) => [container.id, containerPlan(project, container)]));
}

function containerPlan(project: Project, container: Container): ContainerPlan {
  const { kind, start, members, bar } = container;
  const common = { kind, start, members, holds: holdsOf(project, container.id), ...barPlan(bar) };
  switch (container.kind) {
    case "stack":
      return common;
    case "tabs":
      return { ...common, onBack: container.onBack, chosenAgain: container.chosenAgain, keeps: container.keeps };
    case "drawer": {
      const from = container.pinnedFrom === "never" ? WIDTHS.length : WIDTHS.indexOf(container.pinnedFrom);
      const pinned = WIDTHS.slice(from);
      const { onBack, keeps, over, closeOn } = container;
      return { ...common, onBack, keeps, over, ...(pinned.length > 0 ? { pinnedAt: pinned } : {}), closeOn };
    }
    case "modal": {
      const full = container.shape === "full";
      return { ...common, blocks: container.blocks, closeOn: container.closeOn.filter((way: Way) => !full || way !== "outside") };
    }
  }
}

function barPlan(bar: Bar | undefined): Pick<ScreenPlan, "bar"> {
  return bar ? { bar: { show: bar.show, lead: bar.lead } } : {};
}

/** What the members of tabs and drawers look like when they are made. */
export function lanePlans(project: Project): Map<string, Template> {
  const out = new Map<string, Template>();
  for (const { kind, start, members } of project.containers)
    if (kind === "tabs" || kind === "drawer")
      for (const id of [start, ...members]) if (lookup(project).containers.has(id)) out.set(id, templateOf(project, id));
  return out;
}
