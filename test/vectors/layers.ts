import { app } from "./app.ts";
import type { Vector } from "./vector.ts";

const modal = (settings = {}, legs: string[] = [], more: Parameters<typeof app>[1] = {}) =>
  app("s", { legs: ["up a open m", ...legs], ...more, stacks: { s: "a b", f: "x y", ...more.stacks }, modals: { m: ["f", settings], ...more.modals } });

export const layers: Vector[] = [
  { says: "open: a new layer on top with the modal's start", app: modal(), launch: "s[a]", steps: [["up", "s[a] + m(f[x])"]] },
  { says: "open with show shows that instead", app: modal({}, ["direct a open m show=y"]), launch: "s[a]", steps: [["direct", "s[a] + m(y)"]] },
  {
    says: "the modal already open and on top: ignored",
    app: modal({ blocks: false }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["up", "ignored"],
    ],
  },
  {
    says: "the modal already open beneath another: the layers above it close",
    app: modal({}, ["more x open n", "again z open m"], { modals: { n: "z" } }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["more", "s[a] + m(f[x]) + n(z)"],
      ["again", "s[a] + m(f[x])"],
    ],
  },
  {
    says: "instead: the topmost layer goes first",
    app: modal({}, ["more x open n instead=true"], { modals: { n: "z" } }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["more", "s[a] + n(z)"],
    ],
  },
  {
    says: "open closes an open drawer on the source's branch",
    app: app("d", { drawers: { d: "a b" }, modals: { m: "x" }, screens: { a: { bar: { show: true, lead: "menu" } } }, legs: ["up d open m"] }),
    launch: "d{*a}",
    steps: [
      ["lead", "d{*a}!"],
      ["up", "d{*a} + m(x)"],
    ],
  },
  {
    says: "close without a name: the source's own layer, with all above",
    app: modal({}, ["shut x close"]),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["shut", "s[a]"],
    ],
  },
  {
    says: "close by name takes the layers above along",
    app: modal({}, ["more x open n", "all z close m"], { modals: { n: "z" } }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["more", "s[a] + m(f[x]) + n(z)"],
      ["all", "s[a]"],
    ],
  },
  { says: "close of what is not open: ignored", app: modal({}, ["shut a close m"]), launch: "s[a]", steps: [["shut", "ignored"]] },
  { says: "close on the base without a name: ignored", app: modal({}, ["shut a close"]), launch: "s[a]", steps: [["shut", "ignored"]] },
  {
    says: "close by hand in a way that the modal lists",
    app: modal(),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["close button", "ignored"],
      ["close swipe", "s[a]"],
    ],
  },
  {
    says: "outside never closes a modal of shape full",
    app: modal({ shape: "full", closeOn: ["outside"] }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["close outside", "ignored"],
    ],
  },
  {
    says: "the way back is for the event back alone",
    app: modal({ closeOn: ["back"] }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["close back", "ignored"],
      ["back", "s[a]"],
    ],
  },
  {
    says: "beneath a layer that blocks, legs are out of reach",
    app: modal({}, ["on a push b"]),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["on", "ignored"],
    ],
  },
  {
    says: "beneath one that does not, they act on their own branch",
    app: modal({ blocks: false }, ["on a push b"]),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["on", "s[a,b] + m(f[x])"],
    ],
  },
  {
    says: "push in beneath: on the branch beneath, the source's layer closes",
    app: modal({}, ["done x push b in=beneath"]),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["done", "s[a,b]"],
    ],
  },
  {
    says: "push in beneath on the base is as without in",
    app: app("s", { stacks: { s: "a b" }, legs: ["go a push b in=beneath"] }),
    launch: "s[a]",
    steps: [["go", "s[a,b]"]],
  },
  {
    says: "push in beneath without a stack there: no-stack",
    app: app("a", { screens: { a: {}, b: {} }, modals: { m: "x" }, legs: ["up a open m", "done x push b in=beneath"] }),
    launch: "a",
    steps: [
      ["up", "a + m(x)"],
      ["done", "refused no-stack"],
    ],
  },
  {
    says: "push into a stack of the base by id closes the layers above it",
    app: modal({}, ["done x push b in=s"]),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["done", "s[a,b]"],
    ],
  },
  {
    says: "a modal's own legs can be used on every screen in it",
    app: modal({}, ["shut m close", "on x push y"]),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["on", "s[a] + m(f[x,y])"],
      ["shut", "s[a]"],
    ],
  },
  {
    says: "a container's leg can be used on all screens in it",
    app: app("s", { stacks: { s: "a b" }, legs: ["on a push b", "home s reset a"] }),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["home", "s[a]"],
    ],
  },
  {
    says: "lead in a layer goes back in its own stack",
    app: modal({}, ["on x push y"]),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["on", "s[a] + m(f[x,y])"],
      ["lead", "s[a] + m(f[x])"],
      ["lead", "ignored"],
    ],
  },
];

const ask = (legs: string[], more: Parameters<typeof app>[1] = {}) =>
  app("t", {
    tabs: { t: "s u" },
    stacks: { s: "a b", u: "x" },
    modals: { q: ["sure", { closeOn: ["back"] }] },
    facts: [{ id: "unsaved", type: "boolean", initial: true, source: "app" }],
    ...more,
    legs: ["on a push b", "no sure close", "yes sure proceed", ...legs],
  });

export const departing: Vector[] = [
  {
    says: "a depart leg fires instead of the event, which is held",
    app: ask(["stop b:depart open q"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["back", "t{*s[a,b]} + q(sure)"],
      ["yes", "t{*s[a]}"],
    ],
  },
  {
    says: "staying: what is held is dropped when the layer is gone",
    app: ask(["stop b:depart open q", "go b:on(go) proceed"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["tab u", "t{*s[a,b]} + q(sure)"],
      ["no", "t{*s[a,b]}"],
      ["go", "ignored"],
    ],
  },
  {
    says: "proceed does the held tab without asking again",
    app: ask(["stop b:depart open q"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["tab u", "t{*s[a,b]} + q(sure)"],
      ["yes", "t{s[a,b],*u[x]}"],
    ],
  },
  {
    says: "by names the events that are asked about",
    app: ask(["stop b:depart(tab) open q"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["back", "t{*s[a]}"],
    ],
  },
  {
    says: "a condition that does not hold lets the event go on",
    app: ask(["stop b:depart open q if=!fact.unsaved"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["back", "t{*s[a]}"],
    ],
  },
  {
    says: "leaving the app is asked about too",
    app: ask(["stop a:depart open q"]),
    launch: "t{*s[a]}",
    steps: [
      ["back", "t{*s[a]} + q(sure)"],
      ["yes", "left"],
    ],
  },
  {
    says: "the containers around are asked after the screen, from the innermost",
    app: ask(["stop s:depart open q"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["back", "t{*s[a,b]} + q(sure)"],
    ],
  },
  {
    says: "a layer's modal is asked when it would close",
    app: app("s", { stacks: { s: "a" }, modals: { m: "x", q: "sure" }, legs: ["up a open m", "stop m:depart(close) open q", "yes sure proceed"] }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["close swipe", "s[a] + m(x) + q(sure)"],
      ["yes", "s[a]"],
    ],
  },
  {
    says: "a depart leg without a move sets, and the event goes on",
    app: ask(["note b:depart set set.unsaved=false", "stop a:depart open q if=fact.unsaved"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["back", "t{*s[a]}"],
      ["tab u", "t{s[a],*u[x]}"],
    ],
  },
  {
    says: "a depart leg whose move is refused lets the event go on",
    app: ask(["stop b:depart push ghost"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["back", "t{*s[a]}"],
    ],
  },
  { says: "an event that would change nothing is not asked about", app: ask(["stop a:depart open q"]), launch: "t{*s[a]}", steps: [["tab s", "ignored"]] },
  {
    says: "opening a drawer is not departing",
    app: app("d", { drawers: { d: "a b" }, modals: { q: "sure" }, screens: { a: { bar: { show: true, lead: "menu" } } }, legs: ["stop a:depart open q"] }),
    launch: "d{*a}",
    steps: [["lead", "d{*a}!"]],
  },
  {
    says: "a held pick is done whether or not the drawer is open",
    app: app("d", {
      drawers: { d: "a b" },
      modals: { q: "sure" },
      screens: { a: { bar: { show: true, lead: "menu" } } },
      legs: ["stop a:depart open q", "yes sure proceed"],
    }),
    launch: "d{*a}",
    steps: [
      ["lead", "d{*a}!"],
      ["pick b", "d{*a} + q(sure)"],
      ["yes", "d{a,*b}"],
    ],
  },
  {
    says: "a depart leg that opens nothing replaces the event for good",
    app: ask(["stop b:depart reset a"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["tab u", "t{*s[a]}"],
    ],
  },
  {
    says: "a warm way in is asked about as link",
    app: ask(["stop b:depart(link) open q"], { entrances: [{ id: "e", name: "e", kind: "link", to: "x", warm: "rebuild" }] }),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["enter e", "t{*s[a,b]} + q(sure)"],
      ["yes", "t{*u[x]}"],
    ],
  },
  {
    says: "a cold way in is not",
    app: ask(["stop b:depart open q"], { entrances: [{ id: "e", name: "e", kind: "link", to: "x", warm: "rebuild" }] }),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["cold e", "t{*u[x]}"],
    ],
  },
  { says: "proceed with nothing held: ignored", app: ask(["go a proceed"]), launch: "t{*s[a]}", steps: [["go", "ignored"]] },
];
