import { app } from "./app.ts";
import type { Vector } from "./vector.ts";

const list = (legs: string[], more = {}) => app("s", { stacks: { s: "a b c" }, legs, ...more });

export const making: Vector[] = [
  { says: "a screen becomes Shown", app: app("a", { screens: { a: {} } }), launch: "a", steps: [] },
  { says: "a stack becomes one item, Make(start)", app: app("s", { stacks: { s: "a b" } }), launch: "s[a]", steps: [] },
  { says: "tabs become one lane, that of the start", app: app("t", { tabs: { t: "a b" } }), launch: "t{*a}", steps: [] },
  { says: "a drawer becomes one lane, closed", app: app("d", { drawers: { d: "a b" } }), launch: "d{*a}", steps: [] },
  {
    says: "a move into a container makes the first screen of it",
    app: app("s", { stacks: { s: "a", u: "x y" }, tabs: { t: "u v" }, legs: ["go a push t"] }),
    launch: "s[a]",
    steps: [["go", "s[a,t{*u[x]}]"]],
  },
  {
    says: "a place that does not exist is made as an empty screen of that id",
    app: app("s", { stacks: { s: ["", { start: "ghost" }] } }),
    launch: "s[ghost]",
    steps: [],
  },
];

export const push: Vector[] = [
  { says: "push puts Make(to) on top of the nearest stack", app: list(["go a push b"]), launch: "s[a]", steps: [["go", "s[a,b]"]] },
  {
    says: "without a stack around, push is refused: no-stack",
    app: app("t", { tabs: { t: "a b" }, legs: ["go a push b"] }),
    launch: "t{*a}",
    steps: [["go", "refused no-stack"]],
  },
  {
    says: "a push of the same place puts a copy on top",
    app: list(["go a push b", "more b push b"]),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["more", "s[a,b,b]"],
    ],
  },
  {
    says: "stay: where the top item is the target with equal arguments, it is ignored",
    app: list(["go a push b", "more b push b repeat=stay"]),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["more", "ignored"],
    ],
  },
  {
    says: "stay: with other arguments a copy goes on top",
    app: app("s", {
      stacks: { s: "a b" },
      screens: { b: { params: [{ name: "id", type: "text", required: true }] } },
      legs: ["go a push b pass.id='x'", "same b push b repeat=stay pass.id='x'", "other b push b repeat=stay pass.id='y'"],
    }),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["same", "ignored"],
      ["other", "s[a,b,b]"],
    ],
  },
  {
    says: "stay: a container on top is the target whatever it shows",
    app: app("s", {
      stacks: { s: "a w", w: "b c" },
      screens: { b: { params: [{ name: "id", type: "text", required: false }] } },
      legs: ["go a push w", "on b push c", "again w push w in=s repeat=stay pass.id='x'"],
    }),
    launch: "s[a]",
    steps: [
      ["go", "s[a,w[b]]"],
      ["again", "ignored"],
      ["on", "s[a,w[b,c]]"],
      ["again", "ignored"],
    ],
  },
  {
    says: "stay: where the stack named is in another lane, nothing is added, but it is brought up",
    app: app("t", { tabs: { t: "s u" }, stacks: { s: "a", u: "x" }, legs: ["go a push x in=u repeat=stay"] }),
    launch: "t{*s[a]}",
    steps: [
      ["go", "t{s[a],*u[x]}"],
      ["tab s", "t{*s[a],u[x]}"],
      ["go", "t{s[a],*u[x]}"],
    ],
  },
  {
    says: "stay: a layer that covers the stack named closes, though nothing is added",
    app: app("s", { stacks: { s: "a b" }, modals: { m: "x" }, legs: ["up a open m", "go x push a in=s repeat=stay", "too x push a in=beneath repeat=stay"] }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["go", "s[a]"],
      ["up", "s[a] + m(x)"],
      ["too", "s[a]"],
    ],
  },
  {
    says: "stay: the source's stack is tidied, though nothing is added",
    app: app("t", { tabs: { t: "s u" }, stacks: { s: "a b", u: "x" }, legs: ["on a push b", "go b push x in=u repeat=stay tidy=source"] }),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["go", "t{s[a],*u[x]}"],
    ],
  },
  {
    says: "stay: tidying the very stack that is named can bring the target to its top, and has moved",
    app: list(["on a push b", "go b push a in=s repeat=stay tidy=source"]),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["go", "s[a]"],
    ],
  },
  {
    says: "rewind: everything above the topmost such item goes",
    app: list(["go a push b", "on b push c", "home c push a repeat=rewind"]),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["on", "s[a,b,c]"],
      ["home", "s[a]"],
    ],
  },
  { says: "rewind: where no item is the target, it goes on top", app: list(["go a push b repeat=rewind"]), launch: "s[a]", steps: [["go", "s[a,b]"]] },
  {
    says: "rewind onto the top without pass adds nothing, and is ignored",
    app: list(["again a push a repeat=rewind"]),
    launch: "s[a]",
    steps: [["again", "ignored"]],
  },
  {
    says: "rewind onto the top with pass replaces the arguments, and has moved",
    app: app("s", {
      stacks: { s: "a" },
      screens: { a: { params: [{ name: "n", type: "text", required: false }] } },
      legs: ["again a push a repeat=rewind pass.n='x'"],
    }),
    launch: "s[a]",
    steps: [["again", "s[a]"]],
  },
  {
    says: "push into a stack by id brings up that stack",
    app: app("t", { tabs: { t: "s u" }, stacks: { s: "a", u: "x y" }, legs: ["go a push y in=u"] }),
    launch: "t{*s[a]}",
    steps: [["go", "t{s[a],*u[x,y]}"]],
  },
  {
    says: "a stack that is nowhere showing: refused, not-showing",
    app: app("s", { stacks: { s: "a", u: "x" }, legs: ["go a push x in=u"] }),
    launch: "s[a]",
    steps: [["go", "refused not-showing"]],
  },
  {
    says: "tidy source: the nearest stack around the source loses its top first",
    app: app("t", { tabs: { t: "s u" }, stacks: { s: "a b", u: "x y" }, legs: ["on a push b", "go b push y in=u tidy=source"] }),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["go", "t{*s[a],u[x,y]}".replace("*s[a],u", "s[a],*u")],
    ],
  },
  {
    says: "tidy stack: the nearest stack around the source keeps only its first",
    app: app("t", { tabs: { t: "s u" }, stacks: { s: "a b c", u: "x y" }, legs: ["on a push b", "more b push c", "go c push y in=u tidy=stack"] }),
    launch: "t{*s[a]}",
    steps: [
      ["on", "t{*s[a,b]}"],
      ["more", "t{*s[a,b,c]}"],
      ["go", "t{s[a],*u[x,y]}"],
    ],
  },
  {
    says: "tidy is not done where the move can not be made",
    app: app("s", { stacks: { s: "a b", u: "x" }, legs: ["on a push b", "go b push x in=u tidy=source"] }),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["go", "refused not-showing"],
      ["back", "s[a]"],
    ],
  },
  {
    says: "a container never comes to stand inside itself",
    app: app("s", { stacks: { s: "a t" }, tabs: { t: "b c" }, legs: ["on a push t", "go b push s"] }),
    launch: "s[a]",
    steps: [
      ["on", "s[a,t{*b}]"],
      ["go", "refused inside-itself"],
    ],
  },
  {
    says: "nor does one whose tree holds a container around the slot",
    app: app("o", { stacks: { o: "s", s: "a" }, legs: ["go a push o"] }),
    launch: "o[s[a]]",
    steps: [["go", "refused inside-itself"]],
  },
  { says: "a place that does not exist: refused, no-place", app: list(["go a push ghost"]), launch: "s[a]", steps: [["go", "refused no-place"]] },
  {
    says: "a modal is the wrong kind to push: no-place",
    app: app("s", { stacks: { s: "a" }, modals: { m: "x" }, legs: ["go a push m"] }),
    launch: "s[a]",
    steps: [["go", "refused no-place"]],
  },
  {
    says: "a passed argument that the screen does not declare is dropped",
    app: list(["go a push b pass.extra='x'"]),
    launch: "s[a]",
    steps: [["go", "s[a,b]"]],
  },
];

export const replaceAndReset: Vector[] = [
  {
    says: "replace fills the innermost slot holding the source: a stack item",
    app: list(["on a push b", "go b replace c"]),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["go", "s[a,c]"],
    ],
  },
  {
    says: "replace in a lane that is a screen",
    app: app("t", { tabs: { t: "a b" }, screens: { x: {} }, legs: ["go a replace x"] }),
    launch: "t{*a}",
    steps: [["go", "t{*x}"]],
  },
  {
    says: "replace in a layer's content",
    app: app("s", { stacks: { s: "a" }, modals: { m: "x y" }, legs: ["up a open m", "go x replace y"] }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["go", "s[a] + m(y)"],
    ],
  },
  { says: "replace at the base", app: app("a", { screens: { a: {}, b: {} }, legs: ["go a replace b"] }), launch: "a", steps: [["go", "b"]] },
  {
    says: "replace by a container around the slot: refused, inside-itself",
    app: list(["go a replace s"]),
    launch: "s[a]",
    steps: [["go", "refused inside-itself"]],
  },
  {
    says: "reset: the target stack becomes the single item",
    app: list(["on a push b", "go b reset c"]),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["go", "s[c]"],
    ],
  },
  {
    says: "reset without any stack is as replace",
    app: app("t", { tabs: { t: "a b" }, screens: { x: {} }, legs: ["go a reset x"] }),
    launch: "t{*a}",
    steps: [["go", "t{*x}"]],
  },
  {
    says: "reset in a stack by id",
    app: app("t", { tabs: { t: "s u" }, stacks: { s: "a", u: "x y" }, legs: ["go a reset y in=u"] }),
    launch: "t{*s[a]}",
    steps: [["go", "t{s[a],*u[y]}"]],
  },
  { says: "a reset that comes out equal has moved all the same", app: list(["go a reset a"]), launch: "s[a]", steps: [["go", "s[a]"]] },
];

export const returning: Vector[] = [
  { says: "return: the current screen is the target: ignored", app: list(["go a return a"]), launch: "s[a]", steps: [["go", "ignored"]] },
  {
    says: "return: everything above the topmost such item goes",
    app: list(["on a push b", "more b push c", "go c return a"]),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["more", "s[a,b,c]"],
      ["go", "s[a]"],
    ],
  },
  {
    says: "return looks in outer stacks too",
    app: app("o", { stacks: { o: "a w", i: "x y" }, tabs: { w: "i v" }, legs: ["on a push w", "more x push y", "go y return a"] }),
    launch: "o[a]",
    steps: [
      ["on", "o[a,w{*i[x]}]"],
      ["more", "o[a,w{*i[x,y]}]"],
      ["go", "o[a]"],
    ],
  },
  {
    says: "return finds an item by the screen that it shows",
    app: app("s", { stacks: { s: "t b" }, tabs: { t: "x y" }, legs: ["on x push b", "go b return x"] }),
    launch: "s[t{*x}]",
    steps: [
      ["on", "s[t{*x},b]"],
      ["go", "s[t{*x}]"],
    ],
  },
  { says: "return, not found: pushes by default", app: list(["go a return b"]), launch: "s[a]", steps: [["go", "s[a,b]"]] },
  { says: "return, not found, orElse replace", app: list(["go a return b orElse=replace"]), launch: "s[a]", steps: [["go", "s[b]"]] },
  { says: "return, not found, orElse nothing: ignored", app: list(["go a return b orElse=nothing"]), launch: "s[a]", steps: [["go", "ignored"]] },
];

export const back: Vector[] = [
  {
    says: "back: a stack with more than one item loses its top",
    app: list(["on a push b"]),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["back", "s[a]"],
    ],
  },
  { says: "back at the base with nothing left: left", app: list([]), launch: "s[a]", steps: [["back", "left"]] },
  {
    says: "back goes from the innermost container outwards",
    app: app("o", { stacks: { o: "a i", i: "x y" }, legs: ["on a push i"] }),
    launch: "o[a]",
    steps: [
      ["on", "o[a,i[x]]"],
      ["back", "o[a]"],
    ],
  },
  {
    says: "onBack start: not on the start, its start is selected",
    app: app("t", { tabs: { t: ["a b", { onBack: "start" }] } }),
    launch: "t{*a}",
    steps: [
      ["tab b", "t{a,*b}"],
      ["back", "t{*a,b}"],
      ["back", "left"],
    ],
  },
  {
    says: "onBack leave goes on outwards",
    app: app("t", { tabs: { t: "a b" } }),
    launch: "t{*a}",
    steps: [
      ["tab b", "t{a,*b}"],
      ["back", "left"],
    ],
  },
  {
    says: "onBack previous: the current one is taken out of visited, the latest left is selected",
    app: app("t", { tabs: { t: ["a b c", { onBack: "previous" }] } }),
    launch: "t{*a}",
    steps: [
      ["tab b", "t{a,*b}"],
      ["tab c", "t{a,b,*c}"],
      ["tab a", "t{*a,b,c}"],
      ["back", "t{a,b,*c}"],
      ["back", "t{a,*b,c}"],
      ["back", "left"],
    ],
  },
  {
    says: "previous without keeps drops the lane that is left",
    app: app("t", { tabs: { t: ["a b", { onBack: "previous", keeps: false }] } }),
    launch: "t{*a}",
    steps: [
      ["tab b", "t{*b}"],
      ["back", "t{*a}"],
    ],
  },
  {
    says: "back closes a layer whose modal closes by back",
    app: app("s", { stacks: { s: "a" }, modals: { m: "x" }, legs: ["up a open m"] }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["back", "s[a]"],
    ],
  },
  {
    says: "back is ignored by a modal that does not",
    app: app("s", { stacks: { s: "a" }, modals: { m: ["x", { closeOn: ["button"] }] }, legs: ["up a open m"] }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(x)"],
      ["back", "ignored"],
    ],
  },
  {
    says: "back in a layer first goes through its own stack",
    app: app("s", { stacks: { s: "a", f: "x y" }, modals: { m: "f" }, legs: ["up a open m", "on x push y"] }),
    launch: "s[a]",
    steps: [
      ["up", "s[a] + m(f[x])"],
      ["on", "s[a] + m(f[x,y])"],
      ["back", "s[a] + m(f[x])"],
      ["back", "s[a]"],
    ],
  },
  {
    says: "a leg can go back",
    app: list(["on a push b", "home b back"]),
    launch: "s[a]",
    steps: [
      ["on", "s[a,b]"],
      ["home", "s[a]"],
    ],
  },
  {
    says: "leave: left, and the state stays",
    app: list(["out a leave"]),
    launch: "s[a]",
    steps: [
      ["out", "left"],
      ["lead", "ignored"],
    ],
  },
];
