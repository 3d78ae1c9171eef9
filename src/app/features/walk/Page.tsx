import { drawerOf, isPinned, lookup, nameOf, tabsOf } from "../../../core/model/lookup.ts";
import { branchNode, shownIn, visiblePath } from "../../../core/semantics/state.ts";
import type { Node } from "../../../core/semantics/types.ts";
import { PlaceIcon } from "./PlaceIcon.tsx";
import { Elements, ScreenView } from "./ScreenView.tsx";
import { usePicture } from "./usePicture.ts";
import type { Within } from "./within.ts";

/** What one branch shows: containers from the outside in, the screen innermost. */
export function Page({ project, state, branch, hands }: Within) {
  const path = visiblePath(branchNode(state, branch));
  const covered = lookup(project).screens.get(shownIn(branchNode(state, branch)).at)?.coversTabs === true;
  // What the picture of a screen holds is not drawn twice.
  const whole = usePicture(project, state, branch)?.picture.holds === "screen";
  return <Inside path={path} covered={covered} whole={whole} project={project} state={state} branch={branch} hands={hands} />;
}

function Inside({ path, covered, whole, ...within }: Within & { path: Node[]; covered: boolean; whole: boolean }) {
  const [node, ...rest] = path;
  if (!node) return null;
  if (node.kind === "shown") return <ScreenView {...within} />;
  const inner = <Inside path={rest} covered={covered} whole={whole} {...within} />;
  if (node.kind === "tabs" && !covered && !whole) return <TabsAround at={node.at} active={node.active} {...within} inner={inner} />;
  if (node.kind === "drawer") return <DrawerAround at={node.at} active={node.active} open={node.open} whole={whole} {...within} inner={inner} />;
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
          <span className={`flex min-w-0 items-center justify-center ${edge === "side" ? "gap-1.5" : "flex-col"}`}>
            <PlaceIcon project={project} id={id} />
            <span className="max-w-full truncate">{nameOf(project, id)}</span>
          </span>
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

function DrawerAround({
  at,
  active,
  open,
  whole,
  inner,
  ...within
}: Within & { at: string; active: string; open: boolean; whole: boolean; inner: React.ReactNode }) {
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
          className={`flex min-h-8 min-w-0 items-center gap-1.5 px-2 text-left text-[12px] ${id === active ? "border-accent border-l-[3px] font-semibold" : "text-ink-2"}`}
        >
          <PlaceIcon project={project} id={id} />
          <span className="truncate">{nameOf(project, id)}</span>
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
  if (pinned && whole) return inner;
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
