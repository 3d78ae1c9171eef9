import { app } from "./app.ts";
import type { Vector } from "./vector.ts";

const bar = (lead: string) => ({ bar: { show: true, lead } });

export const lead: Vector[] = [
  {
    says: "auto: back where the nearest stack has more than one item",
    app: app("s", { stacks: { s: "a b" }, legs: ["on a push b"] }),
    launch: "s[a]",
    steps: [
      ["lead", "ignored"],
      ["on", "s[a,b]"],
      ["lead", "s[a]"],
    ],
  },
  {
    says: "auto: up on the base where there is nothing to go back to but an up target",
    app: app("s", { stacks: { s: "a b" }, legs: ["go a replace b"] }),
    launch: "s[a]",
    steps: [
      ["go", "s[b]"],
      ["lead", "s[a]"],
    ],
  },
  {
    says: "back: nothing where the stack has one item",
    app: app("s", { stacks: { s: "a b" }, screens: { b: bar("back") }, legs: ["go a replace b"] }),
    launch: "s[a]",
    steps: [
      ["go", "s[b]"],
      ["lead", "ignored"],
    ],
  },
  {
    says: "up on the base leads up even where back would go elsewhere",
    app: app("s", { stacks: { s: "a b c" }, screens: { c: { up: "a", ...bar("up") } }, legs: ["on a push b", "more b push c"] }),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["more", "s[a,b,c]"],
      ["lead", "s[a]"],
    ],
  },
  {
    says: "up in a layer is back in its stack",
    app: app("s", { stacks: { s: "a", f: "x y" }, modals: { m: "f" }, screens: { y: bar("up") }, legs: ["o a open m", "on x push y"] }),
    launch: "s[a]",
    steps: [
      ["o", "s[a] + m(f[x])"],
      ["on", "s[a] + m(f[x,y])"],
      ["lead", "s[a] + m(f[x])"],
    ],
  },
  { says: "up without a target is idle", app: app("s", { stacks: { s: "a" }, screens: { a: bar("up") } }), launch: "s[a]", steps: [["lead", "ignored"]] },
  {
    says: "no bar, no lead",
    app: app("s", { stacks: { s: "a b" }, screens: { b: { bar: { show: false, lead: "auto" } } }, legs: ["on a push b"] }),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["lead", "ignored"],
    ],
  },
  {
    says: "the bar of the nearest container holds for screens without their own",
    app: app("s", { stacks: { s: ["a b", { bar: { show: true, lead: "none" } }] }, legs: ["on a push b"] }),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["lead", "ignored"],
    ],
  },
  {
    says: "a layer's modal comes last among them",
    app: app("s", { stacks: { s: "a", f: "x y" }, modals: { m: ["f", { bar: { show: false, lead: "none" } }] }, legs: ["o a open m", "on x push y"] }),
    launch: "s[a]",
    steps: [
      ["o", "s[a] + m(f[x])"],
      ["on", "s[a] + m(f[x,y])"],
      ["lead", "ignored"],
    ],
  },
];

const three = (screens = {}, legs: string[] = []) => app("t", { tabs: { t: "s u" }, stacks: { s: "a b c", u: "x y" }, screens, legs: ["up b up", ...legs] });

export const up: Vector[] = [
  {
    says: "auto: the owning stack's start",
    app: three({}, ["go a replace b"]),
    launch: "t{*s[a]}",
    steps: [
      ["go", "t{*s[b]}"],
      ["up", "t{*s[a]}"],
    ],
  },
  {
    says: "none: no target, ignored",
    app: three({ b: { up: "none" } }, ["go a replace b"]),
    launch: "t{*s[a]}",
    steps: [
      ["go", "t{*s[b]}"],
      ["up", "ignored"],
    ],
  },
  {
    says: "back to the topmost item beneath that matches",
    app: three({ b: { up: "a" } }, ["on a push c", "more c push b"]),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,c]}"],
      ["more", "t{*s[a,c,b]}"],
      ["up", "t{*s[a]}"],
    ],
  },
  {
    says: "sideways: the source goes, the target's owner is brought up",
    app: three({}, ["side x push b"]),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["side", "t{s[a],*u[x,b]}"],
      ["up", "t{*s[a],u[x]}"],
    ],
  },
  {
    says: "an owner that does not show the target becomes its trail",
    app: three({ b: { up: "c" }, c: { up: "a" } }, ["side x push b"]),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["side", "t{s[a],*u[x,b]}"],
      ["up", "t{*s[a,c],u[x]}"],
    ],
  },
  {
    says: "the only item of a stack does not go",
    app: three({ b: { up: "a" } }, ["side x replace b"]),
    launch: "t{*s[a]}",
    steps: [
      ["tab u", "t{s[a],*u[x]}"],
      ["side", "t{s[a],*u[b]}"],
      ["up", "t{*s[a],u[b]}"],
    ],
  },
  {
    says: "a target owned by tabs is selected",
    app: app("s", { stacks: { s: "t c" }, tabs: { t: "a b" }, screens: { c: { up: "b" } }, legs: ["on a push c", "up c up"] }),
    launch: "s[t{*a}]",
    steps: [
      ["on", "s[t{*a},c]"],
      ["up", "s[t{a,*b}]"],
    ],
  },
  {
    says: "owner nowhere showing: as a warm rebuild to the target",
    app: app("o", { stacks: { o: "h", h: "a", k: "x y" }, tabs: { w: "k z" }, screens: { b: { up: "y" } }, legs: ["go a replace b", "up b up"] }),
    launch: "o[h[a]]",
    steps: [
      ["go", "o[h[b]]"],
      ["up", "w{*k[x,y]}"],
    ],
  },
  {
    says: "in a layer up is ignored where its stack has one item",
    app: app("s", { stacks: { s: "a", f: "x y" }, modals: { m: "f" }, legs: ["o a open m", "up x up"] }),
    launch: "s[a]",
    steps: [
      ["o", "s[a] + m(f[x])"],
      ["up", "ignored"],
    ],
  },
  {
    says: "a target that does not exist: no-place",
    app: three({ b: { up: "ghost" } }, ["go a replace b"]),
    launch: "t{*s[a]}",
    steps: [
      ["go", "t{*s[b]}"],
      ["up", "refused no-place"],
    ],
  },
];
