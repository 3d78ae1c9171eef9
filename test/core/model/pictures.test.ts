import { describe, expect, it } from "vitest";
import { lostArea } from "../../../src/core/check/findings/lostArea.ts";
import { fromLines } from "../../../src/core/lines/build.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { addArea, changeArea, keptTogether, removeArea } from "../../../src/core/model/edits/pictures.ts";
import { removeElement, removePlaces } from "../../../src/core/model/edits/remove.ts";
import { renameId } from "../../../src/core/model/edits/rename.ts";
import { shareElement, spreadElement } from "../../../src/core/model/edits/share.ts";
import { elementsOf, lookup } from "../../../src/core/model/lookup.ts";
import { controlsOf } from "../../../src/core/model/pictures.ts";
import { readProjectData } from "../../../src/core/model/read.ts";
import type { Area, Picture, Project } from "../../../src/core/model/schema.ts";
import { pick, seeded } from "../../random/documents.ts";
import { withPictures } from "../../random/pictures.ts";
import { wholeDocument } from "../../random/whole.ts";

const picture = (file: string, areas: Area[] = [], more: Partial<Picture> = {}): Picture => ({ file, size: [390, 844], holds: "screen", areas, ...more });
const made = fromLines(
  `app Club
Club (drawer)
  Main (tabs): Help icon (in bar, not on Fees) > Help
    Days
      Days (hub): Day list > Day(dayId = item.id)
      Day(dayId): Join in > Join
    Fees (hub): Pay > nothing
  Rules
  Help
Join (sheet): Name field, Send > close`,
  "Club",
);
if (!made.ok) throw new Error(JSON.stringify(made.problems));
const club: Project = {
  ...made.project,
  screens: made.project.screens.map((s) => ({ ...s, pictures: [picture(`${s.id}.png`)] })),
};
const screenOf = (project: Project, name: string) => project.screens.find((s) => s.name === name) as Project["screens"][number];
const pictureOf = (project: Project, name: string) => screenOf(project, name).pictures?.[0] as Picture;
const areasOf = (project: Project, name: string) => pictureOf(project, name).areas.map(({ at, control }) => `${control} ${at.join(" ")}`);
const at = (...box: Area["at"]) => box;

describe("what an area can stand for", () => {
  it("is every control of the screen: its elements, those around it, the lead, the ×, tabs and members of drawers", () => {
    const named = (name: string) => controlsOf(club, screenOf(club, name).id).map(({ control }) => control);
    expect(named("Days")).toEqual(["dayList", "help", "lead", "tab:days", "tab:fees", "pick:main", "pick:rules", "pick:help"]);
    expect(named("Fees")).not.toContain("help");
    expect(named("Join")).toEqual(["name", "send", "lead", "close"]);
    expect(controlsOf(club, "nowhere")).toEqual([]);
  });
});

describe("areas", () => {
  const withHelp = applyEdit(club, addArea(club, screenOf(club, "Days").id, pictureOf(club, "Days"), { at: at(340, 40, 40, 40), control: "help" }, "days"));

  it("are put on all pictures alike in one step: of the same size in the same container, that have the control and no area for it", () => {
    expect(areasOf(withHelp, "Days")).toEqual(["help 340 40 40 40"]);
    expect(areasOf(withHelp, "Day")).toEqual(["help 340 40 40 40"]);
    expect([areasOf(withHelp, "Fees"), areasOf(withHelp, "Rules")]).toEqual([[], []]);
  });

  it("of what is shared stay together, until one of them is moved alone", () => {
    const id = screenOf(withHelp, "Day").id;
    const [area] = pictureOf(withHelp, "Day").areas as [Area];
    const moved = applyEdit(withHelp, changeArea(withHelp, id, pictureOf(withHelp, "Day"), area, { ...area, at: at(330, 40, 40, 40) }));
    expect([areasOf(moved, "Days"), areasOf(moved, "Day")]).toEqual([["help 330 40 40 40"], ["help 330 40 40 40"]]);
    const alone = applyEdit(withHelp, changeArea(withHelp, id, pictureOf(withHelp, "Day"), area, { ...area, at: at(0, 0, 40, 40) }, true));
    expect([areasOf(alone, "Days"), areasOf(alone, "Day")]).toEqual([["help 340 40 40 40"], ["help 0 0 40 40"]]);
    expect(keptTogether(alone, id, pictureOf(alone, "Day"), pictureOf(alone, "Day").areas[0] as Area)).toHaveLength(1);
    expect(areasOf(applyEdit(withHelp, removeArea(withHelp, id, pictureOf(withHelp, "Day"), area)), "Days")).toEqual([]);
  });

  it("that somebody else has moved meanwhile do not come back beside themselves", () => {
    const { id } = screenOf(withHelp, "Day");
    const [area] = pictureOf(withHelp, "Day").areas as [Area];
    const to = (x: number) => changeArea(withHelp, id, pictureOf(withHelp, "Day"), area, { ...area, at: at(x, 40, 40, 40) });
    expect(areasOf(applyEdit(applyEdit(withHelp, to(300)), to(200)), "Day")).toEqual(["help 300 40 40 40"]);
  });

  it("of a screen's own control are on all of its pictures of one size, and on no other screen's", () => {
    const { id } = screenOf(club, "Day");
    const two: Project = {
      ...club,
      screens: club.screens.map((s) => (s.id === id ? { ...s, pictures: [picture("d.png"), picture("dd.png", [], { dark: true })] } : s)),
    };
    const one = applyEdit(two, addArea(two, id, pictureOf(two, "Day"), { at: at(1, 2, 3, 4), control: "joinIn" }));
    expect(screenOf(one, "Day").pictures?.map(({ areas }) => areas.length)).toEqual([1, 1]);
    const [area] = pictureOf(one, "Day").areas as [Area];
    const moved = applyEdit(one, changeArea(one, id, pictureOf(one, "Day"), area, { ...area, at: at(9, 9, 9, 9) }));
    expect(screenOf(moved, "Day").pictures?.map(({ areas }) => areas[0]?.at)).toEqual([at(9, 9, 9, 9), at(9, 9, 9, 9)]);
  });

  it("follow what they stand for: renamed, shared, put on each screen; and go with it", () => {
    const on = screenOf(withHelp, "Day").id;
    expect(areasOf(applyEdit(withHelp, renameId({ kind: "element", place: "main", id: "help" }, "aid")), "Day")).toEqual(["aid 340 40 40 40"]);
    expect(areasOf(applyEdit(withHelp, spreadElement(withHelp, "main", "help")), "Day")[0]).toMatch(/^help/);
    expect(areasOf(applyEdit(withHelp, removeElement(withHelp, "main", "help")), "Day")).toEqual([]);
    const own = applyEdit(club, addArea(club, on, pictureOf(club, "Day"), { at: at(1, 1, 9, 9), control: "joinIn" }));
    const shared = applyEdit(own, shareElement(own, on, "joinIn", "days"));
    expect(areasOf(shared, "Day")).toEqual([`${elementsOf(shared, "days")[0]?.id} 1 1 9 9`]);
    const tab = applyEdit(club, addArea(club, on, pictureOf(club, "Day"), { at: at(1, 1, 9, 9), control: "tab:fees" }));
    expect(areasOf(applyEdit(tab, renameId({ kind: "place", id: "fees" }, "dues")), "Day")).toEqual(["tab:dues 1 1 9 9"]);
    expect(areasOf(applyEdit(tab, removePlaces(tab, ["fees"])), "Day")).toEqual([]);
  });

  it("are never lost by a change of ids, or by deleting, sharing or spreading what is on a screen, on random documents", () => {
    const tried: Record<string, number> = {};
    for (let seed = 0; seed < 300; seed++) {
      const random = seeded(seed);
      const project = withPictures(random, wholeDocument(seed));
      const lost = (p: Project) => (lostArea.inDocument?.(p, new Set()) ?? []).length;
      expect(lost(project), `seed ${seed}`).toBe(0);
      const place = pick(random, [...project.screens, ...project.containers]).id;
      const element = pick(random, elementsOf(project, place))?.id;
      // What a drawer has stands in the drawer, and on no screen; a start that is no member shows a screen of elsewhere.
      const around = lookup(project).owners.get(place);
      const owner = around?.kind === "drawer" || project.containers.some((c) => !c.members.includes(c.start)) ? undefined : around?.id;
      const screen = project.screens.some((s) => s.id === place);
      const edits = {
        place: renameId({ kind: "place", id: place }, "another1"),
        ...(element === undefined
          ? {}
          : { element: renameId({ kind: "element", place, id: element }, "another2"), removeElement: removeElement(project, place, element) }),
        ...(element !== undefined && screen && owner !== undefined ? { share: shareElement(project, place, element, owner) } : {}),
        ...(element !== undefined && !screen ? { spread: spreadElement(project, place, element) } : {}),
      };
      for (const [what, edit] of Object.entries(edits)) {
        tried[what] = (tried[what] ?? 0) + 1;
        expect(lost(applyEdit(project, edit)), `${what}, seed ${seed}`).toBe(0);
      }
    }
    for (const what of ["place", "element", "removeElement", "share", "spread"]) expect(tried[what], what).toBeGreaterThan(10);
  });
});

describe("a document with pictures", () => {
  const reading = (change: object) => {
    const data = JSON.parse(JSON.stringify(club));
    Object.assign(data.screens[0].pictures[0], change);
    const read = readProjectData(data);
    return read.ok ? [] : read.problems.map(({ path, expected }) => `${path}: ${expected}`);
  };
  it("reads, and what is wrong with a picture is said with its place", () => {
    expect(reading({})).toEqual([]);
    expect(reading({ file: "deep/er/home.png" })).toEqual([]);
    const path = 'screens[0].pictures[0].file: a path below the folder of the pictures, such as "home.png"';
    for (const file of ["../x.png", "/x.png", "a/../b.png", "c:\\x.png", "a//b.png", "", ".", "a\u0000b", "http://x/y.png"])
      expect(reading({ file }), file).toEqual([path]);
    expect(reading({ size: [0, 5000] })).toEqual(["screens[0].pictures[0].size[0]: at least 1", "screens[0].pictures[0].size[1]: at most 4096"]);
    expect(reading({ areas: [{ at: [1, 2, 0, 4], control: "Bad id" }] }).map((line) => line.split(":")[0])).toEqual([
      "screens[0].pictures[0].areas[0].at[2]",
      "screens[0].pictures[0].areas[0].control",
    ]);
    expect(reading({ holds: "half" })).toEqual(['screens[0].pictures[0].holds: one of "body", "screen"']);
  });
});
