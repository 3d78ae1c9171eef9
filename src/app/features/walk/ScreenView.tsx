import { Suspense, useRef } from "react";
import { elementOn } from "../../../core/insight/elements.ts";
import { screenTitle } from "../../../core/insight/text.ts";
import { lookup, nameOf } from "../../../core/model/lookup.ts";
import type { Element as AppElement, Project } from "../../../core/model/schema.ts";
import { planOf } from "../../../core/plan/planOf.ts";
import { barOf, leadOf } from "../../../core/semantics/bar.ts";
import { branchNode, currentScreen, shownIn, topBranch, visiblePath } from "../../../core/semantics/state.ts";
import type { State } from "../../../core/semantics/types.ts";
import { Later, preload } from "../../ui/preloaded.tsx";
import { BarView } from "./BarView.tsx";
import { ElementView } from "./ElementView.tsx";
import type { Touched } from "./gestures.ts";
import { usePicture } from "./usePicture.ts";
import type { Within } from "./within.ts";

const PictureView = preload(async () => (await import("./PictureView.tsx")).PictureView);

/** The screen that a branch shows: its bar, what stands on it and what the containers around it show on every screen. */
export function ScreenView(within: Within) {
  const { project, state, branch, hands } = within;
  const screen = currentScreen(state, branch);
  const declared = lookup(project).screens.get(screen.at);
  const containers = visiblePath(branchNode(state, branch)).slice(0, -1).reverse();
  const layer = state.layers[branch - 1];
  const around = [...containers.filter((node) => node.kind !== "drawer").map((node) => node.at), ...(layer ? [layer.at] : [])];
  const touch = useRef<{ x: number; y: number; touched: Touched | undefined; fromEdge: boolean } | undefined>(undefined);
  const onTop = branch === topBranch(state);
  const picture = usePicture(project, state, branch);
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
        touch.current = { x: event.clientX, y: event.clientY, touched: touched(event.target), fromEdge: atEdge(event) };
      }}
      onPointerUp={(event) => {
        const from = touch.current;
        touch.current = undefined;
        if (from) hands.swipe(branch, event.clientX - from.x, event.clientY - from.y, from);
      }}
    >
      {picture?.picture.holds !== "screen" && (
        <BarView
          bar={barOf(planOf(project), state, branch)}
          lead={leadOf(planOf(project), state, branch)}
          title={screenTitle(project, state, screen)}
          backTo={beneathTitle(project, state, branch)}
          onLead={onTop ? () => hands.send({ do: "lead" }) : undefined}
        >
          {everywhere(["bar"])}
        </BarView>
      )}
      {picture ? (
        <Suspense>
          <Later part={PictureView} within={within} shows={picture} />
        </Suspense>
      ) : (
        <>
          <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-y-auto px-3 py-3">
            {everywhere(["body"])}
            {(declared?.elements.length ?? 0) === 0 && <p className="pt-8 text-center text-[12px] text-ink-2">Nothing on “{nameOf(project, screen.at)}” yet</p>}
          </div>
          <div className="flex flex-col gap-2 px-3 pb-3 empty:hidden">{everywhere(["foot"])}</div>
        </>
      )}
    </div>
  );
}

/** Pixels from the left edge of the device within which a finger is put down for the system's Back. */
const EDGE = 14;

function atEdge(event: React.PointerEvent): boolean {
  const device = event.currentTarget.closest("[data-testid=device]")?.getBoundingClientRect();
  return device !== undefined && event.clientX - device.left < EDGE;
}

/** The element under a finger. */
function touched(target: EventTarget): Touched | undefined {
  const element = target instanceof Element ? target.closest<HTMLElement>("[data-element][data-of]") : null;
  const { element: id, of, item } = element?.dataset ?? {};
  return id !== undefined && of !== undefined ? { element: id, place: of, item } : undefined;
}

/** The elements of a place that stand in some parts of the screen. */
export function Elements({
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
