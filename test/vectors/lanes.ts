import { app } from "./app.ts";
import type { Vector } from "./vector.ts";

const tabs = (settings = {}, legs: string[] = [], more = {}) => app("t", { tabs: { t: ["s u", settings] }, stacks: { s: "a b", u: "x y" }, legs, ...more });
const drawer = (settings = {}, legs: string[] = [], more = {}) =>
  app("d", { drawers: { d: ["s u", settings] }, stacks: { s: "a b", u: "x y" }, screens: { a: { bar: { show: true, lead: "menu" } } }, legs, ...more });

export const tabSets: Vector[] = [
  { says: "lanes come into being when first visited", app: tabs(), launch: "t{*s[a]}", steps: [["tab u", "t{s[a],*u[x]}"]] },
  {
    says: "each lane keeps its own history",
    app: tabs({}, ["on a push b"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["tab u", "t{s[a,b],*u[x]}"],
      ["tab s", "t{*s[a,b],u[x]}"],
    ],
  },
  {
    says: "keeps false: a lane that is left is dropped, to be made again",
    app: tabs({ keeps: false }, ["on a push b"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["tab u", "t{*u[x]}"],
      ["tab s", "t{*s[a]}"],
    ],
  },
  {
    says: "the active one again, root: back to the first item of its stack",
    app: tabs({}, ["on a push b"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["tab s", "t{*s[a]}"],
      ["tab s", "ignored"],
    ],
  },
  {
    says: "the active one again, nothing: ignored",
    app: tabs({ chosenAgain: "nothing" }, ["on a push b"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["tab s", "ignored"],
    ],
  },
  {
    says: "a screen that covers the tabs: no such control",
    app: tabs({}, ["on a push b"], { screens: { b: { coversTabs: true } } }),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["tab u", "ignored"],
    ],
  },
  {
    says: "no tab beneath a layer that blocks",
    app: app("t", { tabs: { t: "a b" }, modals: { m: "x" }, legs: ["up a open m"] }),
    launch: "t{*a}",
    steps: [
      ["up", "t{*a} + m(x)"],
      ["tab b", "ignored"],
    ],
  },
  {
    says: "a line names what lanes show: going over to a tab whose screen took the place of this one changes nothing",
    app: app("t", { tabs: { t: ["a b", { keeps: false }] }, legs: ["swap a replace b", "over b select b", "anew b select b fresh=true"] }),
    launch: "t{*a}",
    steps: [
      ["swap", "t{*b}"],
      ["over", "ignored"],
      ["anew", "t{*b}"],
    ],
  },
  {
    says: "tabs beneath a layer that does not block are in reach, and the layer stays",
    app: app("t", { tabs: { t: "a b" }, modals: { m: ["x", { blocks: false }] }, legs: ["up a open m"] }),
    launch: "t{*a}",
    steps: [
      ["up", "t{*a} + m(x)"],
      ["tab b", "t{a,*b} + m(x)"],
    ],
  },
  { says: "a tab that is no member: ignored", app: tabs(), launch: "t{*s[a]}", steps: [["tab nowhere", "ignored"]] },
  {
    says: "nested tab sets each answer for their own members",
    app: app("t", { tabs: { t: "i z", i: "a b" } }),
    launch: "t{*i{*a}}",
    steps: [
      ["tab b", "t{*i{a,*b}}"],
      ["tab z", "t{i{a,*b},*z}"],
      ["tab a", "ignored"],
    ],
  },
  {
    says: "select: the owner is brought up and the lane becomes active",
    app: tabs({}, ["go a select u"]),
    launch: "t{*s[a]}",
    steps: [["go", "t{s[a],*u[x]}"]],
  },
  { says: "select of the active lane, nothing changed: ignored", app: tabs({}, ["go a select s"]), launch: "t{*s[a]}", steps: [["go", "ignored"]] },
  {
    says: "select fresh makes the lane anew",
    app: tabs({}, ["on x push y", "home y select s", "go a select u fresh=true"]),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["on", "t{s[a],*u[x,y]}"],
      ["home", "t{*s[a],u[x,y]}"],
      ["go", "t{s[a],*u[x]}"],
    ],
  },
  {
    says: "select with tidy source drops the source first",
    app: tabs({}, ["on a push b", "go b select u tidy=source"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["go", "t{s[a],*u[x]}"],
    ],
  },
  {
    says: "select with tidy of the lane that is active has moved where the tidying changes the line",
    app: tabs({}, ["on a push b", "go b select s tidy=stack"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["go", "t{*s[a]}"],
    ],
  },
  {
    says: "select of a place that no tab set or drawer owns: no-place",
    app: tabs({}, ["go a select b"]),
    launch: "t{*s[a]}",
    steps: [["go", "refused no-place"]],
  },
  {
    says: "select where the owner is nowhere showing: not-showing",
    app: app("s", { stacks: { s: "a" }, tabs: { t: "x y" }, legs: ["go a select y"] }),
    launch: "s[a]",
    steps: [["go", "refused not-showing"]],
  },
  {
    says: "select from a layer closes the layers above the branch of the owner",
    app: app("t", { tabs: { t: "a b" }, modals: { m: "x" }, legs: ["up a open m", "go x select b"] }),
    launch: "t{*a}",
    steps: [
      ["up", "t{*a} + m(x)"],
      ["go", "t{a,*b}"],
    ],
  },
  {
    says: "activation: in a stack the items above what is found are lost",
    app: app("s", { stacks: { s: "t z" }, tabs: { t: "a b" }, legs: ["on a push z", "go z select b"] }),
    launch: "s[t{*a}]",
    steps: [
      ["on", "s[t{*a},z]"],
      ["go", "s[t{a,*b}]"],
    ],
  },
  {
    says: "activation looks at lanes not visited yet as if made",
    app: app("t", { tabs: { t: "a w" }, stacks: { w: "i", i: "x y" }, legs: ["go a push y in=i"] }),
    launch: "t{*a}",
    steps: [["go", "t{a,*w[i[x,y]]}"]],
  },
  {
    says: "activation prefers the active lane",
    app: app("t", { tabs: { t: "p q" }, stacks: { p: "a i", q: "b", i: "x y" }, legs: ["on b push i", "go x push y in=i"] }),
    launch: "t{*p[a]}",
    steps: [
      ["tab q", "t{p[a],*q[b]}"],
      ["on", "t{p[a],*q[b,i[x]]}"],
      ["go", "t{p[a],*q[b,i[x,y]]}"],
    ],
  },
  {
    says: "lanes stand in member order, whichever was visited first",
    app: app("t", { tabs: { t: ["a b c", { start: "c" }] } }),
    launch: "t{*c}",
    steps: [
      ["tab a", "t{*a,c}"],
      ["tab b", "t{a,*b,c}"],
    ],
  },
];

export const drawers: Vector[] = [
  { says: "the lead menu opens the nearest drawer", app: drawer(), launch: "d{*s[a]}", steps: [["lead", "d{*s[a]}!"]] },
  {
    says: "picking selects the member and closes the drawer",
    app: drawer(),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["pick u", "d{s[a],*u[x]}"],
    ],
  },
  { says: "a closed drawer has nothing to pick", app: drawer(), launch: "d{*s[a]}", steps: [["pick u", "ignored"]] },
  {
    says: "the active member again just closes an open drawer",
    app: drawer(),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["pick s", "d{*s[a]}"],
    ],
  },
  {
    says: "back closes an open drawer that closes by back",
    app: drawer(),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["back", "d{*s[a]}"],
    ],
  },
  {
    says: "back is ignored by an open drawer that does not",
    app: drawer({ closeOn: ["outside"] }),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["back", "ignored"],
      ["close outside", "d{*s[a]}"],
    ],
  },
  {
    says: "close by a way that the drawer does not list: ignored",
    app: drawer(),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["close swipe", "ignored"],
    ],
  },
  {
    says: "while a drawer lies over the page, the lead does nothing",
    app: drawer(),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["lead", "ignored"],
    ],
  },
  {
    says: "beside the page, the lead closes it again",
    app: drawer({ over: false }),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["lead", "d{*s[a]}"],
    ],
  },
  {
    says: "while an unpinned drawer is open, its branch has no other legs",
    app: drawer({}, ["on a push b"]),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["on", "ignored"],
    ],
  },
  {
    says: "nor tabs",
    app: app("d", { drawers: { d: "t z" }, tabs: { t: "a b" }, screens: { a: { bar: { show: true, lead: "menu" } } } }),
    launch: "d{*t{*a}}",
    steps: [
      ["lead", "d{*t{*a}}!"],
      ["tab b", "ignored"],
    ],
  },
  {
    says: "a drawer's own legs work only while it is open",
    app: drawer({}, ["help d open m"], { modals: { m: "h" } }),
    launch: "d{*s[a]}",
    steps: [
      ["help", "ignored"],
      ["lead", "d{*s[a]}!"],
      ["help", "d{*s[a]} + m(h)"],
    ],
  },
  {
    says: "a leg of the drawer that fires closes it, and has moved even where its move is ignored",
    app: drawer({}, ["same d select s"]),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["same", "d{*s[a]}"],
    ],
  },
  {
    says: "unless its move is menu",
    app: drawer({}, ["shut d menu action=close", "more d menu action=open"]),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["more", "ignored"],
      ["shut", "d{*s[a]}"],
    ],
  },
  { says: "menu opens, closes or toggles the nearest drawer", app: drawer({}, ["m a menu"]), launch: "d{*s[a]}", steps: [["m", "d{*s[a]}!"]] },
  { says: "menu close on a closed drawer: ignored", app: drawer({}, ["m a menu action=close"]), launch: "d{*s[a]}", steps: [["m", "ignored"]] },
  { says: "menu without a drawer around: ignored", app: app("s", { stacks: { s: "a" }, legs: ["m a menu"] }), launch: "s[a]", steps: [["m", "ignored"]] },
  {
    says: "a pinned drawer is never open, and its members can be picked",
    app: drawer({ pinnedFrom: "middle" }),
    launch: "d{*s[a]}",
    steps: [
      ["width middle", "d{*s[a]}"],
      ["lead", "ignored"],
      ["pick u", "d{s[a],*u[x]}"],
      ["pick u", "ignored"],
    ],
  },
  {
    says: "a pinned drawer's own legs can be used, and menu legs are ignored",
    app: drawer({ pinnedFrom: "wide" }, ["go d select u", "m a menu"]),
    launch: "d{*s[a]}",
    steps: [
      ["go", "ignored"],
      ["width wide", "d{*s[a]}"],
      ["m", "ignored"],
      ["go", "d{s[a],*u[x]}"],
    ],
  },
  {
    says: "a change of width closes open drawers",
    app: drawer(),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["width middle", "d{*s[a]}"],
    ],
  },
  { says: "the same width: ignored", app: drawer(), launch: "d{*s[a]}", steps: [["width narrow", "ignored"]] },
  {
    says: "a drawer with onBack start goes to its start on back",
    app: drawer({ onBack: "start" }),
    launch: "d{*s[a]}",
    steps: [
      ["lead", "d{*s[a]}!"],
      ["pick u", "d{s[a],*u[x]}"],
      ["back", "d{*s[a],u[x]}"],
      ["back", "left"],
    ],
  },
];
