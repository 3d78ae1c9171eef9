import type { Container, Leg, Project, Screen } from "../src/core/model/schema.ts";

const stack = (id: string, members: string[]): Container => ({ kind: "stack", id, name: id, start: members[0] ?? "", members });

/**
 * A large app for measuring: five tabs with stacks of their own, a drawer around them with three
 * members, `screens / 25` modals, eight app facts, five legs a screen.
 */
export function bigProject(count: number, tabs = 5): Project {
  const modals = Math.round(count / 25);
  const inModals = modals * 2;
  const inDrawer = Math.round(count / 10);
  const perTab = Math.floor((count - inModals - inDrawer) / tabs);
  const screens: Screen[] = [];
  const add = (id: string): string => {
    screens.push({ id, name: id, params: [], up: "auto", elements: [] });
    return id;
  };
  const lanes = Array.from({ length: tabs }, (_, t) =>
    stack(
      `tab${t}`,
      Array.from({ length: perTab }, (_, i) => add(`t${t}s${i}`)),
    ),
  );
  const others = [0, 1].map((d) =>
    stack(
      `extra${d}`,
      Array.from({ length: Math.ceil(inDrawer / 2) }, (_, i) => add(`d${d}s${i}`)),
    ),
  );
  const sheets = Array.from({ length: modals }, (_, m) => stack(`flow${m}`, [add(`m${m}a`), add(`m${m}b`)]));
  const containers: Container[] = [
    {
      kind: "drawer",
      id: "menu",
      name: "menu",
      start: "tabs",
      members: ["tabs", "extra0", "extra1"],
      side: "left",
      over: true,
      pinnedFrom: "never",
      closeOn: ["outside", "back"],
      onBack: "start",
      keeps: true,
      bar: { show: true, lead: "auto" },
    },
    {
      kind: "tabs",
      id: "tabs",
      name: "tabs",
      start: "tab0",
      members: lanes.map((l) => l.id),
      edge: "bottom",
      onBack: "start",
      chosenAgain: "root",
      keeps: true,
    },
    ...lanes,
    ...others,
    ...sheets,
    ...sheets.map(
      (s, m): Container => ({
        kind: "modal",
        id: `sheet${m}`,
        name: `sheet${m}`,
        start: s.id,
        members: [s.id],
        shape: "sheet",
        edge: "bottom",
        blocks: true,
        dims: true,
        closeOn: ["swipe", "button", "back"],
      }),
    ),
  ];
  const facts = Array.from({ length: 8 }, (_, i) => ({ id: `f${i}`, type: "boolean" as const, initial: false, source: "app" as const }));
  return {
    format: "etape/1",
    name: `Big ${count}`,
    root: "menu",
    facts,
    types: [],
    containers,
    screens: screens.map((s) => withElements(s)),
    legs: legsOf([...lanes, ...others, ...sheets], modals),
    entrances: [],
    walks: [],
  };
}

function withElements(screen: Screen): Screen {
  const first = /^[td]\ds0$/.test(screen.id) ? { bar: { show: true, lead: "menu" as const } } : {};
  return { ...screen, ...first, elements: Array.from({ length: 5 }, (_, i) => ({ id: `e${i}`, kind: "button" as const, label: `Element ${i}` })) };
}

/** A tree of pushes along each stack, ways back, modals opened, a few conditions on facts. */
function legsOf(stacks: Container[], modals: number): Leg[] {
  const legs: Leg[] = [];
  for (const [s, { members, id }] of stacks.entries())
    members.forEach((from, i) => {
      const leg = (e: number, move: Leg["move"], more: Partial<Leg> = {}) =>
        legs.push({ id: `${from}e${e}`, from, on: { kind: "tap", element: `e${e}` }, ...more, move });
      const next = (k: number) => members[Math.min(members.length - 1, 3 * i + k)] ?? from;
      for (const k of [1, 2]) leg(k - 1, next(k) === from ? { kind: "back" } : { kind: "push", to: next(k), repeat: "rewind" });
      leg(2, next(3) === from ? { kind: "up" } : { kind: "push", to: next(3), repeat: "rewind" });
      leg(3, modals > 0 && !id.startsWith("flow") ? { kind: "open", to: `sheet${(s * 7 + i) % modals}` } : { kind: "close" });
      if (i % 100 === 99) leg(4, { kind: "back" }, { set: { [`f${(s + i) % 8}`]: "true" } });
      else leg(4, { kind: "return", to: members[0] ?? from, orElse: "replace" }, i % 50 === 7 ? { when: `fact.f${i % 8} || !fact.f${i % 8}` } : {});
    });
  return legs;
}
