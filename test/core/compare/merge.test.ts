import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { builtApp } from "../../../bench/apps.ts";
import { check } from "../../../src/core/check/check.ts";
import { mergeProjects } from "../../../src/core/compare/merge.ts";
import { orderedIds } from "../../../src/core/compare/order.ts";
import { addElement, freshElementId, newScreen } from "../../../src/core/model/edits/add.ts";
import { moveInto } from "../../../src/core/model/edits/arrange.ts";
import { changeLeg, changeScreen } from "../../../src/core/model/edits/change.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { linkToNewScreen } from "../../../src/core/model/edits/link.ts";
import { removeLegs, removePlaces } from "../../../src/core/model/edits/remove.ts";
import { lookup } from "../../../src/core/model/lookup.ts";
import { readProject, readProjectData } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { writeProject } from "../../../src/core/model/write.ts";
import { seeded } from "../../random/documents.ts";
import { wholeDocument } from "../../random/whole.ts";
import { app } from "../../vectors/app.ts";

const demo = (name: string): Project => {
  const read = readProject(readFileSync(`demo/${name}.etape.json`, "utf8"));
  if (!read.ok) throw new Error(name);
  return read.project;
};

/** A document after some random edits; `side` is in the names of what is made. */
function edited(project: Project, seed: number, count: number, side: string): Project {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
  let now = project;
  for (let i = 0; i < count; i++) {
    const screen = pick(now.screens)?.id ?? "";
    const leg = pick(now.legs);
    const container = pick(now.containers)?.id ?? "";
    const edits = [
      () => changeScreen(now, screen, { name: `${side} ${i}` }),
      () => changeScreen(now, screen, { hub: random() < 0.5, title: `${side} title ${i}` }),
      () => addElement(screen, { id: freshElementId(now, screen, `${side} ${i}`), kind: "button", label: `${side} ${i}` }),
      () => linkToNewScreen(now, { place: screen }, `${side} new ${i}`).edit,
      () => leg && changeLeg(now, leg, { note: `${side} ${i}` }),
      () => leg && removeLegs(now, [leg.id]),
      () => removePlaces(now, [screen]),
      () => moveInto(now, screen, container),
    ];
    const edit = pick(edits)?.();
    const next = edit ? applyEdit(now, edit) : now;
    if (readProjectData(next).ok) now = next;
  }
  return now;
}

/** A document with its lists in an order that says nothing. */
const sorted = (project: Project) => ({
  ...project,
  ...Object.fromEntries(
    (["facts", "types", "containers", "screens", "legs", "entrances", "walks"] as const).map((list) => [
      list,
      [...project[list]].sort((a, b) => (a.id < b.id ? -1 : 1)),
    ]),
  ),
});

describe("merging", () => {
  it("takes what only one side changed, and what both changed alike once", () => {
    const base = app("s", { stacks: { s: "a b c" }, legs: ["ab a push b", "bc b push c"] });
    const renamed = applyEdit(base, changeScreen(base, "a", { name: "Alpha" }));
    const marked = applyEdit(base, changeScreen(base, "a", { hub: true }));
    const both = mergeProjects(base, renamed, marked);
    expect([both.conflicts, both.project.screens[0]]).toMatchObject([[], { name: "Alpha", hub: true }]);
    expect(mergeProjects(base, renamed, renamed)).toEqual({ project: renamed, conflicts: [] });
    expect(mergeProjects(base, base, renamed)).toEqual({ project: renamed, conflicts: [] });
    const [x, y] = ["x", "y"].map((name) => applyEdit(base, linkToNewScreen(base, { place: "c" }, name).edit)) as [Project, Project];
    const made = mergeProjects(base, x, y);
    expect(made.conflicts).toEqual([]);
    expect(made.project.containers[0]?.members).toEqual(["a", "b", "c", "x", "y"]);
    expect(made.project.screens.find(({ id }) => id === "c")?.elements.map(({ label }) => label)).toEqual(["x", "y"]);
    expect(check(made.project, { fixes: false }).findings.filter(({ severity }) => severity === "blocker")).toEqual([]);
  });

  it("names a field that both changed differently, and keeps ours", () => {
    const base = app("s", { stacks: { s: "a b" }, legs: ["ab a push b"] });
    const as = (name: string) => applyEdit(base, changeScreen(base, "a", { name }));
    expect(mergeProjects(base, as("One"), as("Two"))).toMatchObject({
      project: { screens: [{ name: "One" }, {}] },
      conflicts: [{ where: "screen “One” (a)", field: "name", says: expect.stringContaining('ours is "One", theirs "Two"; ours stays') }],
    });
  });

  it("keeps what one side deleted where the other changed it, leads to it or speaks of it, and says so", () => {
    const base = app("s", {
      facts: [{ id: "f", type: "boolean", initial: false, source: "app" }],
      stacks: { s: "a b", t: "c d" },
      tabs: { r: "s t" },
      legs: ["ab a push b", "cd c push d"],
    } as Parameters<typeof app>[1]);
    const gone = applyEdit(base, removePlaces(base, ["d"]));
    const changed = applyEdit(base, changeScreen(base, "d", { name: "Delta" }));
    const first = mergeProjects(base, gone, changed);
    expect(first.conflicts).toMatchObject([{ where: "screen “Delta” (d)", says: "we deleted it, and they changed it; it stays" }]);
    expect(lookup(first.project).owners.get("d")?.id).toBe("t");
    const led = { ...base, legs: [...base.legs, { ...base.legs[0], id: "new", move: { kind: "push" as const, to: "d" } }] } as Project;
    const second = mergeProjects(base, gone, led);
    expect(second.conflicts.map(({ says }) => says)).toContain("one side deleted it, and the leg new leads there on the other; it stays");
    expect(lookup(second.project).owners.get("d")?.id).toBe("t");
    const spoken = { ...base, legs: base.legs.map((leg) => ({ ...leg, when: "fact.f" })) };
    expect(mergeProjects(base, { ...base, facts: [] }, spoken).project.facts).toEqual(base.facts);
  });

  it("keeps a place that both moved where ours has it", () => {
    const base = app("r", { stacks: { s: "a", t: "b", u: "c x" }, tabs: { r: "s t u" } } as Parameters<typeof app>[1]);
    const merged = mergeProjects(base, applyEdit(base, moveInto(base, "x", "s")), applyEdit(base, moveInto(base, "x", "t")));
    expect(lookup(merged.project).owners.get("x")?.id).toBe("s");
    expect(merged.conflicts).toMatchObject([{ where: "screen “x” (x)", says: expect.stringContaining("both sides moved it") }]);
  });

  it("orders what both added in a way that does not depend on the sides", () => {
    expect(orderedIds(["a", "b"], ["a", "y", "b"], ["a", "x", "b", "z"]).ids).toEqual(["a", "x", "y", "b", "z"]);
    expect(orderedIds(["a", "b"], ["a", "x", "b", "z"], ["a", "y", "b"]).ids).toEqual(["a", "x", "y", "b", "z"]);
    expect(orderedIds(["a", "b", "c"], ["c", "a", "b"], ["a", "b", "d", "c"])).toEqual({ ids: ["c", "a", "b", "d"], conflict: false });
    expect(orderedIds(["a", "b", "c"], ["c", "a", "b"], ["b", "a", "c"])).toEqual({ ids: ["c", "a", "b"], conflict: true });
  });

  it("of random edits on both sides loses none: what is there on a side is there or named, either way round, and the result reads", () => {
    const documents = [demo("hollowcomb"), demo("tidewatch"), builtApp(20, 3), ...Array.from({ length: 20 }, (_, seed) => wholeDocument(seed))];
    let [merges, clean] = [0, 0];
    for (const [i, base] of documents.entries())
      for (let round = 0; round < 8; round++) {
        const seed = i * 100 + round;
        const [ours, theirs] = [edited(base, seed, 1 + (round % 5), "ours"), edited(base, seed + 7919, 1 + ((round * 3) % 5), "theirs")];
        const there = mergeProjects(base, ours, theirs);
        const back = mergeProjects(base, theirs, ours);
        merges += 1;
        clean += there.conflicts.length === 0 ? 1 : 0;
        const said = `seed ${seed}: ${there.conflicts.map(({ where, field, says }) => `${where} ${field} ${says}`).join("; ")}`;
        const read = readProject(writeProject(there.project));
        expect(read.ok ? "" : JSON.stringify(read.problems.slice(0, 2)), said).toBe("");
        expect(there.conflicts.length, said).toBe(back.conflicts.length);
        if (there.conflicts.length === 0) expect(sorted(back.project), said).toEqual(sorted(there.project));
        // What only one side made or changed is there as it made it.
        for (const [side, other] of [[ours, theirs] as const, [theirs, ours] as const])
          for (const list of ["screens", "legs", "containers"] as const)
            for (const entry of side[list] as ReadonlyArray<{ id: string; name?: string; note?: string }>) {
              const [was, others, is] = [base, other, there.project].map((one) =>
                (one[list] as ReadonlyArray<{ id: string; name?: string; note?: string }>).find(({ id }) => id === entry.id),
              );
              if (!was) expect(is, `${said}: ${entry.id}`).toBeDefined();
              else if (others && others.name === was.name && others.note === was.note)
                expect([is?.name, is?.note], `${said}: ${entry.id}`).toEqual([entry.name, entry.note]);
            }
      }
    expect(merges).toBe(documents.length * 8);
    expect(clean).toBeGreaterThan(merges / 3);
  });

  it("takes a document that is new on both sides", () => {
    const nothing = { ...demo("tidewatch"), facts: [], types: [], containers: [], screens: [], legs: [], entrances: [], walks: [] };
    const one = app("s", { stacks: { s: "a" } });
    expect(mergeProjects(nothing, one, { ...one, screens: [...one.screens, newScreen("b", "b")] }).project.screens.map(({ id }) => id)).toEqual(["a", "b"]);
  });
});
