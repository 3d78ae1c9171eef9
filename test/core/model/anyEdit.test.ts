import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fixesFor } from "../../../src/core/check/fixes/fixes.ts";
import { proposal } from "../../../src/core/insight/proposal.ts";
import { acceptFinding, withdrawAccepted } from "../../../src/core/model/edits/accepted.ts";
import { addElement, addEntrance, addLeg, freshElementId, freshLegId } from "../../../src/core/model/edits/add.ts";
import { moveAllInto, orderOnMap, unwrap, wrap } from "../../../src/core/model/edits/arrange.ts";
import { changeContainer, changeElement, changeEntrance, changeFact, changeLeg, changeProject, changeScreen } from "../../../src/core/model/edits/change.ts";
import { copied } from "../../../src/core/model/edits/clip.ts";
import type { Edit } from "../../../src/core/model/edits/edit.ts";
import { addFact, removeFact } from "../../../src/core/model/edits/facts.ts";
import { renameField } from "../../../src/core/model/edits/fields.ts";
import { applyEdit, EDIT_KINDS, invertEdit, readEdit } from "../../../src/core/model/edits/kinds.ts";
import {
  addScreenBeside,
  type LegStart,
  linkElement,
  linkToNewLane,
  linkToNewModal,
  linkToNewScreen,
  linkToNewStack,
} from "../../../src/core/model/edits/link.ts";
import { dropParameter } from "../../../src/core/model/edits/params.ts";
import { paste } from "../../../src/core/model/edits/paste.ts";
import { addArea, changeArea, putPicture, removeArea, removeAreas, removePicture } from "../../../src/core/model/edits/pictures.ts";
import { setPlanned } from "../../../src/core/model/edits/planned.ts";
import { removeElement, removeEntrance, removeLegs, removePlaces } from "../../../src/core/model/edits/remove.ts";
import { idProblem, renameId } from "../../../src/core/model/edits/rename.ts";
import { addRule, changeRule, freshRuleId, removeRule } from "../../../src/core/model/edits/rules.ts";
import { shareElement, spreadElement } from "../../../src/core/model/edits/share.ts";
import { addType, changeCell, changeType, removeField, removeType } from "../../../src/core/model/edits/types.ts";
import { addWalk, expectInWalk, removeWalk } from "../../../src/core/model/edits/walks.ts";
import { elementsOf } from "../../../src/core/model/lookup.ts";
import { withPass } from "../../../src/core/model/moves.ts";
import { controlsOf } from "../../../src/core/model/pictures.ts";
import { moveSentence, withArguments } from "../../../src/core/model/propose.ts";
import { problemLine, problemsAfterEdit, readProjectData } from "../../../src/core/model/read.ts";
import type { Area, Move, Project, Trigger } from "../../../src/core/model/schema.ts";
import { amount } from "../../random/amount.ts";
import { pick, type Random, randomDocument, seeded } from "../../random/documents.ts";
import { randomPicture, withPictures } from "../../random/pictures.ts";
import { randomRules } from "../../random/rules.ts";

const TEXTS = ["", "A name", "Ünïcode 🐝", '"quoted" {param.p}', "a".repeat(2000), "auto", "__proto__", "constructor", "  spaces  ", "\u0000", "1"];
const text = (random: Random) => pick(random, TEXTS);
const maybe = <T>(random: Random, value: T): T | undefined => (random() < 0.5 ? value : undefined);

/** Every kind of edit that the page makes, with what its fields can hold, on what the document has. */
const EDITS: Record<string, (random: Random, p: Project) => Edit | undefined> = {
  screen: (random, p) =>
    changeScreen(p, pick(random, p.screens).id, {
      name: text(random),
      title: maybe(random, text(random)),
      path: maybe(random, text(random)),
      code: maybe(random, text(random)),
      up: pick(random, ["auto", "none", pick(random, p.screens).id]),
      hub: maybe(random, true),
      once: maybe(random, true),
      bar: maybe(random, { show: random() < 0.5, lead: pick(random, ["auto", "menu", "none"] as const), backLabel: text(random) }),
      pages: maybe(random, { over: "row", by: "p", order: maybe(random, "id") }),
    }),
  screenParams: (random, p) =>
    changeScreen(p, pick(random, p.screens).id, {
      params: [
        { name: "p", type: "text", required: random() < 0.5, default: "x" },
        { name: "n", type: pick(random, ["integer", "number"]), required: true },
      ],
    }),
  container: (random, p) => {
    const c = pick(random, p.containers);
    return (
      c &&
      changeContainer(p, c.id, {
        name: text(random),
        start: pick(random, [...c.members, c.start]),
        once: maybe(random, true),
        motion: maybe(random, { kind: "slide", ms: 5 }),
      })
    );
  },
  element: (random, p) => {
    const [place, element] = anElement(random, p);
    return element !== undefined
      ? changeElement(p, place, element, {
          label: text(random),
          kind: pick(random, ["list", "field", "image"] as const),
          of: maybe(random, "row"),
          at: maybe(random, "foot"),
          shown: maybe(random, text(random)),
        })
      : undefined;
  },
  way: (random, p) => {
    const leg = pick(random, p.legs);
    return leg && changeLeg(p, leg, { move: aMove(random, p) });
  },
  pass: (random, p) => {
    const leg = pick(random, p.legs);
    return leg?.move && changeLeg(p, leg, { move: withPass(leg.move, maybe(random, { p: text(random) })) });
  },
  arguments: (random, p) => {
    const leg = pick(random, p.legs);
    return leg?.move && changeLeg(p, leg, { move: withArguments(p, leg.from, undefined, leg.move) });
  },
  trigger: (random, p) => {
    const leg = pick(
      random,
      p.legs.filter((one) => p.screens.some((s) => s.id === one.from)),
    );
    return leg && changeLeg(p, leg, { on: aTrigger(random, p, leg.from) });
  },
  leg: (random, p) => {
    const leg = pick(random, p.legs);
    return (
      leg &&
      changeLeg(p, leg, {
        when: maybe(random, text(random)),
        set: maybe(random, { f: text(random) }),
        note: maybe(random, text(random)),
        resumes: maybe(random, true),
        motion: maybe(random, { kind: "grow" }),
      })
    );
  },
  fact: (random, p) => {
    const fact = pick(random, p.facts);
    return (
      fact &&
      changeFact(
        fact.id,
        pick(random, [
          { type: "choice" as const },
          { type: "boolean" as const },
          { initial: true },
          { initial: "two" },
          { values: ["only"] },
          { values: [] },
          { persists: true },
          { name: text(random) },
        ]),
      )
    );
  },
  facts: (random, p) =>
    random() < 0.5
      ? addFact({ id: `fact${p.facts.length}x${Math.floor(random() * 1e6)}`, type: "boolean", initial: false, source: "app" })
      : p.facts[0] && removeFact(p.facts[0].id),
  entrance: (random, p) => {
    const e = pick(random, p.entrances);
    return (
      e &&
      changeEntrance(p, e.id, {
        name: text(random),
        pattern: maybe(random, text(random)),
        to: pick(random, p.screens).id,
        when: maybe(random, text(random)),
        otherwise: maybe(random, p.root),
        resume: maybe(random, true),
        pass: maybe(random, { p: text(random) }),
      })
    );
  },
  addEntrance: (random, p) =>
    addEntrance({ id: `in${Math.floor(random() * 1e9)}`, name: text(random), kind: "link", to: pick(random, p.screens).id, warm: "rebuild" }),
  project: (random) => changeProject({ name: text(random), about: maybe(random, text(random)) }),
  add: (random, p) => addScreenBeside(p, maybe(random, pick(random, [...p.screens, ...p.containers]).id), text(random)).edit,
  addElement: (random, p) => {
    const place = pick(random, [...p.screens, ...p.containers]).id;
    const label = text(random);
    return addElement(place, { id: freshElementId(p, place, label), kind: "button", label });
  },
  addLeg: (random, p) => {
    const from = pick(random, p.screens).id;
    return addLeg(p, { id: freshLegId(p, text(random)), from, on: aTrigger(random, p, from), move: aMove(random, p) });
  },
  link: (random, p) => {
    const [place, element] = anElement(random, p);
    const to = pick(random, [...p.screens, ...p.containers]).id;
    return linkElement(p, aStart(random, p, place, element), to, random() < 0.5 ? proposal(p, { place, element }, to) : undefined).edit;
  },
  linkNew: (random, p) => {
    const [place, element] = anElement(random, p);
    return pick(random, [linkToNewScreen, linkToNewStack, linkToNewLane])(p, aStart(random, p, place, element), text(random))?.edit;
  },
  linkModal: (random, p) => {
    const [place, element] = anElement(random, p);
    const what = pick(random, [{ name: text(random) }, { name: text(random), steps: true }, { around: pick(random, p.screens).id }]);
    return linkToNewModal(p, aStart(random, p, place, element), what).edit;
  },
  accept: (random) => acceptFinding({ code: pick(random, ["a", "b"]), subjects: ["x"] }, text(random)),
  withdraw: (random) => withdrawAccepted({ code: pick(random, ["a", "b"]), subjects: ["x"] }),
  orderOnMap: (random, p) => {
    const container = pick(random, p.containers);
    return container && orderOnMap(p, container.id, random() < 0.5 ? container.members : [...container.members].reverse());
  },
  dropParameter: (random, p) => dropParameter(p, pick(random, p.screens).id, "p"),
  walk: (random, p) => addWalk(p, text(random), [{ do: "launch" }, { do: "back" }]).edit,
  expectInWalk: (random, p) => (p.walks.length > 0 ? expectInWalk(p, pick(random, p.walks).id, Math.floor(random() * 3), text(random)) : undefined),
  removeWalk: (random, p) => (p.walks.length > 0 ? removeWalk(p, pick(random, p.walks).id) : undefined),
  addRule: (random, p) => {
    const [rule] = randomRules(p, Math.floor(random() * 1000), 4).slice(Math.floor(random() * 4));
    return rule && addRule({ ...rule, id: freshRuleId(p, text(random)), name: text(random) });
  },
  changeRule: (random, p) => {
    const rule = pick(random, p.rules ?? []);
    const [other] = randomRules(p, Math.floor(random() * 1000), 4).slice(Math.floor(random() * 4));
    return rule && other && changeRule({ ...other, id: rule.id, name: rule.name });
  },
  removeRule: (random, p) => (p.rules?.length ? removeRule(p, pick(random, p.rules).id) : undefined),
  takeBack: (random, p) => invertEdit(p, changeProject({ name: text(random) })),
  wrap: (random, p) => wrap(p, places(random, p), pick(random, ["stack", "tabs", "drawer", "modal"] as const), text(random)),
  unwrap: (random, p) => (p.containers.length > 0 ? unwrap(p, pick(random, p.containers).id) : undefined),
  move: (random, p) =>
    p.containers.length > 0 ? moveAllInto(p, places(random, p), pick(random, p.containers).id, maybe(random, pick(random, p.screens).id)) : undefined,
  remove: (random, p) => (p.screens.length > 1 ? removePlaces(p, places(random, p).slice(0, 1)) : undefined),
  removeElement: (random, p) => {
    const [place, element] = anElement(random, p);
    return element === undefined ? undefined : removeElement(p, place, element);
  },
  removeLegs: (random, p) =>
    removeLegs(
      p,
      p.legs.filter(() => random() < 0.2).map((leg) => leg.id),
    ),
  removeEntrance: (random, p) => (p.entrances.length > 0 ? removeEntrance(p, pick(random, p.entrances).id) : undefined),
  planned: (random, p) => setPlanned({ screens: [pick(random, p.screens).id], legs: p.legs.slice(0, 1).map((leg) => leg.id) }, random() < 0.5),
  rename: (random, p) => {
    const what = { kind: "place" as const, id: pick(random, [...p.screens, ...p.containers]).id };
    const next = pick(random, ["renamed", "s0", "Not an id", "auto", "x".repeat(64)]);
    return idProblem(p, what, next) === undefined ? renameId(what, next) : undefined;
  },
  share: (random, p) => {
    const [place, element] = anElement(random, p);
    const owner = p.containers.find((c) => c.members.includes(place));
    return element === undefined || !owner ? undefined : p.screens.some((s) => s.id === place) ? shareElement(p, place, element, owner.id) : undefined;
  },
  spread: (_, p) => {
    const c = p.containers.find((one) => (one.elements?.length ?? 0) > 0);
    return c && spreadElement(p, c.id, c.elements?.[0]?.id ?? "");
  },
  paste: (random, p) => paste(copied(p, [{ kind: "place", id: pick(random, p.screens).id }]), [pick(random, [...p.containers, ...p.screens]).id]),
  type: (random, p) =>
    p.types.some((t) => t.id === "row")
      ? pick(random, [
          changeType("row", { name: maybe(random, text(random)) }),
          changeType("row", { samples: [{ id: text(random) }, {}] }),
          changeCell("row", 0, "id", maybe(random, text(random))),
          renameField("row", "id", "key"),
          removeField("row", "more"),
          removeType("row"),
        ])
      : addType({
          id: "row",
          fields: [
            { name: "id", type: "text" },
            { name: "more", type: "integer" },
          ],
          samples: [],
        }),
  picture: (random, p) => {
    const screen = pick(random, p.screens);
    const [first] = screen.pictures ?? [];
    const made = randomPicture(random, p, screen.id, `${screen.id}-${Math.floor(random() * 3)}.png`);
    if (screen.pictures?.some(({ file }) => file === made.file)) return removePicture(p, screen.id, made.file);
    return putPicture(p, screen.id, made, first && maybe(random, first.file));
  },
  area: (random, p) => {
    const screen = pick(
      random,
      p.screens.filter((s) => s.pictures),
    );
    const picture = pick(random, screen?.pictures ?? []);
    if (!screen || !picture) return undefined;
    const area = pick(random, picture.areas);
    const control = pick(random, [...controlsOf(p, screen.id).map((one) => one.control), "nothing"]);
    const next: Area = { at: [random() < 0.2 ? 5000 : 3, 4, 50, 60], control };
    if (!area || random() < 0.4) return addArea(p, screen.id, picture, next, maybe(random, pick(random, p.containers)?.id));
    return pick(random, [
      changeArea(p, screen.id, picture, area, next, random() < 0.5),
      removeArea(p, screen.id, picture, area),
      removeAreas(p, screen.id, area.control),
    ]);
  },
  repair: (random, p) => {
    const subjects = [...p.legs, ...p.screens, ...p.containers, ...p.entrances].map((one) => one.id);
    const code = pick(random, [
      "dead-end",
      "stuck-modal",
      "unreachable",
      "refused-move",
      "returns-to-finished",
      "broken-target",
      "no-owner",
      "no-start",
      "no-way-up",
      "up-arguments",
      "missing-argument",
    ]);
    return pick(random, fixesFor(p, { code, subjects: [pick(random, subjects), pick(random, subjects), "p"] }));
  },
};

function places(random: Random, p: Project): string[] {
  return p.screens.filter(() => random() < 0.4).map((s) => s.id);
}

function anElement(random: Random, p: Project): [place: string, element: string | undefined] {
  const place = pick(random, [...p.screens, ...p.containers]).id;
  return [place, pick(random, elementsOf(p, place))?.id];
}

/** At an element; by a trigger of the place, where it is one that may start from there; or at a button yet to be made. */
function aStart(random: Random, p: Project, place: string, element: string | undefined): LegStart {
  const screen = p.screens.some((one) => one.id === place);
  return pick<LegStart>(random, [
    { place, element },
    { place, on: { kind: "swipe", to: "left" } },
    { place, on: screen ? { kind: "after", ms: 800 } : { kind: "depart" } },
    { place, on: screen ? { kind: "arrive" } : { kind: "depart", by: ["back"] } },
    { place },
  ]);
}

function aTrigger(random: Random, p: Project, from: string): Trigger {
  const element = elementsOf(p, from)[0]?.id ?? "element";
  return pick<Trigger>(random, [
    { kind: "tap", element },
    { kind: "submit", element, outcome: text(random) },
    { kind: "swipe", to: "left" },
    { kind: "after", ms: 800 },
    { kind: "arrive" },
    { kind: "depart" },
  ]);
}

function aMove(random: Random, p: Project): Move {
  const to = pick(random, [...p.screens, ...p.containers]).id;
  return pick<Move>(random, [
    { kind: "push", to, in: maybe(random, "beneath"), repeat: maybe(random, "rewind"), tidy: maybe(random, "source") },
    { kind: "replace", to },
    { kind: "reset", to },
    { kind: "return", to, orElse: maybe(random, "nothing") },
    { kind: "open", to, instead: maybe(random, true) },
    { kind: "close" },
    { kind: "select", to, fresh: maybe(random, true) },
    { kind: "menu" },
    { kind: "back" },
    { kind: "up" },
    { kind: "proceed" },
    { kind: "leave", url: maybe(random, text(random)) },
  ]);
}

/** The kinds of an edit and of those that it is made of. */
function kindsIn(edit: Edit): string[] {
  return [edit.kind, ...(edit.kind === "together" ? (edit.edits as Edit[]).flatMap(kindsIn) : [])];
}

/** Written down and read again it does the same; and what takes it back gives the very document that was there. */
function expectData(before: Project, edit: Edit, after: Project) {
  const read = readEdit(JSON.parse(JSON.stringify(edit)));
  if (!read.ok) throw new Error(read.message);
  expect(applyEdit(before, read.edit)).toEqual(after);
  const inverse = readEdit(JSON.parse(JSON.stringify(invertEdit(before, edit))));
  if (!inverse.ok) throw new Error(inverse.message);
  expect(applyEdit(after, inverse.edit)).toEqual(before);
}

describe("the result of any edit", () => {
  const made: Record<string, number> = {};
  const seen = new Set<string>();

  it("is a document that reads, whatever came before it", () => {
    fc.assert(
      fc.property(fc.nat(1_000_000), fc.array(fc.constantFrom(...Object.keys(EDITS)), { minLength: 6, maxLength: 14 }), (seed, kinds) => {
        const random = seeded(seed);
        let project = withPictures(random, randomDocument(seed % 5000, { broken: seed % 3 === 0, guarded: true, unknown: true }));
        for (const kind of kinds) {
          const edit = EDITS[kind]?.(random, project);
          if (!edit) continue;
          made[kind] = (made[kind] ?? 0) + 1;
          const next = applyEdit(project, edit);
          for (const one of kindsIn(edit)) seen.add(one);
          expectData(project, edit, next);
          expect(problemsAfterEdit(project, next).map(problemLine), `${kind}: ${edit.name}`).toEqual([]);
          for (const leg of next.legs) if (leg.move) expect(moveSentence(next, leg.from, leg.move)).not.toContain("undefined");
          project = next;
        }
        const read = readProjectData(JSON.parse(JSON.stringify(project)));
        expect(read.ok ? [] : read.problems.map(problemLine)).toEqual([]);
      }),
      { numRuns: amount(1000, 700), seed: 13 },
    );
    expect(Object.keys(EDITS).filter((kind) => (made[kind] ?? 0) < amount(10, 1))).toEqual([]);
    expect(EDIT_KINDS.filter((kind) => !seen.has(kind))).toEqual([]);
  });

  it("leaves a field out that is given as undefined, also after it was written down", () => {
    const before: Project = {
      ...randomDocument(3),
      about: "x",
      facts: [{ id: "f", name: "F", type: "boolean", initial: false, source: "app" }],
      types: [{ id: "t", name: "T", fields: [], samples: [] }],
      containers: [{ kind: "stack", id: "c", name: "C", icon: "i", start: "s", members: ["s"] }],
      screens: [{ id: "s", name: "S", icon: "i", params: [], up: "auto", elements: [{ id: "e", kind: "text", label: "E", text: "x" }] }],
      legs: [{ id: "l", from: "s", on: { kind: "arrive" }, note: "n" }],
      entrances: [{ id: "w", name: "W", kind: "link", to: "s", warm: "rebuild", pattern: "/s" }],
    };
    const leg = before.legs[0];
    if (!leg) throw new Error("there is a leg");
    const edits: Edit[] = [
      changeProject({ about: undefined }),
      changeFact("f", { name: undefined }),
      changeType("t", { name: undefined }),
      changeContainer(before, "c", { icon: undefined }),
      changeScreen(before, "s", { icon: undefined }),
      changeElement(before, "s", "e", { text: undefined }),
      changeLeg(before, leg, { note: undefined }),
      changeEntrance(before, "w", { pattern: undefined }),
    ];
    for (const edit of edits) {
      const after = applyEdit(before, edit);
      expect(JSON.stringify(after).length, edit.name).toBeLessThan(JSON.stringify(before).length);
      expectData(before, edit, after);
    }
  });

  it("is found out where it does not read, with the place in the whole document", () => {
    const before = randomDocument(7);
    const second = before.screens[1];
    if (!second) throw new Error("there are two screens");
    const after = { ...before, screens: before.screens.map((s) => (s === second ? { ...s, name: 7 as unknown as string } : s)) };
    expect(problemsAfterEdit(before, after).map(problemLine)).toEqual(["screens[1].name: found 7; expected a string"]);
    const twice = { ...before, screens: [...before.screens, { ...second }] };
    expect(problemsAfterEdit(before, twice).map((p) => p.path)).toEqual([`screens[${before.screens.length}].id`]);
    expect(problemsAfterEdit(before, { ...before, wrong: 1 } as never).map((p) => p.path)).toEqual(["wrong"]);
  });
});
