import { folded } from "../model/names.ts";
import type { ElementNode, LegNode, PlaceNode } from "./ast.ts";
import { addTogether, startsOver, WAY_WORDS } from "./elements.ts";
import { isName, kindOf } from "./habits.ts";

/** What stands in the tabs, menus and modals of lines that are written one screen below the other. */

/** Screens of which several lines speak, as one each: `Home: Feed list > Post`, and further down `Home: Settings icon > Settings`. A name in quotes is one of its own. */
export function saidAgain(places: readonly PlaceNode[]): PlaceNode[] {
  const out: PlaceNode[] = [];
  const known = new Map<string, number>();
  for (const told of places) {
    const place = told.members.length > 0 ? { ...told, members: saidAgain(told.members) } : told;
    const key = folded(place.name);
    const at = known.get(key);
    const first = at === undefined ? undefined : out[at];
    if (!first || at === undefined || place.literal || first.literal || !isScreen(place) || !isScreen(first)) {
      if (!known.has(key)) known.set(key, out.length);
      out.push(place);
      continue;
    }
    const params = [...first.params, ...place.params.filter(({ name }) => !first.params.some((one) => one.name === name))];
    out[at] = { ...first, params, options: [...first.options, ...place.options], elements: addTogether(place.elements, [...first.elements]) };
  }
  return out;
}

const isScreen = (place: PlaceNode): boolean => kindOf(place) === undefined && place.members.length === 0;

/** Screens that are each called a tab, as one tab set where the first of them stands: `Home (tab)`, `Search (tab)`. In tabs, the word says nothing new. */
export function tabsTogether(places: readonly PlaceNode[], around?: PlaceNode): PlaceNode[] {
  const isTab = ({ options }: PlaceNode) => options.some(({ text }) => text === "tab");
  const plain = (place: PlaceNode): PlaceNode => ({
    ...place,
    members: tabsTogether(place.members, place),
    options: place.options.filter(({ text }) => text !== "tab"),
  });
  const first = places.find(isTab);
  if (!first || kindOf(around) === "tabs" || kindOf(around) === "drawer") return places.map(plain);
  const { line, column } = first;
  const members = places.filter(isTab).map(plain);
  const tabs: PlaceNode = { name: "Tabs", params: [], options: [{ text: "tabs", line, column }], elements: [], members, line, column };
  return places.flatMap((place) => (place === first ? tabs : isTab(place) ? [] : plain(place)));
}

/** Tabs and drawers whose members stand on their own line: `Yard (tabs): Plots, Calendar`. */
export function membersOnLine(places: readonly PlaceNode[]): PlaceNode[] {
  return places.map((place) => {
    const kind = kindOf(place);
    const lanes = kind === "tabs" || kind === "drawer";
    if (!lanes || place.members.length > 0 || !place.elements.every(isName)) return { ...place, members: membersOnLine(place.members) };
    const members = place.elements.map(({ label, options, line, column }) => ({ name: label, params: [], options, elements: [], members: [], line, column }));
    return { ...place, elements: [], members };
  });
}

/**
 * Tabs and drawers without the details of their members: `Plots` and `Plot(plotId)` beneath `Yard (tabs)` are one tab with a stack, for
 * nobody can choose a tab that has to be told what it is about. One that is called a tab stays one.
 */
export function detailsInStacks(places: readonly PlaceNode[]): PlaceNode[] {
  return places.map((place) => {
    const members = detailsInStacks(place.members);
    const kind = kindOf(place);
    if (kind !== "tabs" && kind !== "drawer") return { ...place, members };
    const leads = new Map(members.map((one) => [one, targetsOf(one)]));
    const details = members.filter((one) => isDetail(one) && members.some((other) => other !== one && leads.get(other)?.has(folded(one.name))));
    const lanes = members.filter((one) => !details.includes(one)).map((lane) => ({ lane, leads: leads.get(lane) ?? new Set<string>() }));
    let left = details;
    for (let before = -1; left.length !== before; ) {
      before = left.length;
      left = left.filter((detail) => {
        const at = lanes.find((lane) => lane.leads.has(folded(detail.name)));
        if (!at) return true;
        at.lane = withMember(at.lane, detail);
        at.leads = new Set([...at.leads, ...(leads.get(detail) ?? [])]);
        return false;
      });
    }
    // Details that lead to one another alone stay where they are.
    return { ...place, members: [...lanes.map(({ lane }) => lane), ...left] };
  });
}

/** A screen that has to be told something, and is not called a tab. */
function isDetail({ params, members, options }: PlaceNode): boolean {
  return members.length === 0 && params.some(({ required }) => required) && !options.some(({ text }) => text === "tab");
}

/** The names of the places that a place, or what is in it, leads to. */
function targetsOf({ elements, members }: PlaceNode): Set<string> {
  const here = elements.flatMap(({ legs }) => legs.flatMap(({ target }) => (target.is === "place" ? [folded(target.path.at(-1) ?? "")] : [])));
  return new Set([...here, ...members.flatMap((member) => [...targetsOf(member)])]);
}

/** A tab with one more screen in its stack, which is made where it has none. */
function withMember(lane: PlaceNode, detail?: PlaceNode): PlaceNode {
  const isStack = lane.members.length > 0 && (kindOf(lane) ?? "stack") === "stack";
  const more = detail ? [detail] : [];
  if (isStack) return { ...lane, members: [...lane.members, ...more] };
  const { name, line, column } = lane;
  const options = lane.options.filter(({ text }) => text === "start");
  return {
    name,
    params: [],
    options,
    elements: [],
    members: [{ ...lane, options: lane.options.filter((one) => !options.includes(one)) }, ...more],
    line,
    column,
  };
}

/**
 * Tabs and menus whose members have lines of their own beside them: `Tabs: Today, Stock` and further down `Today: Visit list > Visit`. What
 * is then led to from there alone, `Visit: Notes`, is in the stack of the tab that leads to it; and what is led to from one modal alone is a step of that.
 */
export function flatLanes(places: readonly PlaceNode[]): PlaceNode[] {
  const all = defined(places);
  const isFlat = all.every(({ place, isDefined }) => isDefined || place.members.length === 0);
  const list = all.map(({ place }) => place);
  const modals = isFlat ? list.filter((place) => kindOf(place) === "modal") : [];
  const lanes = all.filter(({ isDefined }) => isDefined).map(({ place }) => place);
  return lanes.length + modals.length === 0 ? list : adopted(list, lanes, modals);
}

/** The places of a list with the members of tabs and menus as their own lines beside these say them; `isDefined` where one is of such members. */
function defined(places: readonly PlaceNode[]): Array<{ place: PlaceNode; isDefined: boolean }> {
  const list = places.map((place) => (place.members.length > 0 ? { ...place, members: flatLanes(place.members) } : place));
  const byName = new Map(list.filter(isDefinition).map((place) => [folded(place.name), place]));
  const used = new Set<PlaceNode>();
  const take = (around: PlaceNode, member: PlaceNode): PlaceNode => {
    const own = isBare(member) ? byName.get(folded(member.name)) : undefined;
    if (!own || own === around || used.has(own)) return member;
    used.add(own);
    return { ...own, options: [...own.options, ...member.options] };
  };
  const out = list.map((place) => {
    const kind = kindOf(place);
    if (kind !== "tabs" && kind !== "drawer") return { place, isDefined: false };
    const members = place.members.map((member) => take(place, member));
    const isDefined = place.flat === true || members.some((member, i) => member !== place.members[i]);
    return { place: isDefined ? { ...place, members } : place, isDefined };
  });
  return out.filter((_, i) => !used.has(list[i] as PlaceNode));
}

/** A line that says more of a screen, or of a stack, than its name. */
function isDefinition(place: PlaceNode): boolean {
  const kind = kindOf(place);
  if ((kind !== undefined && kind !== "stack") || place.options.some(({ text }) => text === "apart")) return false;
  return place.elements.length + place.members.length + place.params.length > 0;
}

function isBare({ params, elements, members, options, literal }: PlaceNode): boolean {
  return !literal && params.length + elements.length + members.length === 0 && options.every(({ text }) => text === "start" || text === "tab");
}

/** A list with the screens that are led to from tabs, or from a modal, alone in the stacks of those. */
function adopted(list: readonly PlaceNode[], lanes: readonly PlaceNode[], modals: readonly PlaceNode[]): PlaceNode[] {
  const members = lanes.flatMap((around) => around.members);
  const open = list.filter((place, i) => i > 0 && !kindOf(place) && place.members.length === 0 && !place.options.some(({ text }) => STAYS.test(text)));
  const leads = leadsTo(open, list);
  const laneIn = new Map(members.flatMap((lane) => withInside(lane).map((one) => [one, lane] as const)));
  const inLanes = homesFrom(members, open, leads, (place) => laneIn.has(place) || modals.includes(place));
  const left = open.filter((place) => !inLanes.has(place));
  const inModals = modals.map((modal) => homesFrom([modal], left, leads, (place) => place === modal));
  const homes = new Map([...inModals.flatMap((some) => [...some]), ...inLanes]);
  const details = new Map<PlaceNode, PlaceNode[]>();
  for (const place of open) {
    const home = homes.get(place);
    if (home) details.set(home, [...(details.get(home) ?? []), place]);
  }
  // What several tabs lead to opens in the one where people are, and who goes on from a tab to what is at home in another gets back to it.
  const laneOf = (place: PlaceNode) => laneIn.get(place) ?? inLanes.get(place);
  const toLanes = [...inLanes.keys()].flatMap((place) => (leads.get(place) ?? []).map((lead) => ({ ...lead, home: inLanes.get(place) })));
  const goingOn = new Set(toLanes.map(({ from }) => from));
  const pushed = new Set(
    toLanes.flatMap(({ from, leg, home }) => {
      const lane = laneOf(from);
      return lane && lane !== home && !leg.options.some(({ text }) => WAY_WORDS.has(text)) ? [leg] : [];
    }),
  );
  const put = (place: PlaceNode): PlaceNode => {
    const more = details.get(place) ?? [];
    if (kindOf(place) === "modal") return more.reduce(withStep, place);
    return more.length === 0 && goingOn.has(place) ? withMember(place) : more.reduce((lane, detail) => withMember(lane, detail), place);
  };
  return list
    .filter((place) => !homes.has(place))
    .map((place) => (lanes.includes(place) ? { ...place, members: place.members.map(put) } : modals.includes(place) ? put(place) : place))
    .map((place) => (pushed.size > 0 ? withWay(place, pushed, "push") : place));
}

/** A place in which some legs lead on in a way. */
function withWay(place: PlaceNode, which: ReadonlySet<LegNode>, text: string): PlaceNode {
  const named = (leg: LegNode): LegNode => (which.has(leg) ? { ...leg, options: [...leg.options, { text, line: leg.line, column: leg.column }] } : leg);
  const elements = place.elements.map((element) => ({ ...element, legs: element.legs.map(named) }));
  return { ...place, elements, members: place.members.map((member) => withWay(member, which, text)) };
}

interface Lead {
  from: PlaceNode;
  leg: LegNode;
  element: ElementNode;
}

/** By place of some the legs that lead to it from others in a list, by its name alone. */
function leadsTo(places: readonly PlaceNode[], list: readonly PlaceNode[]): ReadonlyMap<PlaceNode, readonly Lead[]> {
  const byName = new Map(places.map((place) => [folded(place.name), place]));
  const out = new Map<PlaceNode, Lead[]>();
  for (const from of list.flatMap(withInside))
    for (const element of from.elements)
      for (const leg of element.legs) {
        const { target } = leg;
        const place = target.is === "place" && target.path.length === 1 ? byName.get(folded(target.path[0] ?? "")) : undefined;
        if (place && place !== from) push(out, place, { from, leg, element });
      }
  return out;
}

/**
 * Where screens belong that are led to from some homes alone, or from one another: to the home from which they are met first. `isHome` is so of
 * all that does not keep them from that.
 */
function homesFrom(
  homes: readonly PlaceNode[],
  open: readonly PlaceNode[],
  leads: ReadonlyMap<PlaceNode, readonly Lead[]>,
  isHome: (place: PlaceNode) => boolean,
): Map<PlaceNode, PlaceNode> {
  const into = (place: PlaceNode) => leads.get(place) ?? [];
  let inside = open.filter((place) => !into(place).some(startsAnew));
  for (let before = -1; before !== inside.length; ) {
    before = inside.length;
    const known = new Set(inside);
    inside = inside.filter((place) => into(place).every(({ from }) => known.has(from) || isHome(from)));
  }
  const onwards = new Map<PlaceNode, PlaceNode[]>();
  for (const place of inside) for (const { from } of into(place)) push(onwards, from, place);
  const out = new Map<PlaceNode, PlaceNode>();
  for (const home of homes) {
    const reached = withInside(home);
    for (const from of reached)
      for (const place of onwards.get(from) ?? [])
        if (!out.has(place)) {
          out.set(place, home);
          reached.push(place);
        }
  }
  return out;
}

function push<K, T>(map: Map<K, T[]>, key: K, value: T) {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

const withInside = (place: PlaceNode): PlaceNode[] => [place, ...place.members.flatMap(withInside)];

/** What keeps a screen where its line stands. */
const STAYS = /^(apart|start|tab|hub|once)$/;

/** Whether a leg starts over with a screen, so that this is in no tab: signing out does. */
function startsAnew({ leg, element }: Lead): boolean {
  return leg.options.some(({ text }) => text === "reset") || startsOver(element.label, "", false);
}

/** A modal with one more step, behind what it shows. */
function withStep(modal: PlaceNode, step: PlaceNode): PlaceNode {
  if (modal.members.length > 0) return { ...modal, members: [...modal.members, step] };
  const { name, line, column } = modal;
  const shown: PlaceNode = { name, params: [], options: [], elements: modal.elements, members: [], line, column };
  return { ...modal, elements: [], members: [shown, step] };
}

/** A line that says where the app starts: `Start: Lobby`. */
const SAYS_START = /^(start|start (screen|page)|starts( (at|on|with))?|first (screen|page)|initial screen|launch|launch screen|entry( point)?)$/i;

/** The places with the one first that a line names as the start, and without that line. */
export function startingFirst(places: readonly PlaceNode[]): PlaceNode[] {
  const said = places.find(({ name, literal, options, elements: [only, ...more] }) => {
    const isSaid = !literal && SAYS_START.test(name) && options.length === 0 && only && more.length === 0 && isName(only);
    return isSaid && places.some((place) => withInside(place).some((one) => folded(one.name) === folded(only.label)));
  });
  const start = folded(said?.elements[0]?.label ?? "");
  if (!said) return [...places];
  const others = places.filter((place) => place !== said);
  const isOrHolds = (place: PlaceNode) => withInside(place).some(({ name }) => folded(name) === start);
  const first = others.find(isOrHolds);
  const marked = (place: PlaceNode): PlaceNode => {
    const i = folded(place.name) === start ? -1 : place.members.findIndex(isOrHolds);
    if (i < 0) return place;
    const { line, column } = said;
    const isMarked = i > 0 && !place.members.some(({ options }) => options.some(({ text }) => text === "start"));
    const members = place.members.map((member, at) => {
      const inner = at === i ? marked(member) : member;
      return at === i && isMarked ? { ...inner, options: [...inner.options, { text: "start", line, column }] } : inner;
    });
    return { ...place, members };
  };
  return first ? [marked(first), ...others.filter((place) => place !== first)] : others;
}
