import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { documentFindings } from "../../../src/core/check/findings/all.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { type Chosen, clipSays, copied, readClip } from "../../../src/core/model/edits/clip.ts";
import { renameField } from "../../../src/core/model/edits/fields.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { pasted } from "../../../src/core/model/edits/paste.ts";
import { idProblem, type Named, renameId } from "../../../src/core/model/edits/rename.ts";
import { renameInExpression, renameInTemplate } from "../../../src/core/model/edits/spelling.ts";
import { elementOf, lookup } from "../../../src/core/model/lookup.ts";
import { readProject, readProjectData } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { writeProject } from "../../../src/core/model/write.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { app } from "../../vectors/app.ts";

function hollowcomb(): Project {
  const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  if (!read.ok) throw new Error("the demo can be read");
  return read.project;
}
const valid = (project: Project) => expect(readProjectData(JSON.parse(JSON.stringify(project)))).toMatchObject({ ok: true });
const through = (clip: ReturnType<typeof copied>) => {
  const read = readClip(JSON.stringify(clip));
  if (!read.ok) throw new Error(read.message);
  return read.clip;
};

describe("another id", () => {
  const project = hollowcomb();
  const everything: Named[] = [
    ...[...project.screens, ...project.containers].map((p): Named => ({ kind: "place", id: p.id })),
    ...project.facts.map((f): Named => ({ kind: "fact", id: f.id })),
    ...project.types.map((t): Named => ({ kind: "type", id: t.id })),
    ...project.legs.map((l): Named => ({ kind: "leg", id: l.id })),
    ...project.entrances.map((e): Named => ({ kind: "entrance", id: e.id })),
    ...[...project.screens, ...project.containers].flatMap((p) => (p.elements ?? []).map((e): Named => ({ kind: "element", place: p.id, id: e.id }))),
    ...project.screens.flatMap((s) => s.params.map((p): Named => ({ kind: "param", screen: s.id, id: p.name }))),
  ];

  it.each(everything.map((what) => [what.kind, what.id, what] as const))(
    "of the %s %s follows everywhere, and back again gives the same document",
    (_, id, what) => {
      const next = "zzRenamed";
      const made = applyEdit(project, renameId(what, next));
      valid(made);
      expect(writeProject(made)).toContain(next);
      const back = (what.kind === "param" ? { ...what, id: next } : { ...what, id: next }) as Named;
      expect(applyEdit(made, renameId(back, id))).toEqual(project);
    },
  );

  it("changes no behaviour: the same findings, and every walk runs as expected", () => {
    const all = everything.filter((what) => what.kind === "place" || what.kind === "fact" || what.kind === "element");
    const made = all.reduce((p, what) => {
      const place = what.kind === "element" ? { ...what, place: `${what.place}Zz` } : what;
      return applyEdit(p, renameId(place, `${what.id}Zz`));
    }, project);
    expect(check(made).findings.map((f) => f.code)).toEqual(check(project).findings.map((f) => f.code));
    for (const walk of made.walks) {
      let state = launch(appOf(made));
      const lines = [stateLine(planOf(made), state)];
      for (const event of walk.events) {
        state = step(appOf(made), state, event).state;
        lines.push(stateLine(planOf(made), state));
      }
      for (const { after, shows } of walk.expect ?? []) expect(lines[after]).toBe(shows);
    }
  });

  it.each(project.types.flatMap((type) => type.fields.map((field) => [type.id, field.name] as const)))(
    "of the field %s.%s follows in rows, neighbours and parameters",
    (type, field) => {
      const made = applyEdit(project, renameField(type, field, "zzRenamed"));
      valid(made);
      expect(documentFindings(made, new Set()).map((f) => f.code)).toEqual(documentFindings(project, new Set()).map((f) => f.code));
      expect(applyEdit(made, renameField(type, "zzRenamed", field))).toEqual(project);
    },
  );

  it("says what is wrong with one, and then changes nothing", () => {
    const [first, second] = project.screens.map((s) => s.id);
    const what: Named = { kind: "place", id: first ?? "" };
    expect(idProblem(project, what, second ?? "")).toContain("taken");
    expect(idProblem(project, what, "Big")).toContain("small letter");
    expect(idProblem(project, what, "none")).toContain("something else");
    expect(applyEdit(project, renameId(what, second ?? ""))).toBe(project);
  });

  it("leaves text in quotes, other roots and longer names alone", () => {
    const names = { fact: new Map([["a", "b"]]) };
    expect(renameInExpression('fact.a && "fact.a" != param.a && fact.ab && item.fact.a', names)).toBe(
      'fact.b && "fact.a" != param.a && fact.ab && item.fact.a',
    );
    expect(renameInTemplate("fact.a is {fact.a}", names)).toBe("fact.a is {fact.b}");
  });
});

describe("copy and paste", () => {
  const project = app("t", {
    tabs: { t: "s u" },
    stacks: { s: "a b c", u: "x" },
    facts: [{ id: "seen", type: "boolean", initial: false, source: "app" }],
    legs: ["ab a push b set.seen=true", "bc b push c if=fact.seen", "bb b back", "ca c return a"],
  });
  const other = app("home", { stacks: { home: "a z" } });

  it("screens: legs among them lead to the copies, legs outwards stay, and all is said", () => {
    const clip = through(
      copied(project, [
        { kind: "place", id: "a" },
        { kind: "place", id: "b" },
      ]),
    );
    expect(clipSays(clip)).toBe("2 screens, 3 legs");
    const { project: made, chosen, says } = pasted(project, clip, ["u"]);
    valid(made);
    expect(chosen).toEqual([
      { kind: "place", id: "a2" },
      { kind: "place", id: "b2" },
    ]);
    expect(lookup(made).containers.get("u")?.members).toEqual(["x", "a2", "b2"]);
    expect(made.legs.filter((leg) => leg.from === "a2" || leg.from === "b2").map((leg) => leg.move)).toEqual([
      { kind: "push", to: "b2" },
      { kind: "push", to: "c" },
      { kind: "back" },
    ]);
    expect(says).toEqual(["One leg leads to the copies."]);
  });

  it("into another project: facts come along, legs to what is not there are lost, and both are said", () => {
    const clip = through(copied(project, [{ kind: "place", id: "b" }]));
    const { project: made, says } = pasted(other, clip, ["z"]);
    valid(made);
    expect(made.facts.map((f) => f.id)).toEqual(["seen"]);
    expect(lookup(made).containers.get("home")?.members).toEqual(["a", "z", "b"]);
    expect(made.legs.map((leg) => leg.move?.kind)).toEqual(["back"]);
    expect(says).toEqual(["The fact seen came along.", "The leg bc is lost: there is no c here."]);
  });

  it("an element goes with its legs onto several screens at once", () => {
    const clip = through(copied(project, [{ kind: "element", place: "b", id: "bc" }]));
    const { project: made, chosen } = pasted(project, clip, ["a", "x"]);
    valid(made);
    expect(chosen).toEqual([
      { kind: "element", place: "a", id: "bc" },
      { kind: "element", place: "x", id: "bc" },
    ]);
    expect(elementOf(made, "x", "bc")?.label).toBe("bc");
    expect(made.legs.filter((leg) => "element" in leg.on && leg.on.element === "bc").map((leg) => [leg.from, leg.move])).toEqual([
      ["b", { kind: "push", to: "c" }],
      ["a", { kind: "push", to: "c" }],
      ["x", { kind: "push", to: "c", in: "s" }],
    ]);
  });

  it("a container takes its whole tree, and a modal stands by itself", () => {
    const withModal = app("s", { stacks: { s: "a", f: "p q" }, modals: { m: "f" }, legs: ["o a open m", "n p push q", "x q close m"] });
    const { project: made } = pasted(withModal, through(copied(withModal, [{ kind: "place", id: "m" }])), ["a"]);
    valid(made);
    expect(lookup(made).containers.get("m2")).toMatchObject({ start: "f2", members: ["f2"] });
    expect(lookup(made).containers.get("s")?.members).toEqual(["a"]);
    expect(lookup(made).legs.get("x2")?.move).toEqual({ kind: "close", modal: "m2" });
  });

  it("anything in Hollowcomb can be copied and pasted, within it and into an empty project", () => {
    const demo = hollowcomb();
    const empty = app("main", { stacks: { main: "home" } });
    for (const place of [...demo.screens, ...demo.containers].map((p) => p.id)) {
      const clip = through(copied(demo, [{ kind: "place", id: place }]));
      for (const into of [demo, empty]) {
        const { project: made, chosen } = pasted(into, clip, [into.root]);
        valid(made);
        expect(chosen).toHaveLength(1);
        for (const leg of made.legs) if (leg.move && "to" in leg.move) expect(lookup(made).places.has(leg.move.to)).toBe(true);
      }
    }
  });

  it("text that is no clip is refused in a sentence", () => {
    for (const text of ["", "{}", "null", "[1]", "hello", '{"etape":"clip/1"}'])
      expect(readClip(text)).toMatchObject({ ok: false, message: expect.stringContaining("not copied") });
    expect(readClip('{"etape":"clip/1","places":[],"document":{"format":"etape/1"}}')).toMatchObject({ ok: false, message: expect.stringContaining("root") });
  });
});

it("nothing chosen is copied as nothing", () => {
  const none: Chosen[] = [];
  expect(clipSays(copied(hollowcomb(), none))).toBe("nothing");
});
