import { expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import type { Finding } from "../../../src/core/check/finding.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { candidateEvents } from "../../../src/core/insight/available.ts";
import type { Container, Project, Screen } from "../../../src/core/model/schema.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { State } from "../../../src/core/semantics/types.ts";
import { hubsOf } from "../../oracle/oracle.ts";
import { amount } from "../../random/amount.ts";
import { assembledApp } from "../../random/assembled.ts";
import { busyApp } from "../../random/busy.ts";
import { pick, seeded } from "../../random/documents.ts";

const DOCUMENTS = Number(process.env.ASSEMBLED_DOCUMENTS ?? amount(14, 3));
const FROM = Number(process.env.ASSEMBLED_FROM ?? 0);
const SCREENS = Number(process.env.ASSEMBLED_SCREENS ?? 40);

const seeds = Array.from({ length: DOCUMENTS }, (_, i) => FROM + i);
const lost = (findings: readonly Finding[]) => findings.filter(({ code }) => ["trap", "dead-end", "stuck-modal"].includes(code));

const endOf = (project: Project, { walk = [] }: Finding) => walk.reduce((state, event) => step(appOf(project), state, event).state, launch(appOf(project)));

/** Whether people who tap about without a plan get to what is looked for: so many of them, each so many times. */
function getsThere(project: Project, start: State, holds: (state: State) => boolean, people = 150, taps = 60): boolean {
  const random = seeded(7);
  for (let i = 0; i < people; i++) {
    let state = start;
    for (let n = 0; n < taps; n++) {
      const events = candidateEvents(project, state).filter(({ do: kind }) => !["launch", "enter", "width"].includes(kind));
      state = step(appOf(project), state, pick(random, events)).state;
      if (holds(state)) return true;
    }
  }
  return false;
}

const screen = (id: string, more: Partial<Screen> = {}): Screen => ({
  id,
  name: id,
  params: [],
  up: "none",
  bar: { show: false, lead: "none" },
  elements: [],
  ...more,
});

/** The app with a screen in one of its stacks which nothing but a pair of screens follows, and a dialog that nothing closes. */
function withFaults(project: Project, seed: number): Project {
  const random = seeded(seed + 1000);
  const stacks = project.containers.filter((c) => c.kind === "stack" && c.id === project.root);
  const [root] = stacks;
  const from = pick(
    random,
    project.screens.filter(({ once, name }) => !once && name.startsWith("home")),
  );
  const button = (id: string) => ({ id, kind: "button" as const, label: id });
  const places: Container[] = [
    ...(root ? [] : [{ kind: "stack" as const, id: "around", name: "around", start: project.root, members: [project.root, "pit", "well"] }]),
    { kind: "stack", id: "stuckFlow", name: "stuckFlow", start: "stuck", members: ["stuck"] },
    {
      kind: "modal",
      id: "shut",
      name: "shut",
      start: "stuckFlow",
      members: ["stuckFlow"],
      shape: "dialog",
      edge: "center",
      blocks: true,
      dims: true,
      closeOn: [],
    },
  ];
  return {
    ...project,
    root: root ? project.root : "around",
    containers: [...project.containers.map((c) => (c === root ? { ...c, members: [...c.members, "pit", "well"] } : c)), ...places],
    screens: [
      ...project.screens.map((s) => (s.id === from.id ? { ...s, elements: [...s.elements, button("toPit"), button("toShut")] } : s)),
      screen("pit", { elements: [button("toWell")] }),
      screen("well", { elements: [button("toPit2")] }),
      screen("stuck"),
    ],
    legs: [
      ...project.legs,
      { id: "fall", from: from.id, on: { kind: "tap", element: "toPit" }, move: { kind: "reset", to: "pit", in: root?.id ?? "around" } },
      { id: "round", from: "pit", on: { kind: "tap", element: "toWell" }, move: { kind: "replace", to: "well" } },
      { id: "back", from: "well", on: { kind: "tap", element: "toPit2" }, move: { kind: "replace", to: "pit" } },
      { id: "open", from: from.id, on: { kind: "tap", element: "toShut" }, move: { kind: "open", to: "shut" } },
    ],
  };
}

it.each([
  ["as many teams might build them", assembledApp, DOCUMENTS],
  ["to which switches, roles, addresses, panels and shortcuts were added", busyApp, Math.ceil(DOCUMENTS / 3)],
] as const)("apps %s are proved for any depth; who is said to be lost is lost", (_, make, documents) => {
  const wrong: string[] = [];
  const counts = { documents: 0, findings: 0, possible: 0, withPossible: 0, lost: 0 };
  for (const seed of seeds.slice(0, documents)) {
    const project = make(seed, SCREENS);
    const { findings, proof } = check(project, { fixes: false });
    if (!proof.complete || proof.depth !== "any") wrong.push(`seed ${seed}: not complete`);
    const hubs = hubsOf(project, currentScreen(launch(appOf(project))).at);
    for (const finding of lost(findings)) {
      counts.lost += 1;
      if (finding.certainty !== "shown") continue;
      const [subject = ""] = finding.subjects;
      const out = (state: State) => (finding.code === "stuck-modal" ? state.layers.every(({ at }) => at !== subject) : hubs.has(currentScreen(state).at));
      if (getsThere(project, endOf(project, finding), out)) wrong.push(`seed ${seed}: ${finding.code} ${finding.subjects.join(" ")} is helped after all`);
    }
    const possible = findings.filter(({ certainty, severity }) => certainty === "possible" && severity !== "note");
    counts.documents += 1;
    counts.findings += findings.length;
    counts.possible += possible.length;
    counts.withPossible += possible.length > 0 ? 1 : 0;
  }
  process.stdout.write(`${make.name}: ${JSON.stringify(counts)}\n`);
  expect(wrong).toEqual([]);
  expect(counts.withPossible / counts.documents).toBeLessThanOrEqual(0.1);
});

it("larger ones, in which containers are brought up from deep in a stack, are followed to the end", () => {
  for (const [seed, size] of [
    [14, 60],
    [21, 80],
  ] as const)
    expect(check(assembledApp(seed, size), { fixes: false }).proof).toMatchObject({ complete: true, depth: "any" });
});

it("and where they have a pit that nothing leads out of, and a dialog that nothing closes, both are shown", () => {
  const missed: string[] = [];
  for (const seed of seeds.slice(0, amount(6, 2))) {
    const project = withFaults(assembledApp(seed, SCREENS), seed);
    const shown = lost(check(project, { fixes: false }).findings).flatMap(({ certainty, code, subjects }) =>
      certainty === "shown" ? [`${code} ${subjects.join(" ")}`] : [],
    );
    if (!shown.includes("stuck-modal shut")) missed.push(`seed ${seed}: the dialog, only ${shown.join("; ")}`);
    if (!shown.some((line) => line.startsWith("trap ") && line.includes("pit") && line.includes("well")))
      missed.push(`seed ${seed}: the pit, only ${shown.join("; ")}`);
  }
  expect(missed).toEqual([]);
});
