import { app } from "./app.ts";
import type { Vector } from "./vector.ts";

const link = (id: string, to: string, more = {}) => ({ id, name: id, kind: "link", to, warm: "rebuild", ...more });
const member = { id: "member", type: "boolean", initial: false, source: "app", persists: true };
const house = (entrances: Array<Record<string, unknown>>, more: Parameters<typeof app>[1] = {}) =>
  app("t", {
    tabs: { t: "s u" },
    stacks: { s: "a b c", u: "x y", f: "p q" },
    modals: { m: "f" },
    entrances,
    ...more,
    screens: { c: { up: "b" }, ...more.screens },
  });

export const entrances: Vector[] = [
  {
    says: "cold: the containers from the root to the place, the owning stack with its trail",
    app: house([link("e", "c")]),
    launch: "t{*s[a]}",
    steps: [["cold e", "t{*s[a,b,c]}"]],
  },
  {
    says: "warm rebuild: layers go",
    app: house([link("e", "y")], { legs: ["o a open m"] }),
    launch: "t{*s[a]}",
    steps: [
      ["o", "t{*s[a]} + m(f[p])"],
      ["enter e", "t{*u[x,y]}"],
    ],
  },
  {
    says: "a trail ends where the up target has another owner",
    app: house([link("e", "y")], { screens: { y: { up: "b" } } }),
    launch: "t{*s[a]}",
    steps: [["cold e", "t{*u[y]}"]],
  },
  {
    says: "a place in a modal's tree: the base is Make(root), the modal opens with the trail inside",
    app: house([link("e", "q")]),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["enter e", "t{*s[a]} + m(f[p,q])"],
    ],
  },
  {
    says: "onTop: layers close and the screen goes on the nearest stack of the base",
    app: house([link("e", "c", { warm: "onTop" })], { legs: ["o x open m"] }),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["o", "t{s[a],*u[x]} + m(f[p])"],
      ["enter e", "t{s[a],*u[x,c]}"],
    ],
  },
  {
    says: "onTop without a stack: as rebuild",
    app: app("t", { tabs: { t: "a s" }, stacks: { s: "x y" }, entrances: [link("e", "y", { warm: "onTop" })] }),
    launch: "t{*a}",
    steps: [["enter e", "t{*s[x,y]}"]],
  },
  {
    says: "onTop closes an open drawer on the base",
    app: app("d", {
      drawers: { d: "s u" },
      stacks: { s: "a b", u: "x" },
      screens: { a: { bar: { show: true, lead: "menu" } } },
      entrances: [link("e", "b", { warm: "onTop" })],
    }),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["enter e", "d{*s[a,b]}"],
    ],
  },
  {
    says: "a cold onTop is rebuilt",
    app: house([link("e", "c", { warm: "onTop" })]),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["cold e", "t{*s[a,b,c]}"],
    ],
  },
  {
    says: "when false, no otherwise, warm: not-allowed",
    app: house([link("e", "c", { when: "fact.member" })], { facts: [member] }),
    launch: "t{*s[a]}",
    steps: [["enter e", "refused not-allowed"]],
  },
  {
    says: "when false, no otherwise, cold: as launch",
    app: house([link("e", "c", { when: "fact.member" })], { facts: [member] }),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["cold e", "t{*s[a]}"],
    ],
  },
  {
    says: "when false: otherwise, as by rebuild",
    app: house([link("e", "c", { when: "fact.member", otherwise: "y", warm: "onTop" })], { facts: [member] }),
    launch: "t{*s[a]}",
    steps: [["enter e", "t{*u[x,y]}"]],
  },
  {
    says: "resume: the entrance waits, and a leg with resumes goes there instead of its own move",
    app: house([link("e", "c", { when: "fact.member", otherwise: "y", resume: true })], { facts: [member], legs: ["join y reset x set.member=true resumes"] }),
    launch: "t{*s[a]}",
    steps: [
      ["enter e", "t{*u[x,y]}"],
      ["join", "t{*s[a,b,c]}"],
    ],
  },
  {
    says: "nothing waiting: the leg makes its own move",
    app: house([link("e", "c", { when: "fact.member", otherwise: "y", resume: true })], {
      facts: [member],
      legs: ["go x push y", "join y reset x set.member=true resumes"],
    }),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["go", "t{s[a],*u[x,y]}"],
      ["join", "t{s[a],*u[x]}"],
    ],
  },
  {
    says: "without resume nothing waits",
    app: house([link("e", "c", { when: "fact.member", otherwise: "y" })], { facts: [member], legs: ["join y reset x set.member=true resumes"] }),
    launch: "t{*s[a]}",
    steps: [
      ["enter e", "t{*u[x,y]}"],
      ["join", "t{*u[x]}"],
    ],
  },
  {
    says: "a launch clears what waits",
    app: house([link("e", "c", { when: "fact.member", otherwise: "y", resume: true })], {
      facts: [member],
      legs: ["go x push y", "join y reset x set.member=true resumes"],
    }),
    launch: "t{*s[a]}",
    steps: [
      ["enter e", "t{*u[x,y]}"],
      ["launch", "t{*s[a]}"],
      ["tab u", "t{s[a],*u[x]}"],
      ["go", "t{s[a],*u[x,y]}"],
      ["join", "t{s[a],*u[x]}"],
    ],
  },
  { says: "no such screen: no-place", app: house([link("e", "ghost")]), launch: "t{*s[a]}", steps: [["enter e", "refused no-place"]] },
  { says: "an entrance that is not there: ignored", app: house([]), launch: "t{*s[a]}", steps: [["enter e", "ignored"]] },
];

const fact = (id: string, more = {}) => ({ id, type: "boolean", initial: false, source: "app", ...more });

export const facts: Vector[] = [
  {
    says: "launch: facts that persist are kept, others go back to initial",
    app: app("s", {
      stacks: { s: "a b c" },
      facts: [fact("kept", { persists: true }), fact("lost")],
      legs: ["set1 a set set.kept=true set.lost=true", "x a push b if=fact.kept", "y a push c if=fact.lost"],
    }),
    launch: "s[a]",
    steps: [
      ["x", "ignored"],
      ["set1", "s[a]"],
      ["launch", "s[a]"],
      ["y", "ignored"],
      ["x", "s[a,b]"],
    ],
  },
  {
    says: "launch keeps facts from outside",
    app: app("s", { stacks: { s: "a b" }, facts: [fact("online", { source: "outside" })], legs: ["x a push b if=fact.online"] }),
    launch: "s[a]",
    steps: [
      ["fact online true", "s[a]"],
      ["launch", "s[a]"],
      ["x", "s[a,b]"],
    ],
  },
  {
    says: "a fact of the app can not be changed from outside",
    app: app("s", { stacks: { s: "a" }, facts: [fact("own")] }),
    launch: "s[a]",
    steps: [["fact own true", "ignored"]],
  },
  {
    says: "the same value, or none of its values: ignored",
    app: app("s", { stacks: { s: "a" }, facts: [{ id: "mode", type: "choice", values: ["day", "night"], initial: "day", source: "outside" }] }),
    launch: "s[a]",
    steps: [
      ["fact mode day", "ignored"],
      ["fact mode dusk", "ignored"],
      ["fact mode night", "s[a]"],
    ],
  },
  {
    says: "a leg without a move only sets: moved if a fact changes, else ignored",
    app: app("s", { stacks: { s: "a" }, facts: [fact("f")], legs: ["on a set set.f=true"] }),
    launch: "s[a]",
    steps: [
      ["on", "s[a]"],
      ["on", "ignored"],
    ],
  },
  {
    says: "set applies where the move was made",
    app: app("s", {
      stacks: { s: "a b c" },
      facts: [fact("f")],
      legs: ["no a push ghost set.f=true", "go a push b set.f=true", "on a push c if=fact.f", "more b push c if=fact.f"],
    }),
    launch: "s[a]",
    steps: [
      ["no", "refused no-place"],
      ["on", "ignored"],
      ["go", "s[a,b]"],
      ["more", "s[a,b,c]"],
    ],
  },
  {
    says: "values are worked out in the state before",
    app: app("s", {
      stacks: { s: "a b" },
      facts: [fact("f"), fact("g", { initial: true })],
      legs: ["swap a set set.f=fact.g set.g=fact.f", "x a push b if=fact.f&&!fact.g"],
    }),
    launch: "s[a]",
    steps: [
      ["swap", "s[a]"],
      ["x", "s[a,b]"],
    ],
  },
  {
    says: "width can be asked",
    app: app("s", { stacks: { s: "a b" }, legs: ["x a push b if=width=='wide'"] }),
    launch: "s[a]",
    steps: [
      ["x", "ignored"],
      ["width wide", "s[a]"],
      ["x", "s[a,b]"],
    ],
  },
];

export const firing: Vector[] = [
  {
    says: "no earlier leg with the same source and trigger can: the first that holds fires",
    app: app("s", { stacks: { s: "a b c" }, facts: [fact("f")], legs: ["one a:on(go) push b if=fact.f", "two a:on(go) push c", "flip a set set.f=true"] }),
    launch: "s[a]",
    steps: [
      ["one", "ignored"],
      ["flip", "s[a]"],
      ["two", "ignored"],
      ["one", "s[a,b]"],
    ],
  },
  {
    says: "legs with different outcomes are alternatives",
    app: app("s", { stacks: { s: "a b c" }, legs: ["ok a:submit(go=saved) push b", "bad a:submit(go=failed) push c"] }),
    launch: "s[a]",
    steps: [
      ["bad", "s[a,c]"],
      ["back", "s[a]"],
      ["ok", "s[a,b]"],
    ],
  },
  {
    says: "an element that is not shown or not enabled can not be used",
    app: app("s", {
      stacks: { s: "a b" },
      facts: [fact("f")],
      screens: {
        a: {
          elements: [
            { id: "x", kind: "button", label: "x", shown: "fact.f" },
            { id: "y", kind: "button", label: "y", enabled: "fact.f" },
          ],
        },
      },
      legs: ["x a push b", "y a push b", "flip a set set.f=true"],
    }),
    launch: "s[a]",
    steps: [
      ["x", "ignored"],
      ["y", "ignored"],
      ["flip", "s[a]"],
      ["y", "s[a,b]"],
    ],
  },
  {
    says: "a shared element is not on the screens in except",
    app: app("s", {
      stacks: { s: ["a b", { elements: [{ id: "help", kind: "icon", label: "?", except: ["b"] }] }] },
      modals: { m: "h" },
      legs: ["on a push b", "help s open m"],
    }),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["help", "ignored"],
      ["back", "s[a]"],
      ["help", "s[a] + m(h)"],
    ],
  },
  {
    says: "an ill-typed leg never fires",
    app: app("s", { stacks: { s: "a b" }, legs: ["go a push b if=fact.nothing"] }),
    launch: "s[a]",
    steps: [["go", "ignored"]],
  },
  {
    says: "an ill-typed shown counts as true",
    app: app("s", { stacks: { s: "a b" }, screens: { a: { elements: [{ id: "go", kind: "button", label: "x", shown: "1 + true" }] } }, legs: ["go a push b"] }),
    launch: "s[a]",
    steps: [["go", "s[a,b]"]],
  },
  {
    says: "a leg out of reach: ignored",
    app: app("s", { stacks: { s: "a b" }, legs: ["on a push b", "home b back"] }),
    launch: "s[a]",
    steps: [["home", "ignored"]],
  },
  {
    says: "arrive and depart legs are not for events",
    app: app("s", { stacks: { s: "a b" }, legs: ["x b:arrive push a", "y a:depart push b"] }),
    launch: "s[a]",
    steps: [
      ["x", "ignored"],
      ["y", "ignored"],
    ],
  },
  {
    says: "an after leg fires at most once for each Made screen",
    app: app("s", { stacks: { s: "a b" }, legs: ["wait a:after(500) push b", "home b back"] }),
    launch: "s[a]",
    steps: [
      ["wait", "s[a,b]"],
      ["home", "s[a]"],
      ["wait", "ignored"],
      ["launch", "s[a]"],
      ["wait", "s[a,b]"],
    ],
  },
  {
    says: "a required argument that has no value: no-value",
    app: app("s", {
      stacks: { s: "a b" },
      types: [{ id: "row", name: "row", fields: [{ name: "id", type: "text" }], samples: [{ id: "one" }, { id: "two" }] }],
      screens: {
        a: { elements: [{ id: "go", kind: "list", label: "rows", of: "row" }] },
        b: { params: [{ name: "id", type: "text", required: true }], pages: { over: "row", by: "id" } },
      },
      legs: ["go a push b pass.id=item.id", "next b replace b pass.id=next.id"],
    }),
    launch: "s[a]",
    steps: [
      [{ do: "leg", leg: "go" }, "refused no-value"],
      [{ do: "leg", leg: "go", item: "three" }, "ignored"],
      [{ do: "leg", leg: "go", item: "one" }, "s[a,b]"],
      ["next", "s[a,b]"],
      ["next", "refused no-value"],
    ],
  },
];

export const arriving: Vector[] = [
  {
    says: "an arrive leg of the current screen fires after each event that moved",
    app: app("s", { stacks: { s: "a b c" }, legs: ["go a push b", "on b:arrive replace c"] }),
    launch: "s[a]",
    steps: [["go", "s[a,c]"]],
  },
  { says: "and at launch", app: app("s", { stacks: { s: "a b" }, legs: ["on a:arrive replace b"] }), launch: "s[b]", steps: [] },
  {
    says: "more than 32 in a row: redirect-loop, and the state of before",
    app: app("s", { stacks: { s: "a b c" }, legs: ["go a push b", "x b:arrive replace c", "y c:arrive replace b"] }),
    launch: "s[a]",
    steps: [["go", "refused redirect-loop"]],
  },
  {
    says: "a launch that loops shows the state before its first arrive leg",
    app: app("s", { stacks: { s: "a b" }, legs: ["x a:arrive replace b", "y b:arrive replace a"] }),
    launch: "s[a]",
    steps: [],
  },
  {
    says: "one that gives anything but moved ends it, and the event has still moved",
    app: app("s", { stacks: { s: "a b" }, legs: ["go a push b", "x b:arrive push ghost"] }),
    launch: "s[a]",
    steps: [["go", "s[a,b]"]],
  },
  {
    says: "a screen uncovered by a layer closing, shown before already, does not arrive",
    app: app("s", {
      stacks: { s: "a b" },
      modals: { m: "x" },
      facts: [fact("f")],
      legs: ["up a open m", "flip x close set.f=true", "on a:arrive push b if=fact.f"],
    }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["flip", "s[a]"],
    ],
  },
  {
    says: "a screen uncovered by a launch is made again, and arrives",
    app: app("s", {
      stacks: { s: "a b" },
      modals: { m: "x" },
      facts: [fact("f", { persists: true })],
      legs: ["up a open m", "flip x set set.f=true", "on a:arrive push b if=fact.f"],
    }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["flip", "s[a] + m(x)"],
      ["launch", "s[a,b]"],
    ],
  },
  {
    says: "so does one uncovered by a way in that builds it anew",
    app: app("s", {
      stacks: { s: "a b" },
      modals: { m: "x" },
      facts: [fact("f")],
      legs: ["up a open m", "flip x set set.f=true", "on a:arrive push b if=fact.f"],
      entrances: [{ id: "home", name: "home", kind: "link", to: "a", warm: "rebuild" }],
    }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["flip", "s[a] + m(x)"],
      ["enter home", "s[a,b]"],
    ],
  },
  {
    says: "and one in a lane that is made fresh; in one that is only selected it does not",
    app: app("t", {
      tabs: { t: "s u" },
      stacks: { s: "a b", u: "y" },
      modals: { m: "x" },
      facts: [fact("f")],
      legs: ["up a open m", "flip x set set.f=true", "keep x select s", "anew x select s fresh=true", "on a:arrive push b if=fact.f"],
    }),
    launch: "t{*s[a]}",
    steps: [
      ["up", "t{*s[a]} + m(x)"],
      ["flip", "t{*s[a]} + m(x)"],
      ["keep", "t{*s[a]}"],
      ["up", "t{*s[a]} + m(x)"],
      ["anew", "t{*s[a,b]}"],
    ],
  },
  {
    says: "a screen on which a timer fired as its layer closed is the same screen, and does not arrive",
    app: app("s", {
      stacks: { s: "a b" },
      modals: { m: ["x", { blocks: false }] },
      facts: [fact("f")],
      legs: ["up a open m", "soon a:after(500) close m set.f=true", "on a:arrive push b if=fact.f"],
    }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["soon", "s[a]"],
    ],
  },
  {
    says: "one uncovered in a stack does",
    app: app("s", { stacks: { s: "a b c" }, facts: [fact("f")], legs: ["go a push b", "home b back set.f=true", "on a:arrive replace c if=fact.f"] }),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["home", "s[c]"],
    ],
  },
  {
    says: "a fact that changes lets the current screen's arrive leg fire",
    app: app("s", { stacks: { s: "a b" }, facts: [fact("ready", { source: "outside" })], legs: ["on a:arrive replace b if=fact.ready"] }),
    launch: "s[a]",
    steps: [["fact ready true", "s[b]"]],
  },
  {
    says: "while a drawer is open, no arrive leg fires beneath it",
    app: app("d", {
      drawers: { d: "s u" },
      stacks: { s: "a b", u: "x" },
      facts: [fact("ready", { source: "outside" })],
      screens: { a: { bar: { show: true, lead: "menu" } } },
      legs: ["on a:arrive push b if=fact.ready"],
    }),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["fact ready true", "d{*s[a]}!"],
      ["close outside", "d{*s[a,b]}"],
    ],
  },
  {
    says: "32 arrive legs in a row are not yet a loop",
    app: app("s", {
      stacks: { s: `a ${Array.from({ length: 33 }, (_, i) => `p${i}`).join(" ")}` },
      legs: ["go a push p0", ...Array.from({ length: 32 }, (_, i) => `x${i} p${i}:arrive replace p${i + 1}`)],
    }),
    launch: "s[a]",
    steps: [["go", "s[a,p32]"]],
  },
];
