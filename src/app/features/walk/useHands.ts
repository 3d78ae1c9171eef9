import { useCallback, useMemo, useRef, useState } from "react";
import { lookup } from "../../../core/model/lookup.ts";
import type { Element, Json, NavEvent, Project, Row } from "../../../core/model/schema.ts";
import type { State } from "../../../core/semantics/types.ts";
import { sendMoving } from "../../session/actions/play.ts";
import { useWalkStore } from "../../session/hooks.ts";
import { type Choice, eventsFor, legsOf, liveElements, type Swipe, swipeEvent, type Use } from "./gestures.ts";
import { keepTyped, type Typed, typedOn, typeInto } from "./typed.ts";
import { useTime } from "./useTime.ts";

export interface Outcomes {
  label: string;
  choices: Choice[];
}
export interface Told {
  text: string;
  leg?: string;
  element?: { place: string; element: string };
}
/** Where an element stands on the device. */
export interface On {
  branch: number;
  place: string;
  element: Element;
  row?: Row | undefined;
}
type PressHandlers = Pick<React.DOMAttributes<HTMLElement>, "onPointerDown" | "onPointerUp" | "onPointerLeave" | "onContextMenu" | "onKeyDown">;

export interface Hands {
  /** What was typed on the screen that a branch shows, and on the containers around it. */
  fields: (branch: number) => Record<string, Json>;
  type: (on: On, value: Json) => void;
  send: (event: NavEvent) => void;
  use: (on: On, how: Use) => void;
  /** A finger that went so far from where it was put down. */
  swipe: (branch: number, dx: number, dy: number, from: Pick<Swipe, "touched" | "fromEdge">) => void;
  /** Handlers for a long press (also Shift Enter, and the key or button for menus); none where no leg waits for one. */
  holding: (on: On) => PressHandlers;
  /** Whether any leg starts at an element, so that it is drawn as something to use. */
  leads: (place: string, element: Element) => boolean;
  /** Outcomes to choose from after a tap that the app itself decides about. */
  outcomes: Outcomes | undefined;
  choose: (event: NavEvent | undefined) => void;
  /** Legs that fire by themselves after a time, and wait now. */
  waits: ReadonlyArray<Extract<NavEvent, { do: "leg" }>>;
  /** Why the last tap did nothing, and where to look: the leg, or the element that has none. */
  told: Told | undefined;
  /** A tap on a picture where no area is. */
  missed: () => void;
  /** Goes to an address, as a link would that was typed in or tapped outside. */
  goTo: (address: string) => void;
  /** Elements that do something now, as `place element`. */
  live: ReadonlySet<string>;
}

/** Milliseconds after which a press counts as long. */
const LONG_PRESS = 550;
/** Pixels that a finger has to go for a swipe. */
const SWIPE = 60;

/** What the hands do on the device: taps, typing, swipes, and choosing how the app decided. */
export function useHands(project: Project, state: State | undefined): Hands {
  const walk = useWalkStore();
  const [typed, setTyped] = useState<Typed>({});
  const [outcomes, setOutcomes] = useState<Outcomes>();
  const press = useRef<{ held: boolean; timer?: ReturnType<typeof setTimeout> }>({ held: false });
  const [told, setTold] = useState<Told>();

  const send = useCallback(
    (event: NavEvent) => {
      const made = sendMoving(walk, event);
      setOutcomes(undefined);
      setTold(made && made.outcome !== "moved" ? { text: made.sentence, ...(event.do === "leg" ? { leg: event.leg } : {}) } : undefined);
      if (made?.outcome === "moved" && state) setTyped((known) => keepTyped(known, state, made.state));
    },
    [walk, state],
  );

  const waits = useTime(project, state, send);

  return useMemo<Hands>(() => {
    const fields = (branch: number) => (state ? typedOn(typed, state, branch) : {});
    const use: Hands["use"] = (on, how) => {
      if (how === "tap" && press.current.held) {
        press.current.held = false;
        return;
      }
      const { element, place } = on;
      const legs = legsOf(project, place, element, how);
      const found = state && eventsFor(project, state, legs, { element, row: on.row, fields: fields(on.branch) });
      if (!found) {
        if (how === "tap" && element.kind !== "field" && element.kind !== "switch")
          setTold({ text: `No leg starts at “${element.label}”.`, element: { place, element: element.id } });
      } else if ("event" in found) send(found.event);
      else {
        setTold(undefined);
        setOutcomes({ label: element.label, choices: found.choices });
      }
    };
    const hold = (on: On) => {
      clearTimeout(press.current.timer);
      use(on, "hold");
    };
    return {
      fields,
      outcomes,
      waits,
      told,
      send,
      use,
      type: (on, value) => state && setTyped((known) => typeInto(known, state, on, on.element.id, value)),
      live: state ? liveElements(project, state) : new Set(),
      leads: (place, element) => (lookup(project).legsFrom.get(place) ?? []).some((leg) => "element" in leg.on && leg.on.element === element.id),
      goTo: async (address) => {
        const { findByAddress } = await import("../../../core/model/address.ts");
        const found = findByAddress(project.entrances, address);
        if (found) send({ do: "enter", entrance: found.one.id, ...(Object.keys(found.values).length > 0 ? { args: found.values } : {}) });
        else setTold({ text: `No way in has an address like “${address}”.` });
      },
      missed: () => setTold({ text: "Nothing works there: the picture has no area at that place. The areas showed for a moment." }),
      choose: (event) => (event ? send(event) : setOutcomes(undefined)),
      holding: (on) => {
        if (legsOf(project, on.place, on.element, "hold").length === 0) return {};
        const stop = () => clearTimeout(press.current.timer);
        return {
          onPointerDown: () => {
            const timer = setTimeout(() => {
              hold(on);
              press.current.held = true;
            }, LONG_PRESS);
            press.current = { held: false, timer };
          },
          onPointerUp: stop,
          onPointerLeave: stop,
          onContextMenu: (event) => {
            event.preventDefault();
            if (press.current.held) return;
            hold(on);
            // A finger that is lifted afterwards taps; a mouse's other button does not.
            press.current.held = (event.nativeEvent as PointerEvent).pointerType === "touch";
          },
          onKeyDown: (event) => {
            if (event.key !== "Enter" || !event.shiftKey) return;
            event.preventDefault();
            hold(on);
          },
        };
      },
      swipe: (branch, dx, dy, from) => {
        if (Math.max(Math.abs(dx), Math.abs(dy)) < SWIPE || !state) return;
        const to = Math.abs(dx) > Math.abs(dy) ? (dx < 0 ? "left" : "right") : dy < 0 ? "up" : "down";
        const event = swipeEvent(project, state, branch, { to, ...from });
        if (event) send(event);
      },
    };
  }, [typed, outcomes, told, waits, send, project, state]);
}
