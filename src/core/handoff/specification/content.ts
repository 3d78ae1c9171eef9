import { handingBackTo } from "../../insight/takers.ts";
import { legStart, triggerLabel } from "../../model/describe.ts";
import { elementIdOf, elementOf, firstScreen, giveOf, lookup, nameOf, ownersAround, passOf, typeLabel, upTarget } from "../../model/lookup.ts";
import { pictureFor } from "../../model/pictures.ts";
import { moveSentence } from "../../model/propose.ts";
import { ruleSentence } from "../../model/ruleWords.ts";
import type { Leg, Project, RecordType, Screen } from "../../model/schema.ts";
import { graphOf } from "../diagrams/graph.ts";
import type { Checked } from "../handed.ts";
import { containerSentences } from "./containers.ts";
import { foundOnScreens } from "./found.ts";

/** A part of a document for people; each format writes the same parts its own way. */
export type Part =
  /** `id` is what links in the contents lead to. */
  | { kind: "heading"; level: 1 | 2 | 3; text: string; id?: string }
  /** The headings with an id that follow, to be gone to. */
  | { kind: "contents"; entries: Array<{ level: number; text: string; id: string }> }
  | { kind: "text"; text: string }
  | { kind: "list"; items: string[] }
  | { kind: "table"; head: string[]; rows: string[][] }
  | { kind: "map" }
  /** The picture of a screen: its file, and a data address where there is one. */
  | { kind: "picture"; file: string; of: string; address: string | undefined };

/** Everything that the specification says, in order. */
export function specification(project: Project, checked: Checked): Part[] {
  const [title, about, ...rest] = sections(project, checked);
  const entries = rest.flatMap((part) => (part.kind === "heading" && part.id !== undefined ? [{ level: part.level, text: part.text, id: part.id }] : []));
  return [title, about, { kind: "contents" as const, entries }, ...rest].filter((part) => part !== undefined);
}

function sections(project: Project, checked: Checked): [Part, Part | undefined, ...Part[]] {
  const { findings, proof } = checked;
  const parts: [Part, Part | undefined, ...Part[]] = [
    { kind: "heading", level: 1, text: project.name },
    project.about ? { kind: "text", text: project.about } : undefined,
  ];
  const start = firstScreen(project, project.root);
  parts.push({
    kind: "text",
    text: `${project.screens.length} screens, ${project.legs.length} legs, ${project.entrances.length} ways in. A launch shows ${start ? `“${start.name || start.id}”` : "nothing"}.`,
  });
  parts.push({ kind: "map" });
  parts.push({ kind: "heading", level: 2, text: "How things stand", id: "how-things-stand" }, { kind: "text", text: proof });
  if (findings.length > 0) parts.push({ kind: "list", items: findings.map((f) => `${f.severity}: ${f.message} (${f.code})`) });
  const rules = project.rules ?? [];
  if (rules.length > 0)
    parts.push(
      { kind: "heading", level: 2, text: "Rules", id: "rules" },
      { kind: "text", text: "What the team promises of this app, and how each promise stands." },
      {
        kind: "table",
        head: ["Rule", "What it says", "How it stands"],
        rows: rules.map((rule) => [rule.name || rule.id, ruleSentence(project, rule), checked.rules?.[rule.id] ?? "not checked"]),
      },
    );
  if (project.facts.length > 0)
    parts.push(
      { kind: "heading", level: 2, text: "Facts", id: "facts" },
      {
        kind: "table",
        head: ["Fact", "At first", "Decided by", "Kept between launches"],
        rows: project.facts.map((f) => [f.name ?? f.id, String(f.initial), f.source === "app" ? "the app" : "the outside", f.persists ? "yes" : "no"]),
      },
    );
  if (project.entrances.length > 0)
    parts.push(
      { kind: "heading", level: 2, text: "Ways in", id: "ways-in" },
      {
        kind: "table",
        head: ["Way in", "Kind", "Address", "Leads to", "Only if", "While running"],
        rows: project.entrances.map((e) => [
          e.name,
          e.kind,
          e.pattern ?? "",
          nameOf(project, e.to),
          e.when === undefined
            ? ""
            : `${e.when}${e.otherwise === undefined ? "" : `; otherwise ${nameOf(project, e.otherwise)}`}${e.resume ? ", then goes on once it may" : ""}`,
          e.warm === "rebuild" ? "gets its own way beneath it" : "goes on top",
        ]),
      },
    );
  if (project.types.length > 0) parts.push({ kind: "heading", level: 2, text: "Record types", id: "record-types" }, ...project.types.flatMap(typeParts));
  if (project.containers.length > 0) parts.push({ kind: "heading", level: 2, text: "Containers", id: "containers" });
  for (const container of project.containers)
    parts.push(
      { kind: "heading", level: 3, text: `${container.name || container.id} (${container.kind})`, id: `container-${container.id}` },
      { kind: "list", items: containerSentences(project, container) },
    );
  parts.push({ kind: "heading", level: 2, text: "Screens", id: "screens" });
  const waysIn = arrowsByTarget(project);
  for (const screen of project.screens) parts.push(...screenParts(project, screen, waysIn.get(screen.id) ?? [], checked));
  return parts;
}

/** The first few of a list, and how many more there are. */
function some(list: readonly string[]): string {
  const more = list.length - MOST_WAYS;
  return `${list.slice(0, MOST_WAYS).join("; or ")}${more > 0 ? `; and ${more} more` : ""}`;
}
const MOST_WAYS = 4;

/** A record type with its fields and a few of its rows. */
function typeParts(type: RecordType): Part[] {
  const text = (value: unknown) => (typeof value === "object" && value !== null ? String(Object.values(value)[0] ?? "") : String(value ?? ""));
  return [
    { kind: "heading", level: 3, text: typeLabel(type), id: `type-${type.id}` },
    {
      kind: "table",
      head: type.fields.map(({ name, type: of }, i) => `${name}: ${of}${i === 0 ? ", the key" : ""}`),
      rows: type.samples.slice(0, SAMPLE_ROWS).map((row) => type.fields.map(({ name }) => text(row[name]))),
    },
  ];
}

/** Rows of a record type that are shown. */
const SAMPLE_ROWS = 5;

function arrowsByTarget(project: Project): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const arrow of graphOf(project).arrows) out.set(arrow.to, [...(out.get(arrow.to) ?? []), `${nameOf(project, arrow.from)}: ${arrow.label}`]);
  const first = firstScreen(project, project.root)?.id;
  if (first !== undefined) out.set(first, ["the launch", ...(out.get(first) ?? [])]);
  for (const container of project.containers)
    if (container.kind === "tabs" || container.kind === "drawer")
      for (const member of container.members) {
        const shows = firstScreen(project, member)?.id;
        if (shows !== undefined)
          out.set(shows, [
            ...(out.get(shows) ?? []),
            `${container.kind === "tabs" ? "tab" : "member of the drawer"} “${nameOf(project, member)}” of “${container.name || container.id}”`,
          ]);
      }
  for (const e of project.entrances) out.set(e.to, [...(out.get(e.to) ?? []), `${e.kind}: ${e.name}`]);
  return out;
}

function screenParts(project: Project, screen: Screen, waysIn: string[], { pictures = {} }: Checked): Part[] {
  const up = upTarget(project, screen.id);
  const picture = pictureFor(screen, { width: "narrow", dark: false });
  const found = foundOnScreens(project).get(screen.id);
  const around = ownersAround(project, screen.id);
  const marks = [screen.hub && "a hub", screen.once && "gone through once", screen.planned && "only planned"].filter((mark) => typeof mark === "string");
  const lines = [
    ...(around.length > 0 ? [`In ${around.map((c) => `${c.name || c.id} (${c.kind})`).join(", in ")}.`] : []),
    ...(marks.length > 0 ? [`It is ${marks.join(", ")}.`] : []),
    `Up leads to ${up === undefined ? "nowhere" : nameOf(project, up)}.`,
    ...(found ? [`Back, as found: ${some(found.back)}.`, `The bar starts with, as found: ${some(found.lead)}.`] : []),
    ...(screen.path === undefined ? [] : [`Address: ${screen.path}`]),
    ...(screen.code === undefined ? [] : [`In code: ${screen.code}`]),
  ];
  const back = (handingBackTo(project).get(screen.id) ?? []).map((leg) => `${valuesText(giveOf(leg))}, by ${legStart(project, leg)}`);
  const legs = [screen.id, ...around.map((c) => c.id)].flatMap((place) => lookup(project).legsFrom.get(place) ?? []);
  return [
    { kind: "heading", level: 3, text: screen.name || screen.id, id: `screen-${screen.id}` },
    ...(picture ? [{ kind: "picture" as const, file: picture.file, of: screen.name || screen.id, address: pictures[picture.file] }] : []),
    { kind: "list", items: lines },
    ...(screen.params.length > 0
      ? [
          {
            kind: "table" as const,
            head: ["Needs to know", "Type", "Must be handed on"],
            rows: screen.params.map((p) => [p.name, p.type, p.default === undefined ? (p.required ? "yes" : "no") : `no, else ${JSON.stringify(p.default)}`]),
          },
        ]
      : []),
    ...(back.length > 0
      ? [
          { kind: "text" as const, text: "Handed back to it:" },
          { kind: "list" as const, items: back },
        ]
      : []),
    ...(waysIn.length > 0
      ? [
          { kind: "text" as const, text: "Ways in:" },
          { kind: "list" as const, items: waysIn },
        ]
      : []),
    ...(legs.length > 0 ? [{ kind: "table" as const, head: ["By", "If", "Goes", "Hands on"], rows: legs.map((leg) => legRow(project, leg)) }] : []),
  ];
}

function legRow(project: Project, leg: Leg): string[] {
  const element = elementIdOf(leg);
  const by = element === undefined ? triggerLabel(leg) : `${leg.on.kind} ${elementOf(project, leg.from, element)?.label || element}`;
  const outcome = "outcome" in leg.on && leg.on.outcome !== undefined ? `, comes out as ${leg.on.outcome}` : "";
  const sets = Object.entries(leg.set ?? {}).map(([id, source]) => `sets ${id} = ${source}`);
  return [
    `${by}${outcome}${leg.planned ? " (only planned)" : ""}`,
    leg.when ?? "",
    [...(leg.move ? [moveSentence(project, leg.from, leg.move)] : []), ...sets].join(" "),
    [valuesText(passOf(leg)), giveOf(leg) ? `back: ${valuesText(giveOf(leg))}` : ""].filter((text) => text !== "").join("; "),
  ];
}

function valuesText(values: Record<string, string> | undefined): string {
  return Object.entries(values ?? {})
    .map(([name, source]) => `${name} = ${source}`)
    .join(", ");
}
