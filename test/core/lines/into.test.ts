import { describe, expect, it } from "vitest";
import { linesInto } from "../../../src/core/lines/into.ts";
import { isLines } from "../../../src/core/lines/isLines.ts";
import { emptyProject } from "../../../src/core/model/edits/add.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { lookup, nameOf } from "../../../src/core/model/lookup.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const into = (project: Project, text: string, beside?: string) => {
  const made = linesInto(project, text, beside);
  if (!made.ok) throw new Error(made.problems.map(({ message }) => message).join("; "));
  return { project: applyEdit(project, made.edit), makes: made.makes, last: made.last };
};
const moves = (project: Project) =>
  project.legs.map(({ from, move }) => `${nameOf(project, from)} ${move?.kind} ${move && "to" in move ? nameOf(project, move.to) : ""}`.trim());

describe("lines into a project", () => {
  it("are told from names", () => {
    for (const text of ["Plots: New > New plot", "Yard (tabs)", "Plots > Plot"]) expect(isLines(text), text).toBe(true);
    for (const text of ["Plots", "Plots, Plot", "Order (old)", '"Tour: hives"']) expect(isLines(text), text).toBe(false);
  });

  it("make all of one in which nothing was built, and keep its name unless they name it", () => {
    const empty = emptyProject("Mine");
    expect(into(empty, "Plots: New > New plot").project).toMatchObject({ name: "Mine" });
    expect(into(empty, "app Other\nPlots").project).toMatchObject({ name: "Other", root: "plots" });
    expect(into(empty, "Plots").project.screens.map(({ name }) => name)).toEqual(["Plots"]);
  });

  it("find what is there by name, add what is not, and double nothing", () => {
    const shop = app("s", { stacks: { s: "home cart" }, modals: { help: "faq" } });
    const named = { ...shop, screens: shop.screens.map((one) => ({ ...one, name: one.id === "home" ? "Home page" : one.name })) };
    const { project, makes } = into(named, "Home page: Cart icon > cart, Help > help, Offers list > Offers(id = item.id)\nOffers(id): Buy > cart");
    expect(project.screens.map(({ name }) => name)).toEqual(["Home page", "cart", "faq", "Offers"]);
    expect(moves(project)).toEqual(["Home page push cart", "Home page open help", "Home page push Offers", "Offers push cart"]);
    expect(lookup(project).owners.get("offers")?.id).toBe("s");
    expect(makes).toEqual(["screens “Offers”", "4 elements", "4 legs"]);
    const again = into(project, "Home page: Cart icon > cart");
    expect([again.makes, again.project.legs.length]).toEqual([[], 4]);
  });

  it("try the way where the element is met, unless they name it", () => {
    const note = app("s", { stacks: { s: "home" }, modals: { m: "note" }, legs: ["new home open m"] });
    expect(moves(into(note, "note: Done > home").project)).toContain("note close");
    expect(moves(into(note, "note: Done > home (reset)").project)).toContain("note reset home");
  });

  it("say why not where they hold containers and the project is begun", () => {
    const made = linesInto(app("s", { stacks: { s: "a b" }, legs: ["ab a push b"] }), "Yard (tabs)\n  One\n  Two");
    expect(made).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining("“Yard” is a set of tabs") }] });
  });
});
