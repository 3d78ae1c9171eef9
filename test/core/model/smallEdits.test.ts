import { describe, expect, it } from "vitest";
import { completions } from "../../../src/core/model/complete.ts";
import { newContainer } from "../../../src/core/model/edits/add.ts";
import { changeFact } from "../../../src/core/model/edits/change.ts";
import { copied, readClip } from "../../../src/core/model/edits/clip.ts";
import type { Edit } from "../../../src/core/model/edits/edit.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { lanesAround, linkToDoing, linkToNewLane, stackFor } from "../../../src/core/model/edits/link.ts";
import { pasted } from "../../../src/core/model/edits/paste.ts";
import { addArea, changeArea, putPicture, removeArea, removePicture } from "../../../src/core/model/edits/pictures.ts";
import { setPlanned } from "../../../src/core/model/edits/planned.ts";
import { spreadAll, spreadElement } from "../../../src/core/model/edits/share.ts";
import { lookup } from "../../../src/core/model/lookup.ts";
import { begins } from "../../../src/core/model/names.ts";
import { sourceFor } from "../../../src/core/model/propose.ts";
import { problemLine, readProjectData } from "../../../src/core/model/read.ts";
import { metWords } from "../../../src/core/model/ruleWords.ts";
import type { Area, Picture, Project } from "../../../src/core/model/schema.ts";
import { placeScope } from "../../../src/core/model/scope.ts";
import { app } from "../../vectors/app.ts";

const flag = { id: "f", type: "boolean", initial: true, source: "app" };
const all = (project: Project, ...edits: Edit[]) => edits.reduce(applyEdit, project);
const screen = (project: Project, id: string) => project.screens.find((one) => one.id === id);

describe("a fact that becomes another type", () => {
  const project = app("a", { facts: [flag] });
  const becomes = (change: Parameters<typeof changeFact>[1], from = project) => applyEdit(from, changeFact("f", change)).facts[0];

  it("begins with one of its values, the first where what it began with is none", () => {
    expect(becomes({ type: "choice" })).toMatchObject({ type: "choice", values: ["one", "other"], initial: "one" });
    expect(becomes({ type: "choice", values: ["red", "blue"] })).toMatchObject({ values: ["red", "blue"], initial: "red" });
    expect(becomes({ type: "choice", values: ["red", "blue"], initial: "blue" })).toMatchObject({ initial: "blue" });
    const chosen = applyEdit(project, changeFact("f", { type: "choice", values: ["red", "blue"], initial: "blue" }));
    expect(becomes({ values: ["red", "green"] }, chosen)).toMatchObject({ values: ["red", "green"], initial: "red" });
    expect(becomes({ values: [] }, chosen)).toMatchObject({ values: ["one", "other"], initial: "one" });
  });

  it("has no values as a yes or no, and begins with no unless it began with yes", () => {
    expect(becomes({ initial: false })).toMatchObject({ type: "boolean", initial: false });
    const chosen = applyEdit(project, changeFact("f", { type: "choice", values: ["red", "blue"] }));
    const back = becomes({ type: "boolean" }, chosen);
    expect(back).toMatchObject({ type: "boolean", initial: false });
    expect(back && "values" in back).toBe(false);
  });
});

describe("what an element does without leading anywhere", () => {
  const project = app("s", { stacks: { s: "a b" }, legs: ["go a push b"] });

  it("is made with its button in one edit where there is none, and changes the leg that is there", () => {
    const made = linkToDoing(project, { place: "b" }, { name: "Back from B", label: "Back", move: { kind: "back" } });
    const after = applyEdit(project, made.edit);
    expect(made.edit.name).toBe("Back from B");
    expect(screen(after, "b")?.elements).toEqual([{ id: "back", kind: "button", label: "Back" }]);
    expect(after.legs.at(-1)).toEqual({ id: made.legId, from: "b", on: { kind: "tap", element: "back" }, move: { kind: "back" } });
    const again = linkToDoing(after, { place: "b", element: "back" }, { name: "Close", label: "Close", move: { kind: "close" } });
    expect(again.legId).toBe(made.legId);
    expect(applyEdit(after, again.edit).legs.at(-1)?.move).toEqual({ kind: "close" });
    expect(applyEdit(after, again.edit).screens).toEqual(after.screens);
  });
});

describe("an element that every screen has, given to each by itself", () => {
  it("goes to all but those that did without, its leg keeping its id on the first", () => {
    const project = app("s", { stacks: { s: "a b c" }, screens: { d: {} }, legs: ["help s push d"] });
    const shared = {
      ...project,
      containers: project.containers.map((one) => ({ ...one, elements: [{ id: "help", kind: "link" as const, label: "Help", except: ["b"] }] })),
    };
    const after = applyEdit(shared, spreadElement(shared, "s", "help"));
    const has = (id: string) => screen(after, id)?.elements.map((element) => element.id);
    expect([has("a"), has("b"), has("c")]).toEqual([["help"], [], ["help"]]);
    const legs = after.legs.filter(({ move }) => move && "to" in move && move.to === "d");
    expect(legs.map(({ from }) => from)).toEqual(["a", "c"]);
    expect(legs[0]?.id).toBe("help");
    expect(new Set(legs.map(({ id }) => id)).size).toBe(2);
  });
});

describe("pictures and their areas", () => {
  const project = app("s", {
    stacks: { s: "a b" },
    screens: { a: { elements: [{ id: "ok", kind: "button", label: "OK" }] }, b: { elements: [{ id: "ok", kind: "button", label: "OK" }] } },
  });
  const picture = (file: string): Picture => ({ file, size: [100, 200], holds: "screen", areas: [] });
  const area = { control: "ok", at: [10, 20, 30, 40] as [number, number, number, number] };
  const pictured = all(project, putPicture(project, "a", picture("a.png")), putPicture(project, "b", picture("b.png")));
  const of = (p: Project, id: string) => screen(p, id)?.pictures?.[0] as Picture;

  it("a screen without its last picture has no list of pictures left", () => {
    const without = applyEdit(pictured, removePicture(pictured, "a", "a.png"));
    expect(screen(without, "a")).toEqual(screen(project, "a"));
    expect(of(without, "b").file).toBe("b.png");
    const two = applyEdit(pictured, putPicture(pictured, "a", { ...picture("a-dark.png"), dark: true }));
    expect(screen(applyEdit(two, removePicture(two, "a", "a.png")), "a")?.pictures?.map(({ file }) => file)).toEqual(["a-dark.png"]);
  });

  it("an area is moved and deleted on its own picture, the control staying", () => {
    const drawn = applyEdit(pictured, addArea(pictured, "a", of(pictured, "a"), area));
    expect(of(drawn, "a").areas).toHaveLength(1);
    const [was] = of(drawn, "a").areas;
    if (!was) throw new Error("there is no area");
    const moved = applyEdit(drawn, changeArea(drawn, "a", of(drawn, "a"), was, { ...was, at: [1, 2, 3, 4] }, true));
    expect(of(moved, "a").areas.map(({ at }) => at)).toEqual([[1, 2, 3, 4]]);
    expect(changeArea(drawn, "a", of(drawn, "a"), was, { ...was, at: [1, 2, 3, 4] }, true).name).toContain("Move the area");
    const gone = applyEdit(drawn, removeArea(drawn, "a", of(drawn, "a"), was, true));
    expect(of(gone, "a").areas).toEqual([]);
    expect(screen(gone, "a")?.elements).toEqual(screen(project, "a")?.elements);
  });
});

describe("what is proposed and completed", () => {
  const project = app("s", {
    stacks: { s: "a b" },
    types: [
      {
        id: "hive",
        name: "hive",
        fields: [
          { name: "id", type: "text" },
          { name: "apiary", type: "text" },
        ],
        samples: [],
      },
      { id: "apiary", name: "apiary", fields: [{ name: "id", type: "text" }], samples: [] },
    ],
    screens: {
      a: { params: [{ name: "id", type: "text", required: true }], elements: [{ id: "rows", kind: "list", label: "Rows", of: "hive" }] },
      b: { params: [{ name: "hive", type: "hive", required: true }] },
    },
  });
  const from = (name: string, type: string, element?: string, required = true) => sourceFor(project, "a", element, { name, type, required });

  it("a parameter of the same name and type, the row, one of its fields, or the row that a field names", () => {
    expect(from("id", "text")).toBe("param.id");
    expect(from("id", "integer")).toBeUndefined();
    expect(from("hive", "hive", "rows")).toBe("item");
    expect(from("hiveId", "text", "rows")).toBe("item.id");
    expect(from("apiary", "text", "rows")).toBe("item.apiary");
    expect(from("apiaryId", "text", "rows")).toBe("item.apiary");
    expect(from("apiaryId", "integer", "rows")).toBeUndefined();
    expect(from("other", "text", "rows")).toBe("item.id");
    expect(from("other", "text", "rows", false)).toBeUndefined();
  });

  it("completes the fields of a record and of nothing else", () => {
    const inserts = (source: string, place = "b") => completions(source, source.length, placeScope(project, place)).map(({ insert }) => insert);
    expect(inserts("param.hive.")).toEqual(["id", "apiary"]);
    expect(inserts("param.hive.api")).toEqual(["apiary"]);
    expect(inserts("param.hive.id.")).toEqual([]);
    expect(inserts("param.constructor.")).toEqual([]);
    expect(inserts("param.id.", "a")).toEqual([]);
  });
});

it("a clip says where it comes from, if it is text, and holds what is really in it", () => {
  const project = app("s", { stacks: { s: "a b" }, legs: ["go a push b"] });
  const clip = copied(project, [{ kind: "place", id: "a" }]);
  const read = (change: object) => {
    const result = readClip(JSON.stringify({ ...clip, ...change }));
    if (!result.ok) throw new Error(result.message);
    return result.clip;
  };
  expect(read({ from: "project-1" }).from).toBe("project-1");
  expect("from" in read({ from: 7 })).toBe(false);
  expect(read({ places: ["a", "nobody", 7] }).places).toEqual(["a"]);
  expect("loose" in read({ loose: "nobody" })).toBe(false);
  expect(read({ origins: { a: "x", b: 7 } }).origins).toEqual({ a: "x" });
  expect(readClip("{}").ok).toBe(false);
  expect(readClip("null").ok).toBe(false);
});

describe("tabs and menus that are there", () => {
  const house = app("d", { drawers: { d: "s t" }, stacks: { s: "a", t: "b" } });
  const tabbed = app("t", { tabs: { t: "s u" }, stacks: { s: "a", u: "x" } });

  it("get one more for a new screen, said by what they are; from a screen, or from themselves", () => {
    const made = linkToNewLane(house, { place: "a" }, "Sheds");
    expect(made?.edit.name).toBe('Lead to the new menu entry "Sheds"');
    const after = made ? applyEdit(house, made.edit) : house;
    expect(after.containers.find(({ id }) => id === "d")?.members).toHaveLength(3);
    expect(linkToNewLane(tabbed, { place: "t" }, "Sheds")?.edit.name).toBe('Lead to the new tab "Sheds"');
    expect(linkToNewLane(app("a", {}), { place: "a" }, "Sheds")).toBeUndefined();
    expect(lanesAround(house, "d")).toEqual({ id: "d", kind: "drawer" });
    expect(lanesAround(tabbed, "x")).toEqual({ id: "t", kind: "tabs" });
  });

  it("taken apart, give what they had to each screen inside: the bar where it has none, the first leg its id", () => {
    const bar = { show: true, lead: "menu" as const };
    const shared = app("t", {
      tabs: { t: "s u" },
      stacks: { s: "a", u: "x" },
      screens: { y: {}, x: { bar: { show: false, lead: "none" } } },
      legs: ["more t:hold push y"],
    });
    const withBar = { ...shared, containers: shared.containers.map((one) => (one.id === "t" ? { ...one, bar } : one)) };
    const bars = (p: Project) => Object.fromEntries(spreadAll(p, "t").screens.map((one) => [one.id, "bar" in one ? one.bar : "none of its own"]));
    expect(bars(withBar)).toEqual({ a: bar, x: { show: false, lead: "none" }, y: "none of its own" });
    expect(bars(shared)).toEqual({ a: "none of its own", x: { show: false, lead: "none" }, y: "none of its own" });
    expect(spreadAll(withBar, "t").legs.map(({ id, from }) => `${id} ${from}`)).toEqual(["more a", expect.stringMatching(/ x$/)]);
  });
});

describe("what is wrong with a document", () => {
  const said = (change: object) => {
    const read = readProjectData({ ...app("a", {}), ...change });
    return read.ok ? [] : read.problems.map(problemLine);
  };

  it("is told by where, what was found, and what is expected", () => {
    expect(said({ name: 7 })).toEqual(["name: found 7; expected a string"]);
    expect(said({ screens: 7 })).toEqual(["screens: found 7; expected an array"]);
    expect(said({ containers: [{ id: "m", kind: "window" }] })[0]).toMatch(
      /^containers\[0\]\.kind: found "window"; expected one of "stack", "tabs", "drawer", "modal"$/,
    );
    expect(said({ legs: [{ id: "l", from: "a", on: { kind: "after", ms: -1 } }] })[0]).toMatch(/^legs\[0\]\.on\.ms: found -1; expected at least 0$/);
    expect(said({ legs: [{ id: "l", from: "a", on: "tap" }] })[0]).toMatch(/^legs\[0\]\.on: found "tap"; expected an object$/);
    expect(said({ format: "etape/9" })[0]).toContain('format: found "etape/9"; expected "etape/1": this document was written by a newer Etape');
    expect(said({ legs: [{ id: "l", from: "a", on: { kind: "tap", element: "e" }, set: "x" }] })).toEqual(['legs[0].set: found "x"; expected an object']);
    expect(said({ facts: [7] })).toEqual(["facts[0]: found 7; expected an object"]);
  });
});

it("an element that is there gets its leg in one edit, and no second button", () => {
  const bare = app("s", { stacks: { s: "a b" }, screens: { a: { elements: [{ id: "ok", kind: "button", label: "OK" }] } } });
  const made = linkToDoing(bare, { place: "a", element: "ok" }, { name: "Back", label: "OK", move: { kind: "back" } });
  const done = applyEdit(bare, made.edit);
  expect(screen(done, "a")?.elements).toEqual(screen(bare, "a")?.elements);
  expect(done.legs).toEqual([{ id: made.legId, from: "a", on: { kind: "tap", element: "ok" }, move: { kind: "back" } }]);
});

describe("copying a part of a screen", () => {
  const project = app("s", { stacks: { s: "a b" }, legs: ["go a push b", "more a push b", "wait a:after(500) push b"] });

  it("an element comes with its legs, a leg with its element, a leg without one alone", () => {
    const holds = (...chosen: Parameters<typeof copied>[1]) => {
      const { document, loose } = copied(project, chosen);
      return [document.screens.find(({ id }) => id === loose)?.elements.map(({ id }) => id), document.legs.map(({ id }) => id)];
    };
    expect(holds({ kind: "element", place: "a", id: "go" })).toEqual([["go"], ["go"]]);
    expect(holds({ kind: "leg", id: "more" })).toEqual([["more"], ["more"]]);
    expect(holds({ kind: "leg", id: "wait" })).toEqual([[], ["wait"]]);
    expect(holds({ kind: "element", place: "a", id: "go" }, { kind: "leg", id: "go" })).toEqual([["go"], ["go"]]);
  });

  it("it is put on what is chosen, and says so where nothing is", () => {
    const clip = copied(project, [{ kind: "element", place: "a", id: "go" }]);
    const onto = pasted(project, clip, ["b"]);
    expect(screen(onto.project, "b")?.elements.map(({ label }) => label)).toEqual(["go"]);
    const nowhere = pasted(project, clip, []);
    expect(nowhere.says).toContain("Nothing is chosen that elements could be put on.");
  });
});

describe("small words and defaults", () => {
  it("a new drawer keeps what its entries show, and Back leaves it", () => {
    expect(newContainer("drawer", "menu", "Menu", ["a", "b"])).toEqual({
      kind: "drawer",
      id: "menu",
      name: "Menu",
      start: "a",
      members: ["a", "b"],
      side: "left",
      over: true,
      pinnedFrom: "never",
      closeOn: ["outside", "swipe", "back"],
      onBack: "leave",
      keeps: true,
    });
  });

  it("a choice of one value stays it", () => {
    const project = app("a", { facts: [{ id: "f", type: "choice", values: ["only"], initial: "only", source: "app" }] });
    expect(applyEdit(project, changeFact("f", { persists: true })).facts[0]).toMatchObject({ values: ["only"], initial: "only" });
  });

  it("planning counts screens and legs together", () => {
    const name = (screens: string[], legs: string[], planned: boolean) => setPlanned({ screens, legs }, planned).name;
    expect([name(["a"], [], true), name(["a"], ["b", "c"], true), name(["a", "b"], ["c"], false)]).toEqual([
      "Only plan it",
      "Only plan 3 of them",
      "Make real 3 of them",
    ]);
  });

  it("a screen on a stack needs none made, nor does the stack itself; one in tabs gets one", () => {
    const project = app("t", { tabs: { t: "s x" }, stacks: { s: "a b" } });
    expect([stackFor(project, "a"), stackFor(project, "s"), stackFor(project, "t")]).toEqual([{ stack: "s" }, { stack: "s" }, { stack: "s" }]);
    const made = stackFor(project, "x");
    expect(made.edit && made.stack && lookup(applyEdit(project, made.edit)).owners.get("x")?.id).toBe(made.stack);
  });

  it("what begins with what was typed is completed before what has it inside", () => {
    const scope = { names: { fact: { fields: { kiwi: "text", width: "text", window: "text", other: "text" } } }, records: {} } as unknown as Parameters<
      typeof completions
    >[2];
    expect(completions("fact.wi", 7, scope).map(({ insert }) => insert)).toEqual(["width", "window", "kiwi"]);
  });

  it("a name begins with what was typed where a word of it does, not inside of one", () => {
    expect([
      begins("Shopping list", "pin"),
      begins("Shopping list", "li"),
      begins("Shopping list", "SHOP"),
      begins("Shopping list", "x"),
      begins("Any", ""),
    ]).toEqual([false, true, true, false, true]);
  });

  it("a rule's meeting names only what there is of it", () => {
    const project = app("s", { stacks: { s: "a b" }, legs: ["on a push b"] });
    expect(metWords(project, { legs: ["on"] })).toBe('uses "on" on "a"');
    expect(metWords(project, { places: ["a"] })).toBe('sees "a"');
    expect(metWords(project, { places: ["a"], legs: ["on"] })).toBe('sees "a" or uses "on" on "a"');
  });

  it("an area is deleted from all pictures that have it, or from one alone", () => {
    const project = app("s", { stacks: { s: "a" }, screens: { a: { elements: [{ id: "go", kind: "button", label: "Go" }] } } });
    const area = { control: "go", at: [0, 0, 10, 10] } as Area;
    const picture = (file: string): Picture => ({ file, size: [100, 200], holds: "screen", areas: [] });
    const two = [picture("a.png"), { ...picture("a-dark.png"), dark: true }].reduce(
      (p, one) => applyEdit(p, putPicture(p, "a", { ...one, areas: [area] })),
      project,
    );
    const files = (p: Project) => screen(p, "a")?.pictures?.map(({ file, areas }) => [file, areas.length]);
    const [first] = screen(two, "a")?.pictures ?? [];
    if (!first) throw new Error("there is no picture");
    expect(files(two)).toEqual([
      ["a.png", 1],
      ["a-dark.png", 1],
    ]);
    expect(files(applyEdit(two, removeArea(two, "a", first, area)))).toEqual([
      ["a.png", 0],
      ["a-dark.png", 0],
    ]);
    expect(files(applyEdit(two, removeArea(two, "a", first, area, true)))).toEqual([
      ["a.png", 0],
      ["a-dark.png", 1],
    ]);
  });
});
