import type { PictureFiles } from "../../../src/core/model/pictures.ts";
import type { Picture, Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

/** One code: a document in which it is reported, with its subjects, and its nearest neighbour in which it is not. */
export interface Case {
  code: string;
  subjects: string[];
  bad: Project;
  good: Project;
  /** The files of pictures that are there. */
  files?: PictureFiles;
}

const el = (id: string, kind = "button", more = {}) => ({ id, kind, label: id, ...more });
const screen = (...elements: unknown[]) => ({ elements });
export const none = { bar: { show: true, lead: "none" } };
const closed = { closeOn: [] };
export const flag = { id: "f", type: "boolean", initial: false, source: "app" };
const need = (name = "id", type = "text") => ({ params: [{ name, type, required: true }] });
const rows = { id: "row", name: "row", fields: [{ name: "id", type: "text" }], samples: [{ id: "one" }, { id: "two" }] };
const paged = { params: [{ name: "id", type: "text", required: true }], pages: { over: "row", by: "id" } };
const link = (id: string, to: string, more = {}) => ({ id, name: id, kind: "link", to, warm: "rebuild", ...more });

export const CASES: Case[] = [
  {
    code: "dead-end",
    subjects: ["b"],
    bad: app("s", { stacks: { s: "a b" }, screens: { b: { up: "none" } }, legs: ["go a reset b"] }),
    good: app("s", { stacks: { s: "a b" }, screens: { b: { up: "none" } }, legs: ["go a push b"] }),
  },
  {
    code: "stuck-modal",
    subjects: ["m"],
    bad: app("s", { stacks: { s: "a", f: "x y" }, modals: { m: ["f", closed] }, legs: ["up a open m", "on x push y"] }),
    good: app("s", { stacks: { s: "a", f: "x y" }, modals: { m: ["f", closed] }, legs: ["up a open m", "on x push y", "shut y close"] }),
  },
  {
    code: "trap",
    subjects: ["b", "c"],
    bad: app("s", {
      stacks: { s: "a b c" },
      screens: { a: { hub: true }, b: { up: "none" }, c: { up: "none" } },
      legs: ["go a reset b", "x b replace c", "y c replace b"],
    }),
    good: app("s", { stacks: { s: "a b c" }, screens: { a: { hub: true }, b: { up: "none" } }, legs: ["go a reset b", "x b replace c", "y c replace b"] }),
  },
  {
    code: "unreachable",
    subjects: ["b"],
    bad: app("s", { stacks: { s: "a b" } }),
    good: app("s", { stacks: { s: "a b" }, legs: ["go a push b"] }),
  },
  {
    code: "unreachable",
    subjects: ["m"],
    bad: app("s", { stacks: { s: "a" }, modals: { m: "x" } }),
    good: app("s", { stacks: { s: "a" }, modals: { m: "x" }, legs: ["up a open m"] }),
  },
  {
    code: "redirect-loop",
    subjects: ["x"],
    bad: app("s", { stacks: { s: "a b c" }, legs: ["go a push b", "x b:arrive replace c", "y c:arrive replace b"] }),
    good: app("s", { stacks: { s: "a b c" }, facts: [flag], legs: ["go a push b", "x b:arrive replace c", "y c:arrive replace b if=fact.f"] }),
  },
  {
    code: "refused-move",
    subjects: ["go"],
    bad: app("t", { tabs: { t: "a b" }, legs: ["go a push b"] }),
    good: app("t", { tabs: { t: "s b" }, stacks: { s: "a" }, legs: ["go a push b"] }),
  },
  {
    code: "back-only",
    subjects: ["b"],
    bad: app("s", { stacks: { s: "a b" }, screens: { b: none }, legs: ["go a push b"] }),
    good: app("s", { stacks: { s: "a b" }, legs: ["go a push b"] }),
  },
  {
    code: "piled-copies",
    subjects: ["home", "a"],
    bad: app("s", { stacks: { s: "a b" }, screens: { b: { mayRepeat: true } }, legs: ["go a push b", "home b push a"] }),
    good: app("s", { stacks: { s: "a b" }, legs: ["go a push b", "home b push a repeat=rewind"] }),
  },
  {
    code: "returns-to-finished",
    subjects: ["tour"],
    bad: app("s", { stacks: { s: "tour a z" }, screens: { tour: { once: true }, a: { hub: true } }, legs: ["go tour push a", "on a push z"] }),
    good: app("s", { stacks: { s: "tour a z" }, screens: { tour: { once: true }, a: { hub: true, up: "none" } }, legs: ["go tour reset a", "on a push z"] }),
  },
  {
    code: "leaves-by-surprise",
    subjects: ["b"],
    bad: app("s", { stacks: { s: "a b" }, screens: { a: { hub: true } }, legs: ["go a reset b", "home b reset a"] }),
    good: app("s", { stacks: { s: "a b" }, screens: { a: { hub: true }, b: { hub: true } }, legs: ["go a reset b", "home b reset a"] }),
  },
  {
    code: "silent",
    subjects: ["a", "go"],
    bad: app("s", { stacks: { s: "a b" }, facts: [flag], legs: ["on a set set.f=true", "go a push b if=fact.f"] }),
    good: app("s", {
      stacks: { s: "a b" },
      facts: [flag],
      screens: { a: screen(el("go", "button", { enabled: "fact.f" })) },
      legs: ["on a set set.f=true", "go a push b if=fact.f"],
    }),
  },
  {
    code: "idle-lead",
    subjects: ["a"],
    bad: app("s", { stacks: { s: "a" }, screens: { a: { bar: { show: true, lead: "menu" } } } }),
    good: app("d", { drawers: { d: "a b" }, screens: { a: { bar: { show: true, lead: "menu" } } } }),
  },
  {
    code: "far",
    subjects: ["p6"],
    bad: app("s", { stacks: { s: "p0 p1 p2 p3 p4 p5 p6" }, legs: [0, 1, 2, 3, 4, 5].map((i) => `l${i} p${i} push p${i + 1}`) }),
    good: app("s", { stacks: { s: "p0 p1 p2 p3 p4 p5" }, legs: [0, 1, 2, 3, 4].map((i) => `l${i} p${i} push p${i + 1}`) }),
  },
  {
    code: "broken-target",
    subjects: ["go"],
    bad: app("s", { stacks: { s: "a" }, legs: ["go a push ghost"] }),
    good: app("s", { stacks: { s: "a b" }, legs: ["go a push b"] }),
  },
  {
    code: "broken-target",
    subjects: ["e"],
    bad: app("s", { stacks: { s: "a" }, entrances: [link("e", "ghost")] }),
    good: app("s", { stacks: { s: "a" }, entrances: [link("e", "a")] }),
  },
  {
    code: "broken-target",
    subjects: ["a"],
    bad: app("s", { stacks: { s: "a" }, screens: { a: { up: "ghost" } } }),
    good: app("s", { stacks: { s: "a b" }, screens: { a: { up: "b" } } }),
  },
  { code: "no-owner", subjects: ["x"], bad: app("s", { stacks: { s: "a" }, screens: { x: {} } }), good: app("s", { stacks: { s: "a x" } }) },
  {
    code: "no-owner",
    subjects: ["a"],
    bad: app("t", { tabs: { t: "s u" }, stacks: { s: "a", u: "b a" } }),
    good: app("t", { tabs: { t: "s u" }, stacks: { s: "a", u: "b c" } }),
  },
  {
    code: "no-start",
    subjects: ["s"],
    bad: app("s", { stacks: { s: ["a", { start: "b" }] }, screens: { b: {} } }),
    good: app("s", { stacks: { s: ["a b", { start: "b" }] } }),
  },
  {
    code: "missing-argument",
    subjects: ["go", "b", "id"],
    bad: app("s", { stacks: { s: "a b" }, screens: { b: need() }, legs: ["go a push b"] }),
    good: app("s", { stacks: { s: "a b" }, screens: { b: need() }, legs: ["go a push b pass.id='x'"] }),
  },
  {
    code: "missing-argument",
    subjects: ["e", "b", "id"],
    bad: app("s", { stacks: { s: "a b" }, screens: { b: need() }, entrances: [link("e", "b", { kind: "shortcut" })] }),
    good: app("s", { stacks: { s: "a b" }, screens: { b: need() }, entrances: [link("e", "b", { kind: "shortcut", pass: { id: "'x'" } })] }),
  },
  {
    code: "wrong-type",
    subjects: ["go"],
    bad: app("s", { stacks: { s: "a b" }, screens: { b: need("n", "integer") }, legs: ["go a push b pass.n='x'"] }),
    good: app("s", { stacks: { s: "a b" }, screens: { b: need("n", "integer") }, legs: ["go a push b pass.n=7"] }),
  },
  {
    code: "wrong-type",
    subjects: ["e"],
    bad: app("s", { stacks: { s: "a" }, entrances: [link("e", "a", { when: "fact.nobody" })] }),
    good: app("s", { stacks: { s: "a" }, facts: [flag], entrances: [link("e", "a", { when: "fact.f" })] }),
  },
  {
    code: "ambiguous",
    subjects: ["two", "one"],
    bad: app("s", { stacks: { s: "a b c" }, legs: ["one a:on(go) push b", "two a:on(go) push c"] }),
    good: app("s", { stacks: { s: "a b c" }, facts: [flag], legs: ["one a:on(go) push b if=fact.f", "two a:on(go) push c"] }),
  },
  {
    code: "up-cycle",
    subjects: ["a", "b"],
    bad: app("s", { stacks: { s: "a b" }, screens: { a: { up: "b" }, b: { up: "a" } } }),
    good: app("s", { stacks: { s: "a b" }, screens: { b: { up: "a" } } }),
  },
  {
    code: "up-arguments",
    subjects: ["c", "b", "id"],
    bad: app("s", { stacks: { s: "a b c" }, screens: { b: need(), c: { up: "b" } } }),
    good: app("s", { stacks: { s: "a b c" }, screens: { b: need(), c: { up: "b", ...need() } } }),
  },
  {
    code: "link-clash",
    subjects: ["e", "f"],
    bad: app("s", { stacks: { s: "a b" }, entrances: [link("e", "a", { pattern: "/x/{id}" }), link("f", "b", { pattern: "/x/{name}" })] }),
    good: app("s", { stacks: { s: "a b" }, entrances: [link("e", "a", { pattern: "/x/{id}" }), link("f", "b", { pattern: "/x/new" })] }),
  },
  {
    code: "link-clash",
    subjects: ["e", "f"],
    bad: app("s", { stacks: { s: "a b" }, entrances: [link("e", "a", { pattern: "/x/a-{id}" }), link("f", "b", { pattern: "/x/{name}-b" })] }),
    good: app("s", { stacks: { s: "a b" }, entrances: [link("e", "a", { pattern: "/{id}/b" }), link("f", "b", { pattern: "/a/{name}" })] }),
  },
  {
    code: "link-clash",
    subjects: ["e", "f"],
    bad: app("s", { stacks: { s: "a b" }, entrances: [link("e", "a", { pattern: "/{+rest}" }), link("f", "b", { pattern: "/{+path}" })] }),
    good: app("s", { stacks: { s: "a b" }, entrances: [link("e", "a", { pattern: "/{+rest}" }), link("f", "b", { pattern: "/{id}" })] }),
  },
  {
    code: "link-arguments",
    subjects: ["e", "id"],
    bad: app("s", { stacks: { s: "a b" }, screens: { b: need() }, entrances: [link("e", "b", { pattern: "/b" })] }),
    good: app("s", { stacks: { s: "a b" }, screens: { b: need() }, entrances: [link("e", "b", { pattern: "/b/{id}" })] }),
  },
  {
    code: "link-arguments",
    subjects: ["e", "r"],
    bad: app("s", {
      stacks: { s: "a b" },
      types: [rows],
      screens: { b: { params: [{ name: "r", type: "row", required: false }] } },
      entrances: [link("e", "b", { pattern: "/b" })],
    }),
    good: app("s", { stacks: { s: "a b" }, types: [rows], screens: { b: { params: [{ name: "r", type: "row", required: false }] } } }),
  },
  {
    code: "no-way-up",
    subjects: ["e", "b"],
    bad: app("t", { tabs: { t: "a b" }, screens: { a: { hub: true } }, entrances: [link("e", "b")] }),
    good: app("s", { stacks: { s: "a b" }, screens: { a: { hub: true } }, entrances: [link("e", "b")] }),
  },
  {
    code: "idle-element",
    subjects: ["a", "x"],
    bad: app("a", { screens: { a: screen(el("x")) } }),
    good: app("a", { screens: { a: screen(el("x", "text")) } }),
  },
  {
    code: "idle-element",
    subjects: ["a", "x"],
    bad: app("a", { screens: { a: screen(el("x")) } }),
    good: app("a", { screens: { a: { ...screen(el("x")), planned: true } } }),
  },
  { code: "tab-count", subjects: ["t"], bad: app("t", { tabs: { t: "a b c d e f" } }), good: app("t", { tabs: { t: ["a b c d e f", { edge: "side" }] } }) },
  { code: "tab-count", subjects: ["t"], bad: app("t", { tabs: { t: "a" } }), good: app("t", { tabs: { t: "a b" } }) },
  { code: "no-menu-control", subjects: ["d"], bad: app("d", { drawers: { d: "a b" } }), good: app("d", { drawers: { d: "a b" }, legs: ["m a menu"] }) },
  { code: "no-menu-control", subjects: ["d"], bad: app("d", { drawers: { d: "a b" } }), good: app("d", { drawers: { d: ["a b", { pinnedFrom: "middle" }] } }) },
  {
    code: "pages-push",
    subjects: ["next"],
    bad: app("s", {
      stacks: { s: "a b" },
      types: [rows],
      screens: { b: paged },
      legs: ["go a push b pass.id='one'", "next b push b pass.id=next.id if=has(next.id)"],
    }),
    good: app("s", {
      stacks: { s: "a b" },
      types: [rows],
      screens: { b: paged },
      legs: ["go a push b pass.id='one'", "next b replace b pass.id=next.id if=has(next.id)"],
    }),
  },
  {
    code: "past-the-end",
    subjects: ["next"],
    bad: app("s", { stacks: { s: "a b" }, types: [rows], screens: { b: paged }, legs: ["go a push b pass.id='one'", "next b replace b pass.id=next.id"] }),
    good: app("s", {
      stacks: { s: "a b" },
      types: [rows],
      screens: { b: paged },
      legs: ["go a push b pass.id='one'", "next b replace b pass.id=next.id if=has(next.id)"],
    }),
  },
  {
    code: "no-outside",
    subjects: ["m"],
    bad: app("s", { stacks: { s: "a" }, modals: { m: ["x", { shape: "full", closeOn: ["outside", "back"] }] }, legs: ["up a open m"] }),
    good: app("s", { stacks: { s: "a" }, modals: { m: ["x", { closeOn: ["outside", "back"] }] }, legs: ["up a open m"] }),
  },
  {
    code: "one-outcome",
    subjects: ["a", "go"],
    bad: app("s", { stacks: { s: "a b" }, legs: ["x a:submit(go=saved) push b"] }),
    good: app("s", { stacks: { s: "a b" }, legs: ["x a:submit(go=saved) push b", "y a:submit(go=failed) replace b"] }),
  },
  {
    code: "same-name",
    subjects: ["a", "b"],
    bad: app("s", { stacks: { s: "a b" }, screens: { a: { name: "Hive" }, b: { name: "Hive" } } }),
    good: app("s", { stacks: { s: "a b" }, screens: { a: { name: "Hive" }, b: { name: "Hives" } } }),
  },
  {
    code: "same-name",
    subjects: ["x", "y"],
    bad: app("s", {
      stacks: { s: "a b c" },
      screens: { a: screen(el("x", "button", { label: "Go" }), el("y", "button", { label: "Go" })) },
      legs: ["x a push b", "y a push c"],
    }),
    good: app("s", {
      stacks: { s: "a b c" },
      screens: { a: screen(el("x", "button", { label: "Go" }), el("y", "button", { label: "Go" })) },
      legs: ["x a push b", "y a push b"],
    }),
  },
  {
    code: "self-leg",
    subjects: ["go"],
    bad: app("s", { stacks: { s: "a" }, legs: ["go a push a"] }),
    good: app("s", { stacks: { s: "a" }, screens: { a: need() }, legs: ["go a push a pass.id='other'"] }),
  },
  {
    code: "unused-parameter",
    subjects: ["b", "id"],
    bad: app("s", { stacks: { s: "a b" }, screens: { b: need() } }),
    good: app("s", { stacks: { s: "a b" }, screens: { b: { ...need(), title: "{param.id}" } } }),
  },
  {
    code: "unused-fact",
    subjects: ["f"],
    bad: app("a", { screens: { a: {} }, facts: [flag] }),
    good: app("a", { screens: { a: { title: "{fact.f ? 'x' : 'y'}" } }, facts: [flag] }),
  },
  {
    code: "unused-element",
    subjects: ["s", "x"],
    bad: app("s", { stacks: { s: ["a b", { elements: [el("x", "text", { except: ["a", "b"] })] }] } }),
    good: app("s", { stacks: { s: ["a b", { elements: [el("x", "text", { except: ["a"] })] }] } }),
  },
  {
    code: "carry-mismatch",
    subjects: ["go"],
    bad: carrying("grow", "nothing"),
    good: carrying("grow", "y"),
  },
  { code: "carry-mismatch", subjects: ["go"], bad: carrying("slide", "y"), good: carrying("grow", "y") },
  {
    code: "lost-result",
    subjects: ["done", "tint"],
    bad: app("s", { stacks: { s: "a", f: "x" }, modals: { m: "f" }, legs: ["up a open m", "done x close give.tint='red'"] }),
    good: app("s", {
      stacks: { s: "a", f: "x" },
      modals: { m: "f" },
      screens: { a: { params: [{ name: "tint", type: "text", required: false }] } },
      legs: ["up a open m", "done x close give.tint='red'"],
    }),
  },
  {
    // Opened from two screens, one of which takes nothing: it is lost there, two screens down a stack that has no end.
    code: "lost-result",
    subjects: ["done", "tint"],
    bad: app("s", {
      stacks: { s: "a b c", f: "x" },
      modals: { m: "f" },
      screens: { a: { params: [{ name: "tint", type: "text", required: false }], mayRepeat: true }, b: { mayRepeat: true } },
      legs: ["on a push b", "round b push a", "up a open m", "deep b push c", "there c open m", "done x close give.tint='red'"],
    }),
    good: app("s", {
      stacks: { s: "a b c", f: "x" },
      modals: { m: "f" },
      screens: {
        a: { params: [{ name: "tint", type: "text", required: false }], mayRepeat: true },
        b: { mayRepeat: true },
        c: { params: [{ name: "tint", type: "text", required: false }] },
      },
      legs: ["on a push b", "round b push a", "up a open m", "deep b push c", "there c open m", "done x close give.tint='red'"],
    }),
  },
  {
    // Going back through a stack without end: what lies beneath the picker takes it, or does not.
    code: "lost-result",
    subjects: ["done", "tint"],
    bad: app("s", {
      stacks: { s: "a b p" },
      screens: { a: { params: [{ name: "tint", type: "text", required: false }], mayRepeat: true }, b: { mayRepeat: true }, p: { mayRepeat: true } },
      legs: ["on a push b", "round b push a", "up a push p", "there b push p", "done p back give.tint='red'"],
    }),
    good: app("s", {
      stacks: { s: "a b p" },
      screens: { a: { params: [{ name: "tint", type: "text", required: false }], mayRepeat: true }, b: { mayRepeat: true }, p: { mayRepeat: true } },
      legs: ["on a push b", "round b push a", "up a push p", "there b push p", "done p return a give.tint='red'"],
    }),
  },
  {
    code: "wrong-type",
    subjects: ["done"],
    bad: app("s", {
      stacks: { s: "a", f: "x" },
      modals: { m: "f" },
      screens: { a: { params: [{ name: "tint", type: "text", required: false }] } },
      legs: ["up a open m", "done x close give.tint=1"],
    }),
    good: app("s", {
      stacks: { s: "a b", f: "x" },
      modals: { m: "f" },
      screens: {
        a: { params: [{ name: "tint", type: "text", required: false }] },
        b: { params: [{ name: "tint", type: "integer", required: false }] },
      },
      legs: ["up a open m", "done x close give.tint=1"],
    }),
  },
  {
    code: "idle-leg",
    subjects: ["shut"],
    bad: app("s", { stacks: { s: "a b" }, modals: { m: "x" }, legs: ["up a open m", "on a push b", "shut b close m"] }),
    good: app("s", { stacks: { s: "a b" }, modals: { m: ["x", { blocks: false }] }, legs: ["up a open m", "on a push b", "shut b close m"] }),
  },
  {
    code: "idle-leg",
    subjects: ["again"],
    bad: app("s", { stacks: { s: "a b" }, facts: [flag], legs: ["go a push b set.f=true", "again b set set.f=true"] }),
    good: app("s", { stacks: { s: "a b" }, facts: [flag], legs: ["go a push b", "again b set set.f=true"] }),
  },
  // The nearest neighbour of each rule differs from it in one leg, or in one word of the rule.
  {
    code: "broken-rule",
    subjects: ["r", "form"],
    bad: ruled({ kind: "never", see: { places: ["form"] }, after: { places: ["sent"] } }, ["open home push form", "send form push sent"]),
    good: ruled({ kind: "never", see: { places: ["form"] }, after: { places: ["sent"] }, until: { legs: ["open"] } }, [
      "open home push form",
      "send form replace sent",
    ]),
  },
  {
    code: "broken-rule",
    subjects: ["r", "sent"],
    bad: ruled({ kind: "first", needs: { places: ["form"] }, before: { places: ["sent"] } }, ["open home push form", "skip home push sent"]),
    good: ruled({ kind: "first", needs: { places: ["form"] }, before: { places: ["sent"] } }, ["open home push form", "send form push sent"]),
  },
  {
    code: "broken-rule",
    subjects: ["r", "form"],
    bad: ruled({ kind: "only", while: "!fact.f", see: ["home"] }, ["open home push form", "join home set set.f=true"]),
    good: ruled({ kind: "only", while: "!fact.f", see: ["home"] }, ["open home push form if=fact.f", "join home set set.f=true"]),
  },
  {
    code: "broken-rule",
    subjects: ["r", "home"],
    bad: ruled({ kind: "within", taps: 1, to: ["sent"] }, ["open home push form", "send form push sent"]),
    good: ruled({ kind: "within", taps: 2, to: ["sent"] }, ["open home push form", "send form push sent"]),
  },
  {
    code: "idle-leg",
    subjects: ["unset"],
    bad: forgetting([]),
    // What it sets back was set elsewhere; that only a text shows the fact does not matter.
    good: forgetting(["set"]),
  },
  {
    code: "missing-picture",
    subjects: ["a"],
    bad: pictured({ file: "gone.png" }),
    good: pictured({}),
    files: { "a.png": { size: [390, 844] } },
  },
  {
    code: "missing-picture",
    subjects: ["a"],
    bad: pictured({ size: [390, 800] }),
    good: pictured({}),
    files: { "a.png": { size: [390, 844] } },
  },
  {
    code: "missing-picture",
    subjects: ["a"],
    bad: pictured({ file: "odd.png" }),
    good: pictured({}),
    files: { "a.png": { size: [390, 844] }, "odd.png": {} },
  },
  {
    code: "lost-area",
    subjects: ["a", "gone"],
    bad: pictured({ areas: [{ at: [0, 0, 10, 10], control: "gone" }] }),
    good: pictured({}),
  },
  {
    code: "lost-area",
    subjects: ["a", "go"],
    bad: pictured({ areas: [{ at: [300, 0, 100, 10], control: "go" }] }),
    good: pictured({ areas: [{ at: [290, 0, 100, 10], control: "go" }] }),
  },
  {
    code: "lost-area",
    subjects: ["a", "tab:b"],
    bad: pictured({ areas: [{ at: [0, 0, 10, 10], control: "tab:b" }] }),
    good: pictured({}),
  },
  {
    code: "empty-rule",
    subjects: ["r"],
    bad: ruled({ kind: "never", see: { places: ["form"] }, after: { legs: ["gone"] } }, ["open home push form"]),
    good: ruled({ kind: "never", see: { places: ["sent"] }, after: { legs: ["open"] } }, ["open home push form", "send home push sent"]),
  },
  {
    code: "empty-rule",
    subjects: ["r"],
    bad: ruled({ kind: "only", while: "fact.f", see: ["home"] }, ["open home push form"]),
    good: ruled({ kind: "only", while: "!fact.f", see: ["home", "form"] }, ["open home push form"]),
  },
];

/** A leg that carries an element of its source to one of its target. */
function carrying(kind: "grow" | "slide", to: string): Project {
  const project = app("s", { stacks: { s: "a b" }, screens: { b: screen(el("y", "image")) }, legs: ["go a push b"] });
  return { ...project, legs: project.legs.map((leg) => ({ ...leg, motion: { kind, carries: [{ from: "go", to }] } })) };
}

/** A control that sets a fact back which another one sets. */
function forgetting(others: string[]): Project {
  const project = app("s", {
    stacks: { s: "a b" },
    screens: { a: screen(el("mark"), el("unmark"), el("says", "text", { text: "{fact.f}" })) },
    facts: [flag],
    legs: ["go a push b"],
  });
  const leg = (id: string, element: string, value: string) => ({ id, from: "a", on: { kind: "tap" as const, element }, set: { f: value } });
  return { ...project, legs: [...project.legs, ...others.map((id) => leg(id, "mark", "true")), leg("unset", "unmark", "false")] };
}

/** A stack of two screens; the first has a picture with an area. */
function pictured(picture: Partial<Picture>): Project {
  const project = app("s", { stacks: { s: "a b" }, legs: ["go a push b"] });
  const usual: Picture = { file: "a.png", size: [390, 844], holds: "screen", areas: [{ at: [10, 10, 100, 40], control: "go" }] };
  return { ...project, screens: project.screens.map((s) => (s.id === "a" ? { ...s, pictures: [{ ...usual, ...picture }] } : s)) };
}

/** A stack of three screens with a rule. */
function ruled(rule: object, legs: string[]): Project {
  const project = app("s", { stacks: { s: "home form sent" }, screens: { home: { hub: true } }, facts: [flag], legs });
  return { ...project, rules: [{ id: "r", name: "R", ...rule } as NonNullable<Project["rules"]>[number]] };
}
