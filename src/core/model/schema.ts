/**
 * The project document as Zod schemas. Key order here is the key order of a
 * canonical file: parsing rebuilds every object in the order of its shape.
 */
import * as z from "zod";

export const FORMAT = "etape/1";
export const ID_PATTERN = /^[a-z][A-Za-z0-9]{0,63}$/;
/** Names of parameters and fields; they appear in expressions as `param.NAME`. */
export const NAME_PATTERN = /^[A-Za-z_][A-Za-z0-9_]{0,63}$/;
export const TEXT_LIMIT = 2000;

const id = z.string().regex(ID_PATTERN);
const name = z.string().regex(NAME_PATTERN);
const text = z
  .string()
  .refine((s) => s.length <= TEXT_LIMIT || [...s].length <= TEXT_LIMIT, { message: `text of at most ${TEXT_LIMIT} characters` })
  .meta({ maxLength: TEXT_LIMIT });
const expression = text;
const args = z.record(name, expression);
const ms = z.number().min(0);
const json = z.json();

const Way = z.enum(["outside", "swipe", "button", "back"]);
const Bar = z.strictObject({
  show: z.boolean(),
  lead: z.enum(["auto", "back", "up", "menu", "none"]),
  backLabel: text.optional(),
});
const Motion = z.strictObject({
  kind: z.enum(["none", "slide", "rise", "fade", "grow"]),
  from: z.enum(["start", "end", "top", "bottom"]).optional(),
  ms: ms.optional(),
  carries: z.array(z.strictObject({ from: id, to: id })).optional(),
});
const Fact = z.strictObject({
  id,
  name: text.optional(),
  type: z.enum(["boolean", "choice"]),
  values: z.array(text).optional(),
  initial: z.union([z.boolean(), text]),
  source: z.enum(["app", "outside"]),
  persists: z.boolean().optional(),
});
/** A simple type or the id of a record type. */
const typeName = z.string().regex(ID_PATTERN);
const RecordType = z.strictObject({
  id,
  name: text.optional(),
  fields: z.array(z.strictObject({ name, type: typeName })),
  samples: z.array(z.record(z.string(), json)),
});
const Element = z.strictObject({
  id,
  kind: z.enum(["button", "icon", "link", "list", "field", "switch", "text", "image", "pager"]),
  label: text,
  of: id.optional(),
  text: text.optional(),
  at: z.enum(["bar", "body", "foot"]).optional(),
  shown: expression.optional(),
  enabled: expression.optional(),
  except: z.array(id).optional(),
});
/** All kinds of elements, the usual ones first. */
export const ELEMENT_KINDS = Element.shape.kind.options;
const containerKeys = <K extends string>(kind: K) => ({
  id,
  kind: z.literal(kind),
  name: text,
  icon: text.optional(),
  start: id,
  members: z.array(id),
  elements: z.array(Element).optional(),
  bar: Bar.optional(),
  motion: Motion.optional(),
  once: z.boolean().optional(),
});
const edgeOfTabs = z.enum(["bottom", "top", "side"]);
const Container = z.discriminatedUnion("kind", [
  z.strictObject(containerKeys("stack")),
  z.strictObject({
    ...containerKeys("tabs"),
    edge: edgeOfTabs,
    edgeWide: edgeOfTabs.optional(),
    onBack: z.enum(["leave", "start", "previous"]),
    chosenAgain: z.enum(["root", "nothing"]),
    keeps: z.boolean(),
    swipes: z.boolean().optional(),
  }),
  z.strictObject({
    ...containerKeys("drawer"),
    side: z.enum(["left", "right"]),
    over: z.boolean(),
    pinnedFrom: z.enum(["never", "middle", "wide"]),
    pinnedAs: z.enum(["side", "top"]).optional(),
    closeOn: z.array(Way),
    onBack: z.enum(["leave", "start"]),
    keeps: z.boolean(),
  }),
  z.strictObject({
    ...containerKeys("modal"),
    shape: z.enum(["sheet", "full", "dialog", "panel"]),
    edge: z.enum(["top", "bottom", "left", "right", "center"]),
    align: z.enum(["start", "center", "end"]).optional(),
    extent: z.enum(["fit", "half", "most"]).optional(),
    blocks: z.boolean(),
    dims: z.boolean(),
    closeOn: z.array(Way),
  }),
]);
const Param = z.strictObject({
  name,
  type: typeName,
  required: z.boolean(),
  default: json.optional(),
});
/** The most pixels that a picture may have along a side. */
export const PICTURE_SIDE = 4096;
const side = z.number().int().min(1).max(PICTURE_SIDE);
const FILE_PATTERN = /^(?!\.{1,2}(?:\/|$))[^/\\:*?"<>|\p{Cc}]+(?:\/(?!\.{1,2}(?:\/|$))[^/\\:*?"<>|\p{Cc}]+)*$/u;
const CONTROL_PATTERN = /^(?:[a-z][A-Za-z0-9]{0,63}|(?:tab|pick):[a-z][A-Za-z0-9]{0,63})$/;
const Area = z.strictObject({
  at: z.tuple([z.number(), z.number(), z.number().positive(), z.number().positive()]),
  /** An element's id, "lead", "close", "tab:PLACE" or "pick:PLACE". */
  control: z.string().regex(CONTROL_PATTERN),
});
const Picture = z.strictObject({
  /** A path below the folder of the pictures. */
  file: text.refine((path) => FILE_PATTERN.test(path), { message: 'a path below the folder of the pictures, such as "home.png"' }),
  size: z.tuple([side, side]),
  for: z.enum(["narrow", "middle", "wide"]).optional(),
  dark: z.boolean().optional(),
  holds: z.enum(["body", "screen"]),
  areas: z.array(Area),
});
const Screen = z.strictObject({
  id,
  name: text,
  icon: text.optional(),
  code: text.optional(),
  title: text.optional(),
  params: z.array(Param),
  up: id,
  path: text.optional(),
  bar: Bar.optional(),
  elements: z.array(Element),
  pages: z.strictObject({ over: id, by: name, order: name.optional() }).optional(),
  hub: z.boolean().optional(),
  once: z.boolean().optional(),
  mayRepeat: z.boolean().optional(),
  coversTabs: z.boolean().optional(),
  planned: z.boolean().optional(),
  pictures: z.array(Picture).optional(),
});
const tapLike = <K extends string>(kind: K) => z.strictObject({ kind: z.literal(kind), element: id, outcome: text.optional() });
const Trigger = z.discriminatedUnion("kind", [
  tapLike("tap"),
  tapLike("submit"),
  tapLike("hold"),
  z.strictObject({ kind: z.literal("swipe"), to: z.enum(["left", "right", "up", "down"]), element: id.optional() }),
  z.strictObject({ kind: z.literal("after"), ms }),
  z.strictObject({ kind: z.literal("arrive") }),
  z.strictObject({ kind: z.literal("depart"), by: z.array(z.enum(["back", "lead", "tab", "pick", "close", "link"])).optional() }),
]);
const tidy = z.enum(["source", "stack"]).optional();
/** A stack's id, or "beneath" (which is also a well-formed id and is reserved for this). */
const within = id.optional();
const Move = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("push"), to: id, pass: args.optional(), in: within, repeat: z.enum(["copy", "stay", "rewind"]).optional(), tidy }),
  z.strictObject({ kind: z.literal("replace"), to: id, pass: args.optional() }),
  z.strictObject({ kind: z.literal("reset"), to: id, pass: args.optional(), in: within }),
  z.strictObject({
    kind: z.literal("return"),
    to: id,
    pass: args.optional(),
    orElse: z.enum(["push", "replace", "nothing"]).optional(),
    give: args.optional(),
  }),
  z.strictObject({ kind: z.literal("open"), to: id, show: id.optional(), pass: args.optional(), instead: z.boolean().optional() }),
  z.strictObject({ kind: z.literal("close"), modal: id.optional(), give: args.optional() }),
  z.strictObject({ kind: z.literal("select"), to: id, fresh: z.boolean().optional(), tidy }),
  z.strictObject({ kind: z.literal("menu"), drawer: id.optional(), action: z.enum(["open", "close", "toggle"]).optional() }),
  z.strictObject({ kind: z.literal("back"), give: args.optional() }),
  z.strictObject({ kind: z.literal("up") }),
  z.strictObject({ kind: z.literal("proceed") }),
  z.strictObject({ kind: z.literal("leave"), url: text.optional() }),
]);
const Leg = z.strictObject({
  id,
  from: id,
  on: Trigger,
  when: expression.optional(),
  move: Move.optional(),
  set: z.record(id, expression).optional(),
  motion: Motion.optional(),
  resumes: z.boolean().optional(),
  planned: z.boolean().optional(),
  note: text.optional(),
});
const Entrance = z.strictObject({
  id,
  name: text,
  kind: z.enum(["link", "notification", "shortcut"]),
  pattern: text.optional(),
  to: id,
  pass: args.optional(),
  when: expression.optional(),
  otherwise: id.optional(),
  resume: z.boolean().optional(),
  warm: z.enum(["rebuild", "onTop"]),
});

/** A row of sample data as an event names it: the whole row, its key, or its position. */
const item = z.union([z.string(), z.number(), z.boolean(), z.record(z.string(), json)]);
/** One event, as walks, the command line and the engine know it. */
export const EventSchema = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("leg"), leg: z.string(), item: item.optional(), fields: z.record(z.string(), json).optional() }),
  z.strictObject({ do: z.literal("tab"), to: z.string() }),
  z.strictObject({ do: z.literal("pick"), to: z.string() }),
  z.strictObject({ do: z.literal("lead") }),
  z.strictObject({ do: z.literal("close"), via: Way }),
  z.strictObject({ do: z.literal("back") }),
  z.strictObject({ do: z.literal("enter"), entrance: z.string(), args: z.record(z.string(), json).optional(), cold: z.boolean().optional() }),
  z.strictObject({ do: z.literal("launch") }),
  z.strictObject({ do: z.literal("fact"), fact: z.string(), value: json }),
  z.strictObject({ do: z.literal("width"), to: z.enum(["narrow", "middle", "wide"]) }),
]);
const Walk = z.strictObject({
  id,
  name: text,
  events: z.array(EventSchema),
  expect: z.array(z.strictObject({ after: z.number().int().min(0), shows: text })).optional(),
});
/** What a rule speaks of, as it is met: a place shows, a leg fires, a way in is taken. */
const What = z
  .strictObject({ places: z.array(id).optional(), legs: z.array(id).optional(), entrances: z.array(id).optional() })
  .refine(({ places = [], legs = [], entrances = [] }) => places.length + legs.length + entrances.length > 0, {
    message: "at least one place, leg or way in",
  })
  .meta({ minProperties: 1 });
const somePlaces = z.array(id).min(1);
/** The most taps that a rule can allow. */
export const MOST_TAPS = 20;
const ruleKeys = { id, name: text, about: text.optional(), severity: z.enum(["blocker", "warning", "note"]).optional() };
const Rule = z.discriminatedUnion("kind", [
  z.strictObject({ ...ruleKeys, kind: z.literal("never"), see: What, after: What.optional(), until: What.optional() }),
  z.strictObject({ ...ruleKeys, kind: z.literal("first"), needs: What, before: What }),
  z.strictObject({ ...ruleKeys, kind: z.literal("only"), while: expression, see: somePlaces }),
  z.strictObject({ ...ruleKeys, kind: z.literal("within"), taps: z.number().int().min(1).max(MOST_TAPS), to: somePlaces, from: somePlaces.optional() }),
]);
export const ProjectSchema = z.strictObject({
  $schema: text.optional(),
  format: z.literal(FORMAT),
  name: text,
  about: text.optional(),
  root: id,
  facts: z.array(Fact),
  types: z.array(RecordType),
  containers: z.array(Container),
  screens: z.array(Screen),
  legs: z.array(Leg),
  entrances: z.array(Entrance),
  walks: z.array(Walk),
  rules: z.array(Rule).optional(),
  accepted: z.array(z.strictObject({ code: text, subjects: z.array(text), reason: text })).optional(),
  mapOrder: z.record(id, z.array(id)).optional(),
});

/** The parts of a document that edits carry; each under the name of its type. */
export const PARTS = { Fact, RecordType, Container, Screen, Element, Leg, Entrance, Walk, Rule, Trigger, Move, Param, Motion, Picture, Area };

export type Project = z.infer<typeof ProjectSchema>;
export type Fact = z.infer<typeof Fact>;
export type RecordType = z.infer<typeof RecordType>;
export type Container = z.infer<typeof Container>;
export type Stack = Extract<Container, { kind: "stack" }>;
export type Tabs = Extract<Container, { kind: "tabs" }>;
export type Drawer = Extract<Container, { kind: "drawer" }>;
export type Modal = Extract<Container, { kind: "modal" }>;
export type Screen = z.infer<typeof Screen>;
export type Picture = z.infer<typeof Picture>;
export type Area = z.infer<typeof Area>;
export type Param = z.infer<typeof Param>;
export type Element = z.infer<typeof Element>;
export type Bar = z.infer<typeof Bar>;
export type Leg = z.infer<typeof Leg>;
export type Trigger = z.infer<typeof Trigger>;
export type Move = z.infer<typeof Move>;
export type Motion = z.infer<typeof Motion>;
export type Entrance = z.infer<typeof Entrance>;
export type Walk = z.infer<typeof Walk>;
export type Rule = z.infer<typeof Rule>;
export type What = z.infer<typeof What>;
export type NavEvent = z.infer<typeof EventSchema>;
export type Way = z.infer<typeof Way>;
export type Width = "narrow" | "middle" | "wide";
/** Any value that JSON can hold: arguments, sample fields, facts. */
export type Json = z.infer<typeof json>;
export type Row = Record<string, Json>;
