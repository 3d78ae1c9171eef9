import { describe, expect, it } from "vitest";
import { fromLines } from "../../../src/core/lines/build.ts";
import { emptyProject } from "../../../src/core/model/edits/add.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { addArea } from "../../../src/core/model/edits/pictures.ts";
import { pictureFor } from "../../../src/core/model/pictures.ts";
import { problemsAfterEdit } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { type Incoming, takePictures } from "../../../src/core/pictures/take.ts";

const phone = (name: string, size: [number, number] = [390, 844]): Incoming => ({ name, kind: "png", size });
const shop = (): Project => {
  const made = fromLines("app Shop\nShop\n  Goods (hub): Cart > Cart\n  Cart: Pay > Paid\n  Paid", "Shop");
  if (!made.ok) throw new Error("the lines do not read");
  return made.project;
};
const take = (project: Project, pictures: Incoming[], more: Parameters<typeof takePictures>[2] = {}) => {
  const taken = takePictures(project, pictures, more);
  const after = applyEdit(project, taken.edit);
  expect(problemsAfterEdit(project, after)).toEqual([]);
  return { ...taken, after };
};
const filesIn = (project: Project) => Object.fromEntries(project.screens.map((s) => [s.name, s.pictures?.map(({ file }) => file)]));

describe("pictures that come in", () => {
  it("make an app of an empty project: the first is where it starts, and all are in one stack", () => {
    const { after, made, given } = take(emptyProject("App"), [phone("01 Welcome.png"), phone("02_sign-in.PNG"), phone("03 Home@2x.jpg")]);
    expect(after.screens.map(({ name }) => name)).toEqual(["Welcome", "Sign in", "Home"]);
    expect([made.length, given.length]).toEqual([2, 1]);
    expect(after.containers).toMatchObject([{ kind: "stack", start: "welcome", members: ["welcome", "signIn", "home"] }]);
    expect(filesIn(after)).toEqual({ Welcome: ["welcome.png"], "Sign in": ["signIn.png"], Home: ["home.png"] });
  });

  it("that are not numbered begin with the one that is called like a beginning, and keep their files in the order given", () => {
    const { after, files } = take(emptyProject("App"), [phone("Basket.png"), phone("Home.png"), phone("Welcome.png"), phone("Welcome dark.png")]);
    expect(after.screens.map(({ name }) => name)).toEqual(["Welcome", "Basket", "Home"]);
    expect(after.screens[0]?.pictures?.map(({ file }) => file)).toEqual(["welcome.png", "welcome-dark.png"]);
    expect(files).toEqual(["basket.png", "home.png", "welcome.png", "welcome-dark.png"]);
    expect(take(emptyProject("App"), [phone("01 Basket.png"), phone("02 Home.png")]).after.screens[0]?.name).toBe("Basket");
  });

  it("go to the screens of their names, the dark and the wide beside the others; new names make screens", () => {
    const { after, made } = take(shop(), [phone("goods.png"), phone("Goods dark.png"), phone("goods-wide.webp", [1200, 800]), phone("Help.png")], {
      beside: "cart",
    });
    expect(made).toEqual(["help"]);
    expect(after.screens.find(({ id }) => id === "goods")?.pictures).toMatchObject([
      { file: "goods.png", holds: "screen" },
      { file: "goods-dark.png", dark: true },
      { file: "goods-wide.png", for: "wide" },
    ]);
    expect(after.containers[0]?.members).toContain("help");
  });

  it("of another shape than the screen's picture is for widths of that shape", () => {
    const { after } = take(take(shop(), [phone("goods.png")]).after, [phone("goods.png", [1200, 800])]);
    expect(after.screens[0]?.pictures?.map((p) => [p.file, p.for])).toEqual([
      ["goods.png", undefined],
      ["goods-wide.png", "wide"],
    ]);
  });

  it("in a new version replace by name under a new file, keep their areas, larger or smaller, and say which no longer fit", () => {
    const first = take(shop(), [phone("cart.png")]).after;
    const picture = first.screens[1]?.pictures?.[0];
    if (!picture) throw new Error("there is a picture");
    const withArea = applyEdit(first, addArea(first, "cart", picture, { at: [20, 700, 350, 52], control: "pay" }));
    const larger = take(withArea, [phone("cart.png", [780, 1688])]);
    expect(larger.says).toEqual([]);
    expect(larger.after.screens[1]?.pictures).toMatchObject([{ file: "cart-2.png", size: [780, 1688], areas: [{ at: [40, 1400, 700, 104], control: "pay" }] }]);
    const shorter = take(withArea, [phone("cart.png", [390, 640])]);
    expect(shorter.says).toEqual(['One area of "Cart" no longer fits its new picture.']);
    expect(shorter.after.screens[1]?.pictures?.[0]?.areas).toHaveLength(1);
  });

  it("for the dark take over the areas of the light one", () => {
    const first = take(shop(), [phone("cart.png")]).after;
    const picture = first.screens[1]?.pictures?.[0];
    if (!picture) throw new Error("there is a picture");
    const withArea = applyEdit(first, addArea(first, "cart", picture, { at: [20, 700, 350, 52], control: "pay" }));
    const { after } = take(withArea, [phone("Cart night.png")]);
    expect(after.screens[1]?.pictures?.[1]).toMatchObject({ file: "cart-dark.png", dark: true, areas: [{ at: [20, 700, 350, 52], control: "pay" }] });
  });

  it("put in the place of a certain picture are its new version, whatever their name and shape", () => {
    const first = take(shop(), [phone("cart.png"), phone("Cart dark.png")]).after;
    const { after, edit } = take(first, [phone("IMG_1.png", [1200, 800])], { onto: "cart", instead: "cart-dark.png" });
    expect(after.screens[1]?.pictures).toMatchObject([{ file: "cart.png" }, { file: "cart-dark-2.png", dark: true, size: [1200, 800] }]);
    expect(edit.name).toBe('Set the picture of "Cart"');
  });

  it("put onto a screen are its own, whatever they are called; several go by their names", () => {
    expect(filesIn(take(shop(), [phone("IMG_2041.png")], { onto: "paid" }).after)).toMatchObject({ Paid: ["paid.png"] });
    expect(filesIn(take(shop(), [phone("goods.png"), phone("cart.png")], { onto: "paid" }).after)).toEqual({
      Goods: ["goods.png"],
      Cart: ["cart.png"],
      Paid: undefined,
    });
  });

  it("never take the file of one that an earlier version of the document has", () => {
    expect(take(shop(), [phone("cart.png")], { taken: ["cart.png", "cart-2.png"] }).files).toEqual(["cart-3.png"]);
  });

  it("are told by a screen whose name ends like a width or the dark as its own, not as another's", () => {
    const made = fromLines("app A\nA\n  Start: Go > Go dark\n  Go dark", "A");
    if (!made.ok) throw new Error("the lines do not read");
    expect(filesIn(take(made.project, [phone("Go dark.png")]).after)).toEqual({ Start: undefined, "Go dark": ["goDark.png"] });
  });
});

describe("the picture that is shown", () => {
  const screen = (...pictures: Array<{ file: string; for?: "narrow" | "middle" | "wide"; dark?: boolean }>) => ({
    ...(shop().screens[0] as Project["screens"][number]),
    pictures: pictures.map((p) => ({ size: [1, 1] as [number, number], holds: "screen" as const, areas: [], ...p })),
  });
  it("is the one for the width, else the one for any, else another; of these the one for the theme", () => {
    const all = screen({ file: "a" }, { file: "ad", dark: true }, { file: "w", for: "wide" }, { file: "nd", for: "narrow", dark: true });
    const shown = (width: "narrow" | "middle" | "wide", dark: boolean) => pictureFor(all, { width, dark })?.file;
    expect([shown("middle", false), shown("middle", true), shown("wide", false), shown("wide", true), shown("narrow", false)]).toEqual([
      "a",
      "ad",
      "w",
      "w",
      "nd",
    ]);
    expect(pictureFor(screen({ file: "w", for: "wide" }), { width: "narrow", dark: true })?.file).toBe("w");
    expect(pictureFor(screen(), { width: "narrow", dark: true })).toBeUndefined();
  });
});
