import { describe, expect, it } from "vitest";
import { bigProject } from "../../../bench/big.ts";
import { check } from "../../../src/core/check/check.ts";
import { editedPlaces, Memory } from "../../../src/core/check/memory.ts";
import type { Leg, Project } from "../../../src/core/model/schema.ts";
import { type Random, randomDocument, seeded } from "../../random/documents.ts";

const told = (project: Project, memory?: Memory) => {
  const { findings, proof } = check(project, { memory });
  return { findings: findings.map(({ fixes: _, ...rest }) => rest), proof };
};
const any = <T>(random: Random, list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
const replaced = <T>(list: readonly T[], entry: T | undefined, by: T[]): T[] => list.flatMap((one) => (one === entry ? by : [one]));

/** An edit of any kind; legs of another document are as good as any. */
function edited(project: Project, other: Project, random: Random): Project {
  const leg = any(random, project.legs);
  const from = any(random, other.legs);
  const screen = any(random, project.screens);
  const container = any(random, project.containers);
  switch (Math.floor(random() * 9)) {
    case 0:
    case 1:
      return leg && from ? { ...project, legs: replaced(project.legs, leg, [{ ...leg, move: from.move }]) } : project;
    case 2:
      return { ...project, legs: replaced(project.legs, leg, []) };
    case 3:
      return from ? { ...project, legs: [...project.legs, { ...from, id: `n${Math.floor(random() * 1e6)}` } as Leg] } : project;
    case 4:
      return screen ? { ...project, screens: replaced(project.screens, screen, [{ ...screen, name: `${screen.name}x` }]) } : project;
    case 5:
      return screen
        ? {
            ...project,
            screens: replaced(project.screens, screen, [
              { ...screen, elements: screen.elements.map((e) => ({ ...e, enabled: random() < 0.5 ? "fact.f" : undefined })) },
            ]),
          }
        : project;
    case 6:
      return screen ? { ...project, screens: replaced(project.screens, screen, [{ ...screen, hub: !screen.hub, once: random() < 0.5 }]) } : project;
    case 7:
      return container && container.members.length > 1
        ? { ...project, containers: replaced(project.containers, container, [{ ...container, members: [...container.members].reverse() }]) }
        : project;
    default:
      return { ...project, facts: project.facts.map((fact) => (fact.type === "boolean" ? { ...fact, initial: random() < 0.5 } : fact)) };
  }
}

describe("what was worked out before an edit", () => {
  it("changes no finding, on random edits of random documents", () => {
    let reused = 0;
    for (let seed = 0; seed < 50; seed++) {
      const random = seeded(seed + 9000);
      const mix = { guarded: seed % 3 === 0, broken: seed % 5 === 0, unknown: seed % 4 === 0, screens: 4, legs: 6, containers: 1 };
      const memory = new Memory();
      let project = randomDocument(seed, mix);
      check(project, { memory });
      for (let i = 0; i < 5; i++) {
        project = edited(project, randomDocument(seed + 5000 + i, mix), random);
        expect(told(project, memory), `seed ${seed}, edit ${i}`).toEqual(told(structuredClone(project)));
        reused += memory.reused;
      }
    }
    expect(reused).toBeGreaterThan(500);
  });

  it("serves for nearly all steps when one leg is edited, and for all when a name is", () => {
    const memory = new Memory();
    const before = bigProject(60);
    check(before, { memory });
    const named: Project = { ...before, screens: before.screens.map((screen, i) => (i === 7 ? { ...screen, name: "Other" } : screen)) };
    check(named, { memory });
    const all = memory.reused;
    const [first, ...rest] = named.legs as [Leg, ...Leg[]];
    check({ ...named, legs: [{ ...first, move: { kind: "back" } }, ...rest] }, { memory });
    expect(memory.reused).toBeLessThan(all);
    expect(memory.reused).toBeGreaterThan(0.9 * all);
  });
});

describe("the places that an edit touches", () => {
  const project = bigProject(25);
  const [screen] = project.screens as [Project["screens"][number]];
  const [leg] = project.legs as [Leg];
  const withScreen = (more: object): Project => ({ ...project, screens: [{ ...screen, ...more }, ...project.screens.slice(1)] });
  const withLeg = (more: object): Project => ({ ...project, legs: [{ ...leg, ...more } as Leg, ...project.legs.slice(1)] });

  it("are none for names, one for a leg that is taken or an element", () => {
    expect(editedPlaces(project, withScreen({ name: "Other", title: "T", planned: true }))).toEqual(new Set());
    expect(editedPlaces(project, withLeg({ move: { kind: "back" } }))).toEqual(new Set([leg.from]));
    expect(editedPlaces(project, withLeg({ from: "t1s1" }))).toEqual(new Set([leg.from, "t1s1"]));
    expect(editedPlaces(project, withScreen({ elements: screen.elements.map((e) => ({ ...e, enabled: "fact.f1" })) }))).toEqual(new Set([screen.id]));
  });

  it("can not be told where containers, facts, the bar, Up, parameters or typed fields differ, or what fires by itself", () => {
    expect(editedPlaces(project, { ...project, containers: project.containers.slice(1) })).toBeUndefined();
    expect(editedPlaces(project, { ...project, facts: project.facts.slice(1) })).toBeUndefined();
    for (const more of [{ bar: { show: false, lead: "none" } }, { up: "none" }, { params: [{ name: "p", type: "text", required: true }] }])
      expect(editedPlaces(project, withScreen(more))).toBeUndefined();
    expect(editedPlaces(project, withScreen({ elements: [...screen.elements, { id: "f", kind: "field", label: "F" }] }))).toBeUndefined();
    expect(editedPlaces(project, withLeg({ on: { kind: "arrive" } }))).toBeUndefined();
  });
});
