import { describe, expect, test } from "vitest";
import { addedWhere } from "../../src/app/features/outline/tree.ts";
import { applyEdit } from "../../src/core/model/edits/kinds.ts";
import { addScreenBeside } from "../../src/core/model/edits/link.ts";
import { lookup } from "../../src/core/model/lookup.ts";
import { app } from "../vectors/app.ts";

describe("what is said of a new screen before it is added", () => {
  const project = app("main", { tabs: { main: "one menu page" }, drawers: { menu: "help" }, stacks: { one: "list" } });

  test.each([
    ["main", " as a tab of “main”", "main"],
    ["page", " as a tab beside “page”", "main"],
    ["one", " in “one”", "one"],
    ["list", " beside “list”", "one"],
    ["menu", " as an item of “menu”", "menu"],
    ["help", " as an item beside “help”", "menu"],
  ])("with %s chosen: %s", (chosen, words, owner) => {
    const { edit, screenId } = addScreenBeside(project, chosen, "New");
    expect([addedWhere(project, chosen), lookup(applyEdit(project, edit)).owners.get(screenId)?.id]).toEqual([words, owner]);
  });
});
