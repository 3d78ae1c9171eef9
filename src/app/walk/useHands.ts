import { useCallback, useMemo, useRef, useState } from "react";
import { available } from "../../core/engine/available.ts";
import { branchNode, type State, visiblePath } from "../../core/engine/state.ts";
import { step } from "../../core/engine/step.ts";
import { keyField } from "../../core/engine/values.ts";
import { matchAddress } from "../../core/model/address.ts";
import { elementIdOf, lookup, tabsOf } from "../../core/model/lookup.ts";
import type { Element, Json, Leg, NavEvent, Project, Row } from "../../core/model/schema.ts";
import type { Step } from "../store/walk.ts";
import { sendMoving } from "./play.ts";

export interface Outcomes {
  label: string;
  choices: Array<{ outcome: string; event: NavEvent }>;
}
export interface Told {
  text: string;
  leg?: string;
  element?: { place: string; element: string };
}
export interface Hands {
  fields: Record<string, Json>;
  type: (field: string, value: Json) => void;
  send: (event: NavEvent) => void;
  use: (placeId: string, element: Element, how: "tap" | "submit" | "hold", row?: Row) => void;
  swipe: (branch: number, dx: number, dy: number) => void;
  /** Handlers for a long press; none where no leg waits for one. */
  holding: (placeId: string, element: Element, row?: Row) => Partial<Record<"onPointerDown" | "onPointerUp" | "onPointerLeave", () => void>>;
  /** Outcomes to choose from after a tap that the app itself decides about. */
  outcomes: Outcomes | undefined;
  choose: (event: NavEvent | undefined) => void;
  /** Why the last tap did nothing, and where to look: the leg, or the element that has none. */
  told: Told | undefined;
  /** Goes to an address, as a link would that was typed in or tapped outside. */
  goTo: (address: string) => void;
  /** Elements that do something now, as `place element`. */
  live: ReadonlySet<string>;
}

/** Milliseconds after which a press counts as long. */
const LONG_PRESS = 550;

/** What the hands do on the device: taps, typing, swipes, and choosing how the app decided. */
export function useHands(project: Project, state: State | undefined): Hands {
  const [fields, setFields] = useState<Record<string, Json>>({});
  const [outcomes, setOutcomes] = useState<Outcomes>();
  const press = useRef<{ held: boolean; timer?: ReturnType<typeof setTimeout> }>({ held: false });
  const [told, setTold] = useState<Told>();

  const send = useCallback(
    (event: NavEvent) => {
      const made: Step | undefined = sendMoving(event);
      setOutcomes(undefined);
      setTold(made && made.outcome !== "moved" ? { text: made.sentence, ...(event.do === "leg" ? { leg: event.leg } : {}) } : undefined);
      if (made?.outcome === "moved" && event.do === "leg" && lookup(project).legs.get(event.leg)?.move) setFields({});
    },
    [project],
  );

  return useMemo<Hands>(() => {
    const legsOf = (placeId: string, element: Element, kinds: string[]): Leg[] =>
      (lookup(project).legsFrom.get(placeId) ?? []).filter((leg) => elementIdOf(leg) === element.id && kinds.includes(leg.on.kind));
    const use: Hands["use"] = (placeId, element, how, row) => {
      if (how === "tap" && press.current.held) {
        press.current.held = false;
        return;
      }
      const legs = legsOf(placeId, element, how === "tap" && element.kind !== "field" ? ["tap", "submit"] : [how]);
      if (legs.length === 0) {
        if (element.kind !== "field" && element.kind !== "switch" && element.kind !== "text")
          setTold({ text: `No leg starts at “${element.label}”.`, element: { place: placeId, element: element.id } });
        return;
      }
      const events = legs.map((leg) => ({ leg, event: legEvent(project, leg, element, row, fields) }));
      const possible = state ? events.filter(({ event }) => !ignored(project, state, event)) : [];
      const named = new Map(possible.flatMap((p) => ("outcome" in p.leg.on && p.leg.on.outcome !== undefined ? [[p.leg.on.outcome, p.event] as const] : [])));
      if (named.size > 1) {
        setTold(undefined);
        setOutcomes({ label: element.label, choices: [...named].map(([outcome, event]) => ({ outcome, event })) });
        return;
      }
      const first = (possible[0] ?? events[0])?.event;
      if (first) send(first);
    };
    return {
      fields,
      outcomes,
      told,
      send,
      use,
      type: (field, value) => setFields((known) => ({ ...known, [field]: value })),
      live: state ? liveElements(project, state) : new Set(),
      goTo: (address) => {
        const found = project.entrances.flatMap((entrance) => {
          const args = entrance.pattern === undefined ? undefined : matchAddress(entrance.pattern, address);
          return args ? [{ entrance: entrance.id, args }] : [];
        })[0];
        if (found) send({ do: "enter", entrance: found.entrance, ...(Object.keys(found.args).length > 0 ? { args: found.args } : {}) });
        else setTold({ text: `No way in has an address like “${address}”.` });
      },
      choose: (event) => (event ? send(event) : setOutcomes(undefined)),
      holding: (placeId, element, row) => {
        if (legsOf(placeId, element, ["hold"]).length === 0) return {};
        const stop = () => clearTimeout(press.current.timer);
        return {
          onPointerDown: () => {
            press.current = {
              held: false,
              timer: setTimeout(() => {
                use(placeId, element, "hold", row);
                press.current.held = true;
              }, LONG_PRESS),
            };
          },
          onPointerUp: stop,
          onPointerLeave: stop,
        };
      },
      swipe: (branch, dx, dy) => {
        const far = Math.max(Math.abs(dx), Math.abs(dy));
        if (far < 60 || !state) return;
        const to = Math.abs(dx) > Math.abs(dy) ? (dx < 0 ? "left" : "right") : dy < 0 ? "up" : "down";
        const event = swipeEvent(project, state, branch, to);
        if (event) send(event);
      },
    };
  }, [fields, outcomes, told, send, project, state]);
}

function liveElements(project: Project, state: State): Set<string> {
  return new Set(
    available(project, state).flatMap((event) => {
      const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
      const element = leg && elementIdOf(leg);
      return leg && element !== undefined ? [`${leg.from} ${element}`] : [];
    }),
  );
}

function ignored(project: Project, state: State, event: NavEvent): boolean {
  return step(project, state, event).outcome === "ignored";
}

function legEvent(project: Project, leg: Leg, element: Element, row: Row | undefined, fields: Record<string, Json>): NavEvent {
  const type = element.of === undefined ? undefined : lookup(project).types.get(element.of);
  const key = type && row ? row[keyField(type)] : undefined;
  const item = typeof key === "string" ? key : row;
  return { do: "leg", leg: leg.id, ...(item === undefined ? {} : { item }), ...(Object.keys(fields).length > 0 ? { fields } : {}) };
}

/** A swipe leg that can fire, else the neighbouring tab where the tabs can be swiped. */
function swipeEvent(project: Project, state: State, branch: number, to: "left" | "right" | "up" | "down"): NavEvent | undefined {
  const path = visiblePath(branchNode(state, branch));
  const sources = new Set([...path.map((node) => node.at), state.layers[branch - 1]?.at ?? ""]);
  const leg = available(project, state).find((event) => {
    const found = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
    return found?.on.kind === "swipe" && found.on.to === to && sources.has(found.from);
  });
  if (leg) return leg;
  const tabs = path.findLast((node) => node.kind === "tabs" && tabsOf(project, node.at)?.swipes);
  if (tabs?.kind !== "tabs" || (to !== "left" && to !== "right")) return undefined;
  const members = tabsOf(project, tabs.at)?.members ?? [];
  const next = members[members.indexOf(tabs.active) + (to === "left" ? 1 : -1)];
  return next === undefined ? undefined : { do: "tab", to: next };
}
