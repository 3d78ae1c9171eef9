import { z } from "zod";
import { PARTS, type Project, ProjectSchema } from "../../src/core/model/schema.ts";
import { app } from "../vectors/app.ts";
import { openDocument, typeInPalette, unfold } from "./open.ts";
import { expect, type Locator, type Page, test } from "./test.ts";

/**
 * Every field that the model knows has a control on the page. Each row names a field, chooses what has it, uses the control by its label
 * and says what stands in the document afterwards; the rows together must be all fields of the schema, so that a new one fails here.
 */
const DOCUMENT: Project = {
  ...app("d", {
    drawers: { d: "t about" },
    tabs: { t: "s u" },
    stacks: { s: "list one two", u: ["news", { elements: [{ id: "help", kind: "button", label: "Help" }] }], steps: "edit more" },
    modals: { sheet: "steps", ask: "sure" },
    facts: [
      { id: "member", type: "boolean", initial: false, source: "app" },
      { id: "plan", type: "choice", values: ["free", "paid"], initial: "free", source: "app" },
    ],
    types: [
      {
        id: "plot",
        fields: [
          { name: "id", type: "text" },
          { name: "size", type: "integer" },
        ],
        samples: [
          { id: "north", size: 1 },
          { id: "south", size: 2 },
        ],
      },
    ],
    screens: {
      list: {
        elements: [
          { id: "rows", kind: "list", label: "Rows" },
          { id: "go", kind: "button", label: "Go" },
        ],
      },
      one: {
        params: [
          { name: "plotId", type: "text", required: true },
          { name: "size", type: "integer", required: false },
        ],
        pages: { over: "plot", by: "plotId" },
        elements: [{ id: "picture", kind: "image", label: "Picture" }],
      },
      two: { params: [{ name: "plot", type: "plot", required: false }] },
      edit: { params: [{ name: "plotId", type: "text", required: false }] },
      news: { elements: [{ id: "photo", kind: "image", label: "Photo" }] },
    },
    legs: [
      "push list push one pass.plotId='north'",
      "replace list replace one pass.plotId='north'",
      "reset list reset one pass.plotId='north'",
      "return two return one pass.plotId='north'",
      "open list open sheet pass.plotId='north'",
      "close edit close",
      "select list select u",
      "menu list menu",
      "leave list leave",
      "back one back",
      "up one up",
      "held sure proceed",
      "carried list push news",
      "wait two:after(500) push one pass.plotId='north'",
      "flick two:swipe(left) push one pass.plotId='north'",
      "guard edit:depart open ask",
      "greet about:arrive push one pass.plotId='north'",
    ],
    entrances: [{ id: "door", name: "Door", kind: "link", to: "one", warm: "rebuild", pattern: "/plots/{plotId}", when: "fact.member" }],
  }),
};

type Row = {
  /** The field, as `Part.field` or `Part.kind.field`. */
  field: string;
  on: (page: Page) => Promise<unknown>;
  use: (page: Page) => Promise<unknown>;
  /** What stands in the document then. */
  gives: (project: Project) => unknown;
  is: unknown;
};

const inspector = (page: Page) => page.getByLabel("Inspector");
const place = (id: string) => (page: Page) => page.locator(`[role=treeitem][data-key="${id}"]`).click();
const element = (of: string, id: string) => async (page: Page) => {
  await place(of)(page);
  await page.locator(`[role=treeitem][data-key="${of} ${id}"]`).click();
};
/** A leg is chosen by name in the palette. */
const leg = (id: string) => async (page: Page) => {
  const [from = "", said = ""] = LEGS[id] ?? [];
  await typeInPalette(page, `${from} ${said} leg`);
  await page
    .getByRole("option")
    .filter({ hasText: new RegExp(`^${from} · ${said}.*leg$`) })
    .first()
    .click();
  await expect(inspector(page).getByRole("button", { name: `Change the id ${id}` })).toBeVisible();
};
const LEGS: Record<string, [from: string, said: string]> = {
  ...Object.fromEntries(["push", "replace", "reset", "open", "select", "menu", "leave", "carried"].map((id) => [id, ["list", id]])),
  ...Object.fromEntries(["back", "up"].map((id) => [id, ["one", id]])),
  return: ["two", "return"],
  close: ["edit", "close"],
  held: ["sure", "held"],
  wait: ["two", "after 500 ms"],
  flick: ["two", "swipe left"],
  guard: ["edit", "on departing"],
  greet: ["about", "on arriving"],
};
const sheet = (name: string) => async (page: Page) => {
  await typeInPalette(page, name);
  await page.keyboard.press("Enter");
};

/** A label from its beginning: that of a drop-down goes on with what can be chosen. */
const labelled = (label: string | RegExp) => (typeof label === "string" ? new RegExp(`^${label.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}`) : label);
/** Works on a control of the inspector by its label, unfolding what it is in. */
const control = (label: string | RegExp, act: (control: Locator, page: Page) => Promise<unknown>) => async (page: Page) => {
  await unfold(page);
  await act(inspector(page).getByLabel(labelled(label)).first(), page);
};
const choose = (label: string, value: string) => control(label, (one) => one.selectOption(value));
const tick = (label: string | RegExp) => control(label, (one) => one.click());
const fill = (label: string | RegExp, text: string) =>
  control(label, async (one) => {
    await one.fill(text);
    await one.press("Enter");
    await one.blur();
  });
const icon = control(/^Icon:/, async (one, page) => {
  await one.click();
  await page.getByRole("button", { name: "home", exact: true }).click();
});
const id = (next: string) => async (page: Page) => {
  await inspector(page)
    .getByRole("button", { name: /^Change the id/ })
    .click();
  await inspector(page)
    .getByLabel(/^Id; it follows/)
    .fill(next);
  await page.keyboard.press("Enter");
};
const inDialog =
  (label: string, act: (control: Locator) => Promise<unknown>, nth = 0) =>
  async (page: Page) => {
    await act(page.getByRole("dialog").getByLabel(labelled(label)).nth(nth));
    await page.getByRole("dialog").getByRole("heading").first().click();
  };
const write = (text: string) => async (one: Locator) => {
  await one.fill(text);
  await one.press("Enter");
};

const screen = (p: Project, of = "one") => p.screens.find((s) => s.id === of);
const container = (p: Project, of: string) => p.containers.find((c) => c.id === of) as Record<string, unknown> | undefined;
const move = (p: Project, of: string) => p.legs.find((l) => l.id === of)?.move as Record<string, unknown> | undefined;
const on = (p: Project, of: string) => p.legs.find((l) => l.id === of)?.on as Record<string, unknown> | undefined;
const row = (field: string, where: Row["on"], use: Row["use"], gives: Row["gives"], is: unknown): Row => ({ field, on: where, use, gives, is });
const containerRow = (kind: string, of: string, field: string, use: Row["use"], is: unknown): Row =>
  row(`Container.${kind}.${field}`, place(of), use, (p) => container(p, of)?.[field], is);
const moveRow = (of: string, field: string, use: Row["use"], is: unknown): Row => row(`Move.${of}.${field}`, leg(of), use, (p) => move(p, of)?.[field], is);

const common = (kind: string, of: string, start: string): Row[] => [
  containerRow(kind, of, "name", fill("Name", `The ${kind}`), `The ${kind}`),
  containerRow(kind, of, "icon", icon, "home"),
  containerRow(kind, of, "start", choose("Shows first", start), start),
  containerRow(kind, of, "bar", choose("The bar starts with", "menu"), { show: true, lead: "menu" }),
  containerRow(kind, of, "motion", choose("What comes", "fade"), { kind: "fade" }),
  containerRow(kind, of, "once", tick(/^gone through once/), true),
  row(
    `Container.${kind}.elements`,
    place(of),
    control("Label of a new element", (one) => write(`Of ${kind}`)(one)),
    (p) => (container(p, of)?.elements as Array<{ label: string }> | undefined)?.at(-1)?.label,
    `Of ${kind}`,
  ),
];

const ROWS: readonly Row[] = [
  row(
    "Project.name",
    (page) => page.keyboard.press("Escape"),
    fill("Project name", "Allotments"),
    (p) => p.name,
    "Allotments",
  ),
  row(
    "Project.about",
    (page) => page.keyboard.press("Escape"),
    fill("What it is about", "Plots and beds"),
    (p) => p.about,
    "Plots and beds",
  ),
  row(
    "Project.root",
    (page) => page.keyboard.press("Escape"),
    choose("The app starts at", "t"),
    (p) => p.root,
    "t",
  ),
  row(
    "Project.root",
    (page) => page.keyboard.press("Escape"),
    choose("The app starts at", "d"),
    (p) => p.root,
    "d",
  ),

  row("Fact.name", sheet("facts"), inDialog("Name", write("Is a member")), (p) => p.facts[0]?.name, "Is a member"),
  row(
    "Fact.persists",
    sheet("facts"),
    inDialog("kept between launches", (one) => one.click()),
    (p) => p.facts[0]?.persists,
    true,
  ),
  row(
    "Fact.initial",
    sheet("facts"),
    inDialog("At first", (one) => one.selectOption("true")),
    (p) => p.facts[0]?.initial,
    true,
  ),
  row(
    "Fact.source",
    sheet("facts"),
    inDialog("Decided by", (one) => one.selectOption("outside")),
    (p) => p.facts[0]?.source,
    "outside",
  ),
  row("Fact.values", sheet("facts"), inDialog("The values, with commas between", write("free, paid, gift")), (p) => p.facts[1]?.values, [
    "free",
    "paid",
    "gift",
  ]),
  row(
    "Fact.type",
    sheet("facts"),
    inDialog("It is", (one) => one.selectOption("boolean"), 1),
    (p) => p.facts[1]?.type,
    "boolean",
  ),
  row("Fact.id", sheet("facts"), inDialog("Id", write("scheme"), 1), (p) => p.facts[1]?.id, "scheme"),

  ...common("stack", "u", "news"),
  ...common("tabs", "t", "u"),
  containerRow("tabs", "t", "edge", choose("The tabs stand at the", "top"), "top"),
  containerRow("tabs", "t", "edgeWide", choose("And where it is wide, at the", "side"), "side"),
  containerRow("tabs", "t", "onBack", choose("Back from a tab", "previous"), "previous"),
  containerRow("tabs", "t", "chosenAgain", choose("The same tab again", "nothing"), "nothing"),
  containerRow("tabs", "t", "keeps", tick("each tab stays as it was left"), false),
  containerRow("tabs", "t", "swipes", tick("a swipe goes to the neighboring tab"), true),
  ...common("drawer", "d", "about"),
  containerRow("drawer", "d", "side", choose("Slides in from the", "right"), "right"),
  containerRow("drawer", "d", "over", tick("lies over the page"), false),
  containerRow("drawer", "d", "pinnedFrom", choose("Always there when", "wide"), "wide"),
  containerRow("drawer", "d", "pinnedAs", choose("Then it stands at the", "top"), "top"),
  containerRow("drawer", "d", "onBack", choose("Back from a member", "start"), "start"),
  containerRow("drawer", "d", "keeps", tick("each member stays as it was left"), false),
  containerRow("drawer", "d", "closeOn", tick(/^a tap outside|outside/), ["back"]),
  ...common("modal", "sheet", "steps"),
  containerRow("modal", "sheet", "shape", choose("Comes up as a", "panel"), "panel"),
  containerRow("modal", "sheet", "edge", choose("From the", "right"), "right"),
  containerRow("modal", "sheet", "align", choose("Along its edge, at the", "end"), "end"),
  containerRow("modal", "sheet", "extent", choose("Takes", "half"), "half"),
  containerRow("modal", "sheet", "blocks", tick("nothing beneath can be used"), false),
  containerRow("modal", "sheet", "dims", tick("what is beneath is dimmed"), false),
  containerRow("modal", "sheet", "closeOn", tick(/outside/), ["outside", "swipe", "back"]),

  row("Screen.name", place("one"), fill("Name", "Plot"), (p) => screen(p)?.name, "Plot"),
  row("Screen.icon", place("one"), icon, (p) => screen(p)?.icon, "home"),
  row("Screen.code", place("one"), fill("Name in code", "PlotView"), (p) => screen(p)?.code, "PlotView"),
  row("Screen.title", place("one"), fill("Title in the bar", "Plot {param.plotId}"), (p) => screen(p)?.title, "Plot {param.plotId}"),
  row("Screen.path", place("one"), fill("Address", "/plots/{plotId}"), (p) => screen(p)?.path, "/plots/{plotId}"),
  row("Screen.up", place("one"), choose("Up leads to", "none"), (p) => screen(p)?.up, "none"),
  row("Screen.bar", place("one"), choose("The bar starts with", "back"), (p) => screen(p)?.bar, { show: true, lead: "back" }),
  row("Bar.backLabel", place("one"), fill("Words beside Back", "Plots"), (p) => screen(p)?.bar?.backLabel, "Plots"),
  row("Bar.lead", place("one"), choose("The bar starts with", "up"), (p) => screen(p)?.bar?.lead, "up"),
  row("Bar.show", place("one"), choose("The bar starts with", "hidden"), (p) => screen(p)?.bar?.show, false),
  row("Screen.hub", place("one"), tick(/^a hub/), (p) => screen(p)?.hub, true),
  row("Screen.once", place("one"), tick(/^gone through once/), (p) => screen(p)?.once, true),
  row("Screen.mayRepeat", place("one"), tick(/^may lie on a copy/), (p) => screen(p)?.mayRepeat, true),
  row("Screen.coversTabs", place("one"), tick("covers the tabs"), (p) => screen(p)?.coversTabs, true),
  row("Screen.planned", place("one"), tick("only planned"), (p) => screen(p)?.planned, true),
  row("Screen.pages", place("one"), choose("in the order of", "size"), (p) => screen(p)?.pages, { over: "plot", by: "plotId", order: "size" }),
  row("Screen.elements", place("one"), control("Label of a new element", write("Save")), (p) => screen(p)?.elements.at(-1)?.label, "Save"),
  row("Screen.params", place("one"), control("Name of a new parameter", write("mode")), (p) => screen(p)?.params.at(-1)?.name, "mode"),
  row("Param.type", place("one"), choose("Type of mode", "boolean"), (p) => screen(p)?.params.at(-1)?.type, "boolean"),
  row("Param.default", place("one"), fill("Default of mode", "true"), (p) => screen(p)?.params.at(-1)?.default, true),
  row("Param.default", place("two"), choose("Default of plot", "south"), (p) => screen(p, "two")?.params[0]?.default, { id: "south", size: 2 }),
  row("Param.required", place("two"), tick("required"), (p) => screen(p, "two")?.params[0]?.required, true),
  row("Param.name", place("two"), fill("Parameter name", "bed"), (p) => screen(p, "two")?.params[0]?.name, "bed"),
  row("Screen.id", place("more"), id("details"), (p) => screen(p, "details")?.id, "details"),
  ...["stack", "tabs", "drawer", "modal"].map((kind, i) => {
    const of = ["steps", "t", "d", "ask"][i] ?? "";
    return row(`Container.${kind}.id`, place(of), id(`${of}Id`), (p) => container(p, `${of}Id`)?.id, `${of}Id`);
  }),

  row("Element.label", element("list", "go"), fill("Label", "Start"), (p) => screen(p, "list")?.elements[1]?.label, "Start"),
  row("Element.kind", element("list", "go"), choose("Kind", "icon"), (p) => screen(p, "list")?.elements[1]?.kind, "icon"),
  row("Element.at", element("list", "go"), choose("Stands in the", "foot"), (p) => screen(p, "list")?.elements[1]?.at, "foot"),
  row("Element.text", element("list", "go"), fill(/^Text/, "Start now"), (p) => screen(p, "list")?.elements[1]?.text, "Start now"),
  row("Element.shown", element("list", "go"), fill("Shown if", "fact.member"), (p) => screen(p, "list")?.elements[1]?.shown, "fact.member"),
  row("Element.enabled", element("list", "go"), fill("Usable if", "fact.member"), (p) => screen(p, "list")?.elements[1]?.enabled, "fact.member"),
  row("Element.of", element("list", "rows"), choose("Rows of", "plot"), (p) => screen(p, "list")?.elements[0]?.of, "plot"),
  row("Element.except", element("u", "help"), tick("news"), (p) => (container(p, "u")?.elements as Array<{ except?: string[] }> | undefined)?.[0]?.except, [
    "news",
  ]),
  row("Element.id", element("list", "go"), id("start"), (p) => screen(p, "list")?.elements[1]?.id, "start"),

  moveRow("push", "in", choose("Goes on top", "u"), "u"),
  moveRow("push", "repeat", choose("Where it is there already", "stay"), "stay"),
  moveRow("push", "tidy", choose("What is left behind", "source"), "source"),
  moveRow("push", "pass", fill("plotId =", "'south'"), { plotId: "'south'" }),
  moveRow("replace", "pass", fill("plotId =", "'south'"), { plotId: "'south'" }),
  moveRow("reset", "in", choose("Clears and starts", "u"), "u"),
  moveRow("reset", "pass", fill("plotId =", "'south'"), { plotId: "'south'" }),
  moveRow("return", "pass", fill("plotId =", "'south'"), { plotId: "'south'" }),
  moveRow("open", "pass", fill("plotId =", "'south'"), { plotId: "'south'" }),
  moveRow("return", "orElse", choose("Where it is not beneath", "nothing"), "nothing"),
  moveRow("open", "show", choose("Shows first", "more"), "more"),
  moveRow("open", "instead", tick("takes the place of the modal that is up"), true),
  ...["back", "close", "return"].map((of) =>
    moveRow(
      of,
      "give",
      control("Hand something back", async (one) => {
        await one.fill("tint");
        await one.press("Enter");
      }),
      { tint: '""' },
    ),
  ),
  moveRow("close", "modal", choose("Closes", "sheet"), "sheet"),
  moveRow("select", "fresh", tick("starts over there, whatever was left"), true),
  moveRow("select", "tidy", choose("What is left behind", "stack"), "stack"),
  moveRow("menu", "drawer", choose("Drawer", "d"), "d"),
  moveRow("menu", "action", choose("What it does", "open"), "open"),
  moveRow("leave", "url", fill("Opens outside the app", "https://example.org"), "https://example.org"),

  row("Leg.when", leg("push"), fill("Only if", "fact.member"), (p) => p.legs[0]?.when, "fact.member"),
  row("Leg.set", leg("push"), choose("Set another fact", "member"), (p) => p.legs[0]?.set, { member: "true" }),
  row("Leg.resumes", leg("push"), tick(/^goes on with what waited/), (p) => p.legs[0]?.resumes, true),
  row("Leg.note", leg("push"), fill("Note", "on purpose"), (p) => p.legs[0]?.note, "on purpose"),
  row("Leg.planned", leg("push"), tick("only planned"), (p) => p.legs[0]?.planned, true),
  row("Leg.motion", leg("push"), choose("What comes", "slide"), (p) => p.legs[0]?.motion?.kind, "slide"),
  row("Motion.from", leg("push"), choose("From", "top"), (p) => p.legs[0]?.motion?.from, "top"),
  row("Motion.ms", leg("push"), fill("Milliseconds", "400"), (p) => p.legs[0]?.motion?.ms, 400),
  row("Motion.kind", leg("push"), choose("What comes", "grow"), (p) => p.legs[0]?.motion?.kind, "grow"),
  row(
    "Motion.carries",
    leg("carried"),
    async (page) => {
      await unfold(page);
      await inspector(page)
        .getByRole("button", { name: /Carry an element/ })
        .click();
      await page.locator("[data-card][data-place=list] [data-row=rows]").click();
      await page.locator("[data-card][data-place=news] [data-row=photo]").click();
    },
    (p) => p.legs.find((l) => l.id === "carried")?.motion?.carries,
    [{ from: "rows", to: "photo" }],
  ),
  row("Trigger.tap.element", leg("replace"), choose("Element", "open"), (p) => on(p, "replace")?.element, "open"),
  row("Trigger.tap.outcome", leg("reset"), fill("When it comes out as", "saved"), (p) => on(p, "reset")?.outcome, "saved"),
  row("Trigger.kind", leg("reset"), choose("By", "hold"), (p) => on(p, "reset"), { kind: "hold", element: "reset" }),
  row("Trigger.hold.outcome", leg("reset"), fill("When it comes out as", "held"), (p) => on(p, "reset")?.outcome, "held"),
  row("Trigger.hold.element", leg("reset"), choose("Element", "menu"), (p) => on(p, "reset")?.element, "menu"),
  row("Trigger.kind", leg("leave"), choose("By", "submit"), (p) => on(p, "leave")?.kind, "submit"),
  row("Trigger.submit.outcome", leg("leave"), fill("When it comes out as", "sent"), (p) => on(p, "leave")?.outcome, "sent"),
  row("Trigger.submit.element", leg("leave"), choose("Element", "select"), (p) => on(p, "leave")?.element, "select"),
  row("Trigger.after.ms", leg("wait"), fill("Milliseconds", "800"), (p) => on(p, "wait")?.ms, 800),
  row("Trigger.swipe.to", leg("flick"), choose("Towards", "up"), (p) => on(p, "flick")?.to, "up"),
  row("Trigger.depart.by", leg("guard"), tick("another tab"), (p) => on(p, "guard")?.by, ["back", "lead", "pick", "close", "link"]),
  row("Leg.from", leg("guard"), choose("Starts from", "more"), (p) => p.legs.find((l) => l.id === "guard")?.from, "more"),
  row("Leg.id", leg("push"), id("toPlot"), (p) => p.legs[0]?.id, "toPlot"),

  row(
    "Entrance.name",
    (page) => page.getByRole("button", { name: /^Door/ }).click(),
    fill("Name", "Front door"),
    (p) => p.entrances[0]?.name,
    "Front door",
  ),
  ...(
    [
      ["kind", choose("It is a", "notification"), "notification"],
      ["pass", fill("plotId =", "'south'"), { plotId: "'south'" }],
      ["to", choose("Leads to", "two"), "two"],
      ["pattern", fill("Address", "/beds/{plotId}"), "/beds/{plotId}"],
      ["when", fill("Only if", "!fact.member"), "!fact.member"],
      ["otherwise", choose("Otherwise to", "news"), "news"],
      ["resume", tick("then wait, and go on once it may"), true],
      ["warm", choose("While the app is running", "onTop"), "onTop"],
    ] as const
  ).map(([field, use, is]) =>
    row(
      `Entrance.${field}`,
      (page) => page.getByRole("button", { name: /^Front door/ }).click(),
      use,
      (p) => p.entrances[0]?.[field],
      is,
    ),
  ),
  row(
    "Entrance.id",
    (page) => page.getByRole("button", { name: /^Front door/ }).click(),
    id("frontDoor"),
    (p) => p.entrances[0]?.id,
    "frontDoor",
  ),
];

/** Fields that are no settings: what the format says, what something is by being it, where it stands, and what is made by other gestures. */
const ELSEWHERE: Readonly<Record<string, string>> = {
  "Project.$schema": "written by other programs",
  "Project.format": "the format",
  "Project.facts": "the sheet of facts",
  "Project.types": "the parameters view",
  "Project.containers": "Put into …",
  "Project.screens": "the field above the outline",
  "Project.legs": "leading somewhere",
  "Project.entrances": "the + beside Ways in",
  "Project.walks": "kept beside the device",
  "Project.accepted": "intended… beside a finding (findings.spec.ts)",
  "Project.mapOrder": "Earlier and Later on the map (arranging.spec.ts)",
  "RecordType.id": "the parameters view (parameters.spec.ts)",
  "RecordType.name": "the parameters view (parameters.spec.ts)",
  "RecordType.fields": "the parameters view (parameters.spec.ts)",
  "RecordType.samples": "the parameters view (parameters.spec.ts)",
  "Walk.id": "made with its name",
  "Walk.name": "asked for when it is kept",
  "Walk.events": "walked",
  "Walk.expect": "Expect what shows",
  "Project.rules": "the rules view (rules.spec.ts)",
  ...Object.fromEntries(
    Object.entries({
      never: ["see", "after", "until"],
      first: ["needs", "before"],
      only: ["while", "see"],
      within: ["taps", "to", "from"],
    }).flatMap(([kind, parts]) => ["id", "name", "about", "severity", ...parts].map((part) => [`Rule.${kind}.${part}`, "the rules view (rules.spec.ts)"])),
  ),
  "Screen.pictures": "dropping and choosing pictures (pictures.spec.ts)",
  ...Object.fromEntries(
    ["Picture.file", "Picture.size", "Picture.for", "Picture.dark", "Picture.holds", "Picture.areas", "Area.at", "Area.control"].map((field) => [
      field,
      "the view of pictures (pictures.spec.ts)",
    ]),
  ),
  "Leg.on": "its trigger",
  "Leg.move": "the way and the target",
  "Trigger.swipe.element": "On, where the place has elements",
};

/** All fields of the schema, by part and, where a part comes in kinds, by kind. */
function fields(): string[] {
  const shapeOf = (name: string, schema: z.ZodType): string[] => {
    if (schema instanceof z.ZodObject) return Object.keys(schema.shape).map((key) => `${name}.${key}`);
    if (!(schema instanceof z.ZodDiscriminatedUnion)) throw new Error(`${name} is neither an object nor comes in kinds`);
    return schema.options.flatMap((option) => {
      const { shape } = option as z.ZodObject;
      const [kind] = [...((shape.kind as z.ZodLiteral | undefined)?.values ?? [])];
      return Object.keys(shape).flatMap((key) => (key === "kind" ? [] : [`${name}.${String(kind)}.${key}`]));
    });
  };
  const all = [...Object.entries(PARTS).flatMap(([name, schema]) => shapeOf(name, schema as z.ZodType)), ...shapeOf("Project", ProjectSchema)];
  // Where something leads and in which container it stands is chosen on the map and in the outline.
  return [...all, "Bar.show", "Bar.lead", "Bar.backLabel"].filter((field) => !/^Move\.\w+\.(to|kind)$|^Container\.\w+\.members$/.test(field));
}

test("every field of the model has a row here, or is made elsewhere", () => {
  const known = new Set([...ROWS.map(({ field }) => field), ...Object.keys(ELSEWHERE)]);
  const missing = fields().filter((field) => !known.has(field));
  expect(missing).toEqual([]);
  expect([...known].filter((field) => field !== "Trigger.kind" && !fields().includes(field))).toEqual([]);
});

/** The document as the browser keeps it, when everything is saved. */
async function kept(page: Page): Promise<Project> {
  await expect(page.getByTestId("saved")).toHaveText("saved");
  return page.evaluate(
    () =>
      new Promise<Project>((done, failed) => {
        const opening = indexedDB.open("etape");
        opening.onerror = () => failed(opening.error);
        opening.onsuccess = () => {
          const reading = opening.result.transaction("documents").objectStore("documents").getAll();
          reading.onsuccess = () => {
            opening.result.close();
            done(reading.result[0].document as Project);
          };
        };
      }),
  );
}

const GROUPS: ReadonlyArray<[name: string, holds: RegExp]> = [
  ["the project and facts", /^(Project|Fact)\./],
  ["containers", /^Container\./],
  ["screens, parameters and elements", /^(Screen|Bar|Param|Element)\./],
  ["moves", /^Move\./],
  ["legs and triggers", /^(Leg|Motion|Trigger)\./],
  ["ways in", /^Entrance\./],
];

for (const [name, holds] of GROUPS)
  test(`controls set what they say: ${name}`, async ({ page }) => {
    await openDocument(page, DOCUMENT);
    for (const { field, on: where, use, gives, is } of ROWS.filter((one) => holds.test(one.field))) {
      await test.step(field, async () => {
        await where(page);
        await use(page);
        await expect.poll(async () => gives(await kept(page)), { message: field }).toEqual(is);
        if (await page.getByRole("dialog").count()) await page.keyboard.press("Escape");
      });
    }
  });
