import { describe, expect, it } from "vitest";
import { addContainer, emptyProject, newContainer } from "../../../src/core/model/edits/add.ts";
import { moveInto, unwrap, wrap } from "../../../src/core/model/edits/arrange.ts";
import { changeElement, changeScreen } from "../../../src/core/model/edits/change.ts";
import { freshId } from "../../../src/core/model/edits/edit.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { addScreenBeside, linkElement, linkToNewScreen } from "../../../src/core/model/edits/link.ts";
import { lossesOf, removeElement, removePlaces } from "../../../src/core/model/edits/remove.ts";
import { readProjectData } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const valid = (project: Project) => expect(readProjectData(JSON.parse(JSON.stringify(project)))).toMatchObject({ ok: true });
const containers = (project: Project) => Object.fromEntries(project.containers.map((c) => [c.id, c.members]));

describe("ids from names", () => {
  it.each([
    ["Mite count", "miteCount"],
    ["Ämter & Wörter", "amterWorter"],
    ["7 days", "place7Days"],
    ["…", "place"],
    ["none", "none2"],
  ])("%s becomes %s", (name, id) => {
    expect(freshId(name, new Set(), "place")).toBe(id);
  });

  it("one that is taken gets a number", () => {
    expect(freshId("Hive", new Set(["hive", "hive2"]), "place")).toBe("hive3");
  });
});

describe("linking", () => {
  const project = app("t", {
    tabs: { t: "s u" },
    stacks: { s: "a b", u: "x y", f: "p q" },
    modals: { m: "f" },
    screens: { a: { elements: [{ id: "go", kind: "button", label: "Go" }] } },
  });

  it.each([
    ["b", { kind: "push", to: "b" }],
    ["m", { kind: "open", to: "m" }],
    ["p", { kind: "open", to: "m" }],
    ["q", { kind: "open", to: "m", show: "q" }],
    ["x", { kind: "select", to: "u" }],
    ["y", { kind: "push", to: "y", in: "u" }],
    ["u", { kind: "select", to: "u" }],
  ])("to %s is proposed from where it lives", (to, move) => {
    const { edit, legId, proposal } = linkElement(project, { place: "a", element: "go" }, to);
    const after = applyEdit(project, edit);
    expect(after.legs.find((leg) => leg.id === legId)?.move).toEqual(move);
    expect(proposal.sentence).toMatch(/^[A-Z].*\.$/);
    valid(after);
  });

  it("linking again leads the same leg elsewhere instead of adding one", () => {
    const once = applyEdit(project, linkElement(project, { place: "a", element: "go" }, "b").edit);
    const twice = applyEdit(once, linkElement(once, { place: "a", element: "go" }, "m").edit);
    expect(twice.legs).toHaveLength(1);
    expect(twice.legs[0]?.move).toEqual({ kind: "open", to: "m" });
  });

  it("from a list's row, what the target needs is filled in by name and type", () => {
    const rows = app("s", {
      stacks: { s: "a b" },
      types: [
        {
          id: "hive",
          name: "Hive",
          fields: [
            { name: "id", type: "text" },
            { name: "frames", type: "integer" },
          ],
          samples: [],
        },
      ],
      screens: {
        a: { elements: [{ id: "rows", kind: "list", label: "Hives", of: "hive" }] },
        b: {
          params: [
            { name: "hiveId", type: "text", required: true },
            { name: "frames", type: "integer", required: false },
          ],
        },
      },
    });
    expect(linkElement(rows, { place: "a", element: "rows" }, "b").proposal.move).toEqual({
      kind: "push",
      to: "b",
      pass: { hiveId: "item.id", frames: "item.frames" },
    });
  });

  it("from the one bare screen of an empty app, a new target brings a stack around both", () => {
    const empty = emptyProject("New");
    const withButton = { ...empty, screens: empty.screens.map((s) => ({ ...s, elements: [{ id: "go", kind: "button" as const, label: "Go" }] })) };
    const after = applyEdit(withButton, linkToNewScreen(withButton, { place: "home", element: "go" }, "Hive").edit);
    expect(after.root).toBe("main");
    expect(containers(after)).toEqual({ main: ["home", "hive"] });
    expect(after.legs[0]?.move).toEqual({ kind: "push", to: "hive" });
    valid(after);
  });
});

describe("arranging", () => {
  const project = app("s", { stacks: { s: "a b c" }, legs: ["go a push b"] });

  it("wrapping puts a container where the places stood", () => {
    const after = applyEdit(project, wrap(project, ["b", "c"], "stack", "Yard"));
    expect(containers(after)).toEqual({ s: ["a", "yard"], yard: ["b", "c"] });
    valid(after);
    expect(containers(applyEdit(after, unwrap(after, "yard")))).toEqual({ s: ["a", "b", "c"] });
  });

  it("what is put into a modal leaves its owner", () => {
    const after = applyEdit(project, wrap(project, ["c"], "modal", "Sheet"));
    expect(containers(after)).toEqual({ s: ["a", "b"], sheet: ["c"] });
  });

  it("a place moves to an index, and never into its own tree", () => {
    const two = applyEdit(project, addContainer(newContainer("stack", "u", "U", []), "s"));
    const moved = applyEdit(two, moveInto(two, "a", "u", 0));
    expect(containers(moved)).toEqual({ s: ["b", "c", "u"], u: ["a"] });
    expect(moved.containers[0]?.start).toBe("b");
    expect(applyEdit(two, moveInto(two, "s", "u"))).toBe(two);
  });

  it("a screen is added beside another", () => {
    const { edit, screenId } = addScreenBeside(project, "b", "Drone");
    expect(containers(applyEdit(project, edit))).toEqual({ s: ["a", "b", "c", screenId] });
  });
});

describe("deleting", () => {
  const project = app("s", {
    stacks: { s: "a b c" },
    screens: { c: { up: "b" } },
    legs: ["go a push b", "on b push c", "back c back"],
    entrances: [{ id: "e", name: "e", kind: "link", to: "b", warm: "rebuild" }],
  });

  it("names what else goes, and takes it along", () => {
    expect(lossesOf(project, ["b"])).toEqual({ places: ["b"], legs: ["go", "on"], entrances: ["e"], ups: ["c"], otherwise: [] });
    const after = applyEdit(project, removePlaces(project, ["b"]));
    expect(after.legs.map((leg) => leg.id)).toEqual(["back"]);
    expect(after.entrances).toEqual([]);
    expect(after.screens.find((s) => s.id === "c")?.up).toBe("auto");
    valid(after);
  });

  it("a container takes its tree along, an element its legs", () => {
    expect(lossesOf(project, ["s"]).places).toEqual(["s", "a", "b", "c"]);
    const after = applyEdit(project, removeElement(project, "a", "go"));
    expect(after.legs.map((leg) => leg.id)).toEqual(["on", "back"]);
  });
});

it("a field that is taken back is left out of the document again", () => {
  const project = app("a", { screens: { a: { elements: [{ id: "x", kind: "text", label: "x" }] } } });
  const titled = applyEdit(project, changeScreen(project, "a", { title: "T" }));
  expect(titled.screens[0]?.title).toBe("T");
  expect(applyEdit(titled, changeScreen(titled, "a", { title: undefined }))).toEqual(project);
  expect(applyEdit(project, changeElement(project, "a", "x", { label: "y" })).screens[0]?.elements[0]?.label).toBe("y");
});
