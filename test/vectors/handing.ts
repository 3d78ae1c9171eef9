import { app } from "./app.ts";
import type { Vector } from "./vector.ts";

const colour = { name: "colour", type: "text", required: false };
/** A form `a`, a picker `x` over it; `red` on the form fires only once the form has the colour red. */
const picking = (legs: string[], more: Parameters<typeof app>[1] = {}) =>
  app("s", {
    stacks: { s: "a b c", f: "x y" },
    modals: { m: "f" },
    ...more,
    screens: { a: { params: [colour, { name: "size", type: "text", required: false }] }, ...more.screens },
    legs: [
      "choose a open m",
      "red a push b if=param.colour=='red'",
      "green a push b if=param.colour=='green'",
      "large a push c if=param.size=='large'",
      ...legs,
    ],
  });

/** What a leg hands back, and to whom. */
export const handingBack: Vector[] = [
  {
    says: "close hands back to what lies beneath",
    app: picking(["done x close give.colour='red'"]),
    launch: "s[a]",
    steps: [
      ["red", "ignored"],
      ["choose", "s[a] + m(f[x])"],
      ["done", "s[a]"],
      ["red", "s[a,b]"],
    ],
  },
  {
    says: "back hands back to the screen that was beneath",
    app: picking(["go a push b", "done b back give.colour='red'"]),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["done", "s[a]"],
      ["red", "s[a,b]"],
    ],
  },
  {
    says: "return hands back to the screen that it goes back to",
    app: picking(["go a push b", "on b push c", "done c return a give.colour='red'"]),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["on", "s[a,b,c]"],
      ["done", "s[a]"],
      ["red", "s[a,b]"],
    ],
  },
  {
    says: "a return that ends as orElse hands nothing back",
    app: picking(["go a replace b", "done b return a orElse=push give.colour='red'"]),
    launch: "s[a]",
    steps: [
      ["go", "s[b]"],
      ["done", "s[b,a]"],
      ["red", "ignored"],
    ],
  },
  {
    says: "the other arguments stay",
    app: picking(["big b push a pass.size='large'", "go a push b", "done x close give.colour='red'"]),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["big", "s[a,b,a]"],
      ["choose", "s[a,b,a] + m(f[x])"],
      ["done", "s[a,b,a]"],
      ["large", "s[a,b,a,c]"],
      ["back", "s[a,b,a]"],
      ["red", "s[a,b,a,b]"],
    ],
  },
  {
    says: "what is handed back takes the place of what was handed back before",
    app: picking(["done x close give.colour='red'", "other x close give.colour='green'"]),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["done", "s[a]"],
      ["choose", "s[a] + m(f[x])"],
      ["other", "s[a]"],
      ["red", "ignored"],
      ["green", "s[a,b]"],
    ],
  },
  {
    says: "what the screen does not declare is dropped",
    app: picking(["done x close give.weight='red'"]),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["done", "s[a]"],
      ["red", "ignored"],
    ],
  },
  {
    says: "it is worked out in the state before: from the screen that goes",
    app: picking(["on x push y pass.picked='red'", "done y close give.colour=param.picked"], {
      screens: { y: { params: [{ name: "picked", type: "text", required: true }] } },
    }),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["on", "s[a] + m(f[x,y])"],
      ["done", "s[a]"],
      ["red", "s[a,b]"],
    ],
  },
  {
    says: "one that has no value: refused, and nothing is closed",
    app: picking(["done x close give.colour=param.picked"], { screens: { x: { params: [{ name: "picked", type: "text", required: false }] } } }),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["done", "refused no-value"],
      ["close swipe", "s[a]"],
    ],
  },
  {
    says: "the row that was tapped is handed back",
    app: picking(["done x:on(rows) close give.colour=item.name"], {
      types: [{ id: "paint", fields: [{ name: "name", type: "text" }], samples: [{ name: "red" }, { name: "green" }] }],
      screens: { x: { elements: [{ id: "rows", kind: "list", label: "Paints", of: "paint" }] } },
    }),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      [{ do: "leg", leg: "done", item: "green" }, "s[a]"],
      ["red", "ignored"],
      ["green", "s[a,b]"],
    ],
  },
  {
    says: "closing by hand hands nothing back",
    app: picking(["done x close give.colour='red'"]),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["close swipe", "s[a]"],
      ["red", "ignored"],
      ["choose", "s[a] + m(f[x])"],
      ["back", "s[a]"],
      ["red", "ignored"],
    ],
  },
  {
    says: "a layer that stays on top of what closes takes it",
    app: picking(["more x open n", "shut z close give.tint='red'", "seen x push y if=param.tint=='red'"], {
      modals: { m: "f", n: "z" },
      screens: { x: { params: [{ name: "tint", type: "text", required: false }] } },
    }),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["seen", "ignored"],
      ["more", "s[a] + m(f[x]) + n(z)"],
      ["shut", "s[a] + m(f[x])"],
      ["seen", "s[a] + m(f[x,y])"],
    ],
  },
  {
    says: "a move that does nothing hands nothing back",
    app: picking(["done a close give.colour='red'"]),
    launch: "s[a]",
    steps: [
      ["done", "ignored"],
      ["red", "ignored"],
    ],
  },
  {
    says: "a leg that goes on with what waited hands nothing back",
    app: picking(["done x close resumes give.colour='red' set.joined=true"], {
      facts: [{ id: "joined", type: "boolean", initial: false, source: "app" }],
      entrances: [{ id: "e", name: "e", kind: "link", to: "a", when: "fact.joined", otherwise: "f", resume: true, warm: "rebuild" }],
    }),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["enter e", "s[a] + m(f[x])"],
      ["done", "s[a]"],
      ["red", "ignored"],
    ],
  },
  {
    says: "a screen that was handed something has not arrived: it stood there before",
    app: picking(["done x close give.colour='red'", "once a:arrive push c if=has(param.colour)"]),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["done", "s[a]"],
    ],
  },
  {
    says: "a screen that is uncovered in its own stack arrives with what it was handed",
    app: picking(["go a push b", "done b back give.colour='red'", "once a:arrive push c if=has(param.colour)"]),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["done", "s[a,c]"],
    ],
  },
  {
    says: "one of another type than every screen that declares the name never fires",
    app: picking(["done x close give.colour=1"]),
    launch: "s[a]",
    steps: [
      ["choose", "s[a] + m(f[x])"],
      ["done", "ignored"],
    ],
  },
  {
    says: "a departing leg that goes back hands back",
    app: picking(["go a push b", "ask b:depart back give.colour='red'"]),
    launch: "s[a]",
    steps: [
      ["go", "s[a,b]"],
      ["back", "s[a]"],
      ["red", "s[a,b]"],
    ],
  },
];
