import { appOf } from "../../../core/insight/app.ts";
import { valueText } from "../../../core/insight/text.ts";
import { giveOf, lookup, nameOf, passOf } from "../../../core/model/lookup.ts";
import type { NavEvent, Project } from "../../../core/model/schema.ts";
import { planOf } from "../../../core/plan/planOf.ts";
import { lanesInOrder } from "../../../core/semantics/line.ts";
import { branchNode, currentScreen, shownIn, topBranch, visiblePath } from "../../../core/semantics/state.ts";
import { step } from "../../../core/semantics/step.ts";
import type { Node, State } from "../../../core/semantics/types.ts";
import { useWalk } from "../../session/hooks.ts";
import type { WalkState } from "../../session/walk.ts";

/** What no device shows: the stack as cards over one another, other lanes, arguments, facts, and what Back and the lead do next. */
export function Beneath({ project, state, wide }: { project: Project; state: State; wide?: boolean }) {
  const walk = useWalk();
  const screen = currentScreen(state);
  const args = Object.entries(screen.args);
  return (
    <aside aria-label="Beneath" className={wide ? "grid grid-cols-2 gap-x-4 gap-y-3 text-[12px]" : "flex min-w-0 flex-1 flex-col gap-3 text-[12px]"}>
      <div>
        <h3 className="caption m-0 mb-1">Beneath</h3>
        {Array.from({ length: state.layers.length + 1 }, (_, i) => topBranch(state) - i).map((branch) => (
          <BranchCards key={branch} project={project} state={state} branch={branch} />
        ))}
      </div>
      <Lanes project={project} state={state} />
      {args.length > 0 && (
        <div>
          <h3 className="caption m-0 mb-0.5">Knows</h3>
          {args.map(([name, value]) => (
            <p key={name} className="m-0 font-mono text-[11px] leading-snug break-words">
              {name} <span className="text-proved">{typeof value === "string" ? `"${value}"` : valueText(value)}</span>
              <span className="block font-sans text-[11px] text-ink-2">{cameFrom(project, walk, screen.at, name)}</span>
            </p>
          ))}
        </div>
      )}
      {project.facts.length > 0 && (
        <div>
          <h3 className="caption m-0 mb-0.5">Facts</h3>
          {project.facts.map((fact) => {
            const value = state.facts[fact.id];
            return (
              <p key={fact.id} className="m-0 flex items-baseline gap-1.5 leading-snug">
                <span
                  aria-hidden="true"
                  className={`inline-block h-2 w-2 shrink-0 rounded-full border border-ink ${value === true ? "bg-ink" : ""} ${typeof value === "string" ? "hidden" : ""}`}
                />
                <span className="min-w-0">
                  {fact.name ?? fact.id}
                  {typeof value === "string" ? `: ${value}` : <span className="sr-only">{value === true ? " yes" : " no"}</span>}
                </span>
              </p>
            );
          })}
        </div>
      )}
      {state.waiting && (
        <div>
          <h3 className="caption m-0">Waiting</h3>
          <p className="m-0 text-ink-2">{nameOf(project, state.waiting.entrance)}</p>
        </div>
      )}
      <div>
        <h3 className="caption m-0 mb-0.5">Then</h3>
        <p className="m-0 text-ink-2">Back → {outcomeText(project, state, { do: "back" })}</p>
        <p className="m-0 text-ink-2">In the bar → {outcomeText(project, state, { do: "lead" })}</p>
      </div>
    </aside>
  );
}

/** Where an argument of the current screen came from: the last step of the walk that made the screen. */
function cameFrom(project: Project, { steps, at }: Pick<WalkState, "steps" | "at">, screenId: string, name: string): string {
  const shown = steps.slice(0, at).filter((one) => one.outcome === "moved" && currentScreen(one.state).at === screenId);
  const legOf = (event: NavEvent) => (event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined);
  const made = shown.findLast(({ event }) => event.do === "enter" || passOf(legOf(event))?.[name] !== undefined || giveOf(legOf(event))?.[name] !== undefined);
  const leg = made && legOf(made.event);
  const back = giveOf(leg)?.[name];
  if (leg && back !== undefined) return `handed back by ${nameOf(project, leg.from)}: ${back}`;
  const source = passOf(leg)?.[name];
  if (source === undefined) return made?.event.do === "enter" ? `from ${nameOf(project, made.event.entrance)}` : "by default, or by name";
  if (/^item\b/.test(source)) return `from the row: ${source}`;
  if (/^param\b/.test(source)) return `from before: ${source}`;
  if (/^field\b/.test(source)) return `typed: ${source}`;
  return `from ${source}`;
}

function BranchCards({ project, state, branch }: { project: Project; state: State; branch: number }) {
  const stack = visiblePath(branchNode(state, branch)).findLast((node) => node.kind === "stack");
  const items: readonly Node[] = stack?.kind === "stack" ? stack.items : [branchNode(state, branch)];
  const layer = state.layers[branch - 1];
  const top = branch === topBranch(state);
  const under = stack ? nameOf(project, stack.at) : undefined;
  return (
    <div className="mb-2">
      {[...items].reverse().map((item, i) => (
        <div
          key={i}
          className={`truncate border px-1.5 py-0.5 ${i === 0 && top ? "border-accent bg-accent font-semibold text-on-accent" : "border-ink bg-sheet"} ${i > 0 ? "mt-[3px]" : ""}`}
        >
          {nameOf(project, shownIn(item).at)}
        </div>
      ))}
      <p className={`m-0 mt-1 border-t-2 text-[11px] text-ink-2 ${layer ? "border-dotted border-ink" : "border-ink"}`}>
        {layer ? `over the page: ${nameOf(project, layer.at)}` : (under ?? "no history")}
      </p>
    </div>
  );
}

function Lanes({ project, state }: { project: Project; state: State }) {
  const lanes = visiblePath(state.base).flatMap((node) =>
    node.kind === "tabs" || node.kind === "drawer"
      ? lanesInOrder(planOf(project), node).flatMap((id) => (id === node.active || !node.lanes[id] ? [] : [{ id, lane: node.lanes[id] }]))
      : [],
  );
  if (lanes.length === 0) return null;
  return (
    <div>
      <h3 className="caption m-0 mb-1">Other lanes</h3>
      {lanes.map(({ id, lane }) => (
        <p key={id} className="m-0 mb-[3px] truncate border border-dashed border-ink-2 px-1.5 py-0.5 text-[11.5px] text-ink-2">
          {nameOf(project, id)} · {nameOf(project, shownIn(lane).at)}
        </p>
      ))}
    </div>
  );
}

function outcomeText(project: Project, state: State, event: NavEvent): string {
  const result = step(appOf(project), state, event);
  switch (result.outcome) {
    case "moved":
      return nameOf(project, currentScreen(result.state).at);
    case "left":
      return "leaves the app";
    case "ignored":
      return "nothing";
    case "refused":
      return "fails";
  }
}
