import { useRef } from "react";
import { elementOn } from "../../core/insight/elements.ts";
import { screenTitle } from "../../core/insight/text.ts";
import { drawerOf, isPinned, lookup, modalOf, nameOf, tabsOf } from "../../core/model/lookup.ts";
import type { Element as AppElement, Modal, NavEvent, Project, Width } from "../../core/model/schema.ts";
import { planOf } from "../../core/plan/planOf.ts";
import { barOf, leadOf } from "../../core/semantics/bar.ts";
import { branchNode, currentScreen, shownIn, topBranch, visiblePath } from "../../core/semantics/state.ts";
import type { Layer, Node, State } from "../../core/semantics/types.ts";
import { AddressBar } from "./AddressBar.tsx";
import { BarView } from "./BarView.tsx";
import { ElementView } from "./ElementView.tsx";
import type { Touched } from "./gestures.ts";
import type { Hands } from "./useHands.ts";

/** The size of the drawn device in its own pixels. */
const SIZES: Record<Width, { width: number; height: number }> = {
  narrow: { width: 232, height: 450 },
  middle: { width: 520, height: 640 },
  wide: { width: 800, height: 620 },
};

interface Props {
  project: Project;
  state: State;
  hands: Hands;
  /** Pixels that it may be wide. */
  room: number;
  /** Pixels that it may be high, where it fills what there is: it is then drawn larger or smaller, and as long as fits. */
  fill?: number;
}

/** A device of no platform on which the app runs: drawn from the document, tapped like the real thing. */
export function Device({ project, state, hands, room, fill }: Props) {
  const { width, height: usual } = SIZES[state.width];
  const scale = fill === undefined ? Math.min(1, room / width) : room / width;
  const height = fill === undefined ? usual : fill / scale;
  // Beneath a layer that does not block, what can be used is used; a tap on free ground is a tap outside.
  const tapOutside = (event: React.MouseEvent) => {
    const top = modalOf(project, state.layers.at(-1)?.at ?? "");
    if (!top || top.blocks || !top.closeOn.includes("outside") || !(event.target instanceof Element)) return;
    if (!event.target.closest("button, input, label, [data-layer]")) hands.send({ do: "close", via: "outside" });
  };
  return (
    <div style={{ width: width * scale, height: height * scale }} data-testid="device" data-screen={currentScreen(state).at}>
      <div
        className={`device relative flex origin-top-left flex-col overflow-hidden bg-paper ${fill === undefined ? "rounded-[14px] border-2 border-ink p-2" : ""}`}
        style={{ width, height, transform: `scale(${scale})` }}
      >
        {state.width === "wide" && <AddressBar project={project} state={state} onGo={hands.goTo} />}
        <div className="relative min-h-0 flex-1 overflow-hidden rounded-[4px] border border-hairline bg-sheet" onClick={tapOutside}>
          <Page project={project} state={state} branch={0} hands={hands} />
          {state.layers.map((layer, i) => (
            <LayerView key={`${layer.at} ${i + 1}`} project={project} state={state} layer={layer} branch={i + 1} hands={hands} />
          ))}
        </div>
      </div>
    </div>
  );
}

interface Within {
  project: Project;
  state: State;
  branch: number;
  hands: Hands;
}

/** What one branch shows: containers from the outside in, the screen innermost. */
function Page({ project, state, branch, hands }: Within) {
  const path = visiblePath(branchNode(state, branch));
  const covered = lookup(project).screens.get(shownIn(branchNode(state, branch)).at)?.coversTabs === true;
  return <Inside path={path} covered={covered} project={project} state={state} branch={branch} hands={hands} />;
}

function Inside({ path, covered, ...within }: Within & { path: Node[]; covered: boolean }) {
  const [node, ...rest] = path;
  if (!node) return null;
  if (node.kind === "shown") return <ScreenView {...within} />;
  const inner = <Inside path={rest} covered={covered} {...within} />;
  if (node.kind === "tabs" && !covered) return <TabsAround at={node.at} active={node.active} {...within} inner={inner} />;
  if (node.kind === "drawer") return <DrawerAround at={node.at} active={node.active} open={node.open} {...within} inner={inner} />;
  return inner;
}

function TabsAround({ at, active, project, state, hands, inner }: Within & { at: string; active: string; inner: React.ReactNode }) {
  const tabs = tabsOf(project, at);
  const edge = (state.width === "wide" ? tabs?.edgeWide : undefined) ?? tabs?.edge ?? "bottom";
  const bar = (
    <nav
      className={`flex shrink-0 ${edge === "side" ? "w-20 flex-col border-r" : edge === "top" ? "border-b" : "border-t"} border-hairline bg-sheet`}
      aria-label={`${nameOf(project, at)} tabs`}
    >
      {tabs?.members.map((id) => (
        <button
          key={id}
          type="button"
          data-tab={id}
          aria-current={id === active ? "page" : undefined}
          onClick={() => hands.send({ do: "tab", to: id })}
          className={`relative min-h-10 flex-1 truncate px-1 text-[11.5px] ${id === active ? "font-semibold text-ink" : "text-ink-2"}`}
        >
          {id === active && (
            <span
              className={`absolute bg-accent ${edge === "side" ? "inset-y-1 left-0 w-[3px]" : `inset-x-3 h-[3px] ${edge === "top" ? "bottom-0" : "top-0"}`}`}
            />
          )}
          {nameOf(project, id)}
        </button>
      ))}
    </nav>
  );
  return (
    <div className={`flex h-full ${edge === "side" ? "" : "flex-col"}`}>
      {edge !== "bottom" && bar}
      <div className="relative min-h-0 min-w-0 flex-1">{inner}</div>
      {edge === "bottom" && bar}
    </div>
  );
}

function DrawerAround({ at, active, open, inner, ...within }: Within & { at: string; active: string; open: boolean; inner: React.ReactNode }) {
  const { project, state, hands } = within;
  const drawer = drawerOf(project, at);
  if (!drawer) return inner;
  const pinned = isPinned(drawer, state.width);
  const top = pinned && drawer.pinnedAs === "top";
  const members = (
    <div className={`flex ${top ? "border-b" : `h-full w-36 flex-col ${drawer.side === "left" ? "border-r" : "border-l"}`} border-ink/30 bg-sheet p-1`}>
      {drawer.members.map((id) => (
        <button
          key={id}
          type="button"
          data-pick={id}
          aria-current={id === active ? "page" : undefined}
          onClick={() => hands.send({ do: "pick", to: id })}
          className={`min-h-8 truncate px-2 text-left text-[12px] ${id === active ? "border-accent border-l-[3px] font-semibold" : "text-ink-2"}`}
        >
          {nameOf(project, id)}
        </button>
      ))}
      {(open || pinned) && <Elements {...within} placeId={at} elements={drawer.elements ?? []} at={["bar", "body", "foot"]} />}
      {open && drawer.closeOn.includes("button") && (
        <button
          type="button"
          data-close
          aria-label={`Close ${nameOf(project, at)}`}
          className="order-first h-7 w-7 self-end text-[13px] text-ink-2 hover:text-ink"
          onClick={() => hands.send({ do: "close", via: "button" })}
        >
          ×
        </button>
      )}
    </div>
  );
  // Beside a drawer that pushes the page, the page's own menu button stays in reach: it closes the drawer.
  const beside = (
    <button type="button" aria-label="Beside the drawer" className="absolute inset-0 bg-black/25" onClick={() => hands.send({ do: "close", via: "outside" })} />
  );
  if (pinned)
    return (
      <div className={`flex h-full ${top ? "flex-col" : drawer.side === "right" ? "flex-row-reverse" : ""}`}>
        {members}
        <div className="relative min-h-0 min-w-0 flex-1">{inner}</div>
      </div>
    );
  return (
    <div className="relative h-full">
      <div className={`h-full transition-transform ${open && !drawer.over ? (drawer.side === "left" ? "translate-x-36" : "-translate-x-36") : ""}`}>
        {inner}
        {open && !drawer.over && beside}
      </div>
      {open && drawer.over && beside}
      {open && (
        <div className={`absolute inset-y-0 shadow-lg ${drawer.side === "left" ? "left-0 device-from-left" : "right-0 device-from-right"}`}>{members}</div>
      )}
    </div>
  );
}

function LayerView({ layer, ...within }: Within & { layer: Layer }) {
  const { project, state, branch, hands } = within;
  const modal = modalOf(project, layer.at);
  const top = branch === topBranch(state);
  const size = modal?.shape === "full" ? "inset-0" : sizeOf(modal);
  const closable = modal?.closeOn.includes("button") && top;
  const close = (event: NavEvent) => hands.send(event);
  return (
    <>
      {modal?.shape !== "full" && (modal?.blocks ?? true) && (
        <button
          type="button"
          aria-label={`Outside ${nameOf(project, layer.at)}`}
          className={`absolute inset-0 ${modal?.dims ? "bg-black/30" : ""}`}
          onClick={() => close({ do: "close", via: "outside" })}
        />
      )}
      {modal?.shape !== "full" && modal?.blocks === false && modal.dims && <div className="pointer-events-none absolute inset-0 bg-black/30" />}
      <section
        data-layer={branch}
        className={`absolute flex flex-col overflow-hidden border border-ink/50 bg-sheet shadow-lg ${size}`}
        aria-label={nameOf(project, layer.at)}
      >
        {modal?.closeOn.includes("swipe") && top && modal.edge === "bottom" && (
          <button
            type="button"
            aria-label="Swipe away"
            className="mx-auto mt-1 h-1.5 w-10 rounded bg-hairline"
            onClick={() => close({ do: "close", via: "swipe" })}
          />
        )}
        <div className="relative min-h-0 flex-1">
          <Page {...within} />
          {closable && (
            <button
              type="button"
              aria-label="Close"
              data-close
              className="absolute top-1.5 right-1.5 h-7 w-7 border border-hairline bg-sheet text-[13px]"
              onClick={() => close({ do: "close", via: "button" })}
            >
              ×
            </button>
          )}
        </div>
      </section>
    </>
  );
}

/** Where a modal lies and how much of the page it takes. What only needs a little is aligned along its edge. */
function sizeOf(modal: Modal | undefined): string {
  if (modal?.shape === "dialog" || modal?.edge === "center") return "left-[8%] right-[8%] top-1/2 -translate-y-1/2 min-h-[38%] max-h-[80%] rounded";
  const edge = modal?.edge ?? "bottom";
  const level = edge === "top" || edge === "bottom";
  const extent = modal?.extent ?? "most";
  const side = { top: "top-0", bottom: "bottom-0 rounded-t", left: "left-0", right: "right-0" }[edge];
  const size = level ? { fit: "h-2/5", half: "h-1/2", most: "h-[86%]" }[extent] : { fit: "w-2/5", half: "w-[70%]", most: "w-[86%]" }[extent];
  const whole = level ? "inset-x-0" : "inset-y-0";
  if (extent !== "fit" || modal?.align === undefined) return `${whole} ${side} ${size}`;
  const along = level
    ? { start: "left-0 w-3/4", center: "left-[12.5%] w-3/4", end: "right-0 w-3/4" }
    : { start: "top-0 h-3/4", center: "top-[12.5%] h-3/4", end: "bottom-0 h-3/4" };
  return `${along[modal.align]} ${side} ${size}`;
}

function ScreenView(within: Within) {
  const { project, state, branch, hands } = within;
  const screen = currentScreen(state, branch);
  const declared = lookup(project).screens.get(screen.at);
  const containers = visiblePath(branchNode(state, branch)).slice(0, -1).reverse();
  const layer = state.layers[branch - 1];
  const around = [...containers.filter((node) => node.kind !== "drawer").map((node) => node.at), ...(layer ? [layer.at] : [])];
  const touch = useRef<{ x: number; y: number; on: Touched | undefined } | undefined>(undefined);
  const onTop = branch === topBranch(state);
  const everywhere = (at: Array<NonNullable<AppElement["at"]>>) => (
    <>
      <Elements {...within} placeId={screen.at} elements={declared?.elements ?? []} at={at} />
      {around.map((id) => (
        <Elements key={id} {...within} placeId={id} elements={lookup(project).containers.get(id)?.elements ?? []} at={at} />
      ))}
    </>
  );
  return (
    <div
      className="flex h-full flex-col bg-sheet"
      data-page={branch}
      key={screen.at}
      onPointerDown={(event) => {
        touch.current = { x: event.clientX, y: event.clientY, on: touched(event.target) };
      }}
      onPointerUp={(event) => {
        const from = touch.current;
        touch.current = undefined;
        if (from) hands.swipe(branch, event.clientX - from.x, event.clientY - from.y, from.on);
      }}
    >
      <BarView
        bar={barOf(planOf(project), state, branch)}
        lead={leadOf(planOf(project), state, branch)}
        title={screenTitle(project, state, screen)}
        backTo={beneathTitle(project, state, branch)}
        onLead={onTop ? () => hands.send({ do: "lead" }) : undefined}
      >
        {everywhere(["bar"])}
      </BarView>
      <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-y-auto px-3 py-3">
        {everywhere(["body"])}
        {(declared?.elements.length ?? 0) === 0 && <p className="pt-8 text-center text-[12px] text-ink-2">Nothing on “{nameOf(project, screen.at)}” yet</p>}
      </div>
      <div className="flex flex-col gap-2 px-3 pb-3 empty:hidden">{everywhere(["foot"])}</div>
    </div>
  );
}

/** The element under a finger. */
function touched(target: EventTarget): Touched | undefined {
  const element = target instanceof Element ? target.closest<HTMLElement>("[data-element][data-of]") : null;
  const { element: id, of, item } = element?.dataset ?? {};
  return id !== undefined && of !== undefined ? { element: id, place: of, item } : undefined;
}

function Elements({
  project,
  state,
  branch,
  hands,
  placeId,
  elements,
  at,
}: Within & { placeId: string; elements: AppElement[]; at: Array<NonNullable<AppElement["at"]>> }) {
  const screen = currentScreen(state, branch);
  return elements
    .filter((element) => at.includes(element.at ?? "body"))
    .map((element) => {
      const { shown, enabled } = elementOn(project, state, screen, placeId, element, hands.fields(branch));
      if (!shown) return null;
      return (
        <ElementView
          key={`${placeId} ${element.id}`}
          project={project}
          state={state}
          screen={screen}
          branch={branch}
          placeId={placeId}
          element={element}
          enabled={enabled}
          hands={hands}
        />
      );
    });
}

/** The title of the screen that the lead would come back to. */
function beneathTitle(project: Project, state: State, branch: number): string | undefined {
  const stack = visiblePath(branchNode(state, branch)).findLast((node) => node.kind === "stack");
  const beneath = stack?.kind === "stack" ? stack.items[stack.items.length - 2] : undefined;
  return beneath && screenTitle(project, state, shownIn(beneath));
}
