import { describe, expect, it } from "vitest";
import { takersOf } from "../../../src/core/insight/takers.ts";
import { renameField } from "../../../src/core/model/edits/fields.ts";
import { handBack } from "../../../src/core/model/edits/give.ts";
import { applyEdit, invertEdit } from "../../../src/core/model/edits/kinds.ts";
import { dropParameter } from "../../../src/core/model/edits/params.ts";
import { renameId } from "../../../src/core/model/edits/rename.ts";
import { giveOf, lookup } from "../../../src/core/model/lookup.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { writeProject } from "../../../src/core/model/write.ts";
import { app } from "../../vectors/app.ts";

const tint = { name: "tint", type: "text", required: false };
const picking = (more: Parameters<typeof app>[1] = {}, give = "give.tint=item.name") =>
  app("s", {
    stacks: { s: "form other", sheet: "paints" },
    modals: { picker: "sheet" },
    types: [{ id: "paint", fields: [{ name: "name", type: "text" }], samples: [{ name: "ochre" }] }],
    ...more,
    screens: { form: { params: [tint] }, paints: { elements: [{ id: "rows", kind: "list", label: "Paints", of: "paint" }] }, ...more.screens },
    legs: ["choose form open picker", `picked paints:on(rows) close ${give}`.trim(), ...(more.legs ?? [])],
  });
const given = (project: Project, leg = "picked") => giveOf(lookup(project).legs.get(leg));

describe("what is handed back", () => {
  it("is written and read again, after what the move says otherwise", () => {
    const project = picking();
    const read = readProject(writeProject(project));
    expect(read.ok && read.project).toEqual(project);
    expect(readProject(writeProject(project).replace('"give":', '"gives":'))).toMatchObject({ ok: false });
  });

  it("follows the parameter that it is for, and the field that it is read from", () => {
    const renamed = applyEdit(picking(), renameId({ kind: "param", screen: "form", id: "tint" }, "colour"));
    expect(given(renamed)).toEqual({ colour: "item.name" });
    expect(given(applyEdit(picking(), renameField("paint", "name", "title")))).toEqual({ tint: "item.title" });
  });

  it("stays for others who take it by the same name, unless it says to whom it goes", () => {
    const both = { screens: { form: { params: [tint] }, other: { params: [tint] } } };
    const rename = renameId({ kind: "param", screen: "form", id: "tint" }, "colour");
    expect(given(applyEdit(picking(both), rename))).toEqual({ tint: "item.name" });
    const named = picking({ ...both, legs: ["to other push form", "home other return form give.tint='x'"] });
    expect(given(applyEdit(named, rename), "home")).toEqual({ colour: "'x'" });
  });

  it("goes with the last parameter that takes it, and comes back when that is undone", () => {
    const project = picking();
    const drop = dropParameter(project, "form", "tint");
    const dropped = applyEdit(project, drop);
    expect(given(dropped)).toBeUndefined();
    expect(lookup(dropped).legs.get("picked")?.move).toEqual({ kind: "close" });
    expect(applyEdit(dropped, invertEdit(project, drop))).toEqual(project);
    const both = picking({ screens: { form: { params: [tint] }, other: { params: [tint] } } });
    expect(given(applyEdit(both, dropParameter(both, "form", "tint")))).toEqual({ tint: "item.name" });
  });

  it("can be made in one edit, with the parameter that takes it; it begins as the key of the row", () => {
    const project = picking({ screens: { form: {} } }, "");
    const leg = lookup(project).legs.get("picked");
    const takers = leg ? takersOf(project, leg).map(({ id }) => id) : [];
    expect(takers).toEqual(["form"]);
    const edit = handBack(project, "picked", takers, "paint");
    const made = applyEdit(project, edit);
    expect(given(made)).toEqual({ paint: "item.name" });
    expect(lookup(made).screens.get("form")?.params).toEqual([{ name: "paint", type: "text", required: false }]);
    expect(applyEdit(made, invertEdit(project, edit))).toEqual(project);
  });
});
