import { Link } from "react-router";
import { bornSays, followValue, type Provider, providersOf, type Slot } from "../../../core/insight/flow.ts";
import { entranceValues, sampleValues } from "../../../core/insight/sample.ts";
import { triggerLabel } from "../../../core/model/describe.ts";
import { changeEntrance, changeLeg } from "../../../core/model/edits/change.ts";
import { valueType } from "../../../core/model/expression.ts";
import { elementIdOf, elementOf, giveOf, mustBePassed, nameOf, passOf } from "../../../core/model/lookup.ts";
import { withGive, withPass } from "../../../core/model/moves.ts";
import type { Param, Project, Screen } from "../../../core/model/schema.ts";
import { entranceScope, legScope } from "../../../core/model/scope.ts";
import { useDocument, useFindings, useFocus, useSelection, useSession } from "../../session/hooks.ts";
import { ExpressionField } from "../../ui/ExpressionField.tsx";

/** Screens × what they need × who hands it on and from what; gaps stand out, and every expression can be changed in place. */
export function ParameterTable({ project }: { project: Project }) {
  const screens = project.screens.filter((screen) => screen.params.length > 0);
  if (screens.length === 0)
    return (
      <p className="m-0 px-4 py-6 text-[13px] text-ink-2">
        No screen needs to know anything yet. Choose a screen and say, at the left below, what it needs to know: the key of the row that was tapped, for a
        start.
      </p>
    );
  return (
    <table className="w-full border-collapse text-left text-[12.5px]">
      <thead className="sticky top-0 z-10 bg-paper text-[11.5px] text-ink-2">
        <tr>
          <th className="py-1.5 pl-4 font-normal">Screen</th>
          <th className="font-normal">needs</th>
          <th className="font-normal">passed by</th>
          <th className="pr-4 font-normal">from</th>
        </tr>
      </thead>
      {screens.map((screen) => (
        <tbody key={screen.id} className="border-t-2 border-hairline">
          {screen.params.map((param, i) => (
            <ParamRows key={param.name} project={project} screen={screen} param={param} first={i === 0} />
          ))}
        </tbody>
      ))}
    </table>
  );
}

function ParamRows({ project, screen, param, first }: { project: Project; screen: Screen; param: Param; first: boolean }) {
  const select = useSelection((s) => s.select);
  const { focus, show } = useFocus();
  const findings = useFindings((f) => f.result?.findings ?? NONE);
  const providers = providersOf(project, screen, param);
  const unused = findings.some((f) => f.code === "unused-parameter" && f.subjects[0] === screen.id && f.subjects[1] === param.name);
  const slot: Slot = { screen: screen.id, param: param.name };
  const followed = focus?.kind === "value" && focus.screen === slot.screen && focus.param === slot.param;
  const rows = Math.max(1, providers.length) + (followed ? 1 : 0);
  return (
    <>
      {(providers.length > 0 ? providers : [undefined]).map((provider, i) => (
        <tr
          key={provider ? keyOf(provider) : "none"}
          data-provider={provider && keyOf(provider)}
          data-slot={`${screen.id} ${param.name}`}
          className="align-top"
        >
          {i === 0 && (
            <>
              <th rowSpan={rows} className="w-32 py-1.5 pl-4 font-semibold">
                {first && (
                  <button type="button" className="min-h-6 text-left hover:underline" onClick={() => select({ kind: "place", id: screen.id })}>
                    {screen.name || screen.id}
                  </button>
                )}
              </th>
              <td rowSpan={rows} className="w-36 py-1.5 pr-3">
                <code className="font-mono text-[12px]">{param.name}</code>{" "}
                <span className="text-[11.5px] text-ink-2">
                  {param.type}
                  {param.required ? "" : ", may be missing"}
                  {param.default === undefined ? "" : `, else ${JSON.stringify(param.default)}`}
                </span>
                {unused && <span className="block text-[11.5px] text-warm">nothing uses it</span>}
                <button
                  type="button"
                  aria-pressed={followed}
                  className="block min-h-6 text-[11.5px] font-semibold text-accent hover:underline"
                  onClick={() => show(followed ? undefined : { kind: "value", ...slot })}
                >
                  {followed ? "stop following" : "follow it"}
                </button>
              </td>
            </>
          )}
          {provider ? (
            <>
              <td className="w-52 py-1.5 pr-3">
                <button
                  type="button"
                  className="min-h-6 text-left hover:underline"
                  onClick={() => select(provider.kind === "entrance" ? { kind: "entrance", id: provider.entrance.id } : { kind: "leg", id: provider.leg.id })}
                >
                  {providerName(project, provider)}
                </button>
                {provider.kind === "back" && <span className="block text-[11.5px] text-ink-2">hands it back</span>}
              </td>
              <td className="py-1 pr-4">
                <SourceField project={project} param={param} provider={provider} />
              </td>
            </>
          ) : (
            <td colSpan={2} className="py-1.5 text-ink-2">
              nothing leads here
            </td>
          )}
        </tr>
      ))}
      {followed && (
        <tr>
          <td colSpan={2} className="py-1.5 pr-4">
            <FlowView project={project} slot={slot} />
          </td>
        </tr>
      )}
    </>
  );
}

const NONE: never[] = [];

/** The expression that a leg or way in hands on, to be changed in place. */
function SourceField({ project, param, provider }: { project: Project; param: Param; provider: Provider }) {
  const apply = useDocument((d) => d.apply);
  const { scope, values } =
    provider.kind === "entrance"
      ? { scope: entranceScope(project, provider.entrance), values: entranceValues(project, provider.entrance.pattern, provider.entrance.to) }
      : { scope: legScope(project, provider.leg), values: sampleValues(project, provider.leg) };
  const gap = provider.source === undefined && mustBePassed(param);
  return (
    <ExpressionField
      label=""
      accessibleLabel={`${param.name} from ${providerName(project, provider)}`}
      value={provider.source ?? ""}
      scope={scope}
      values={values}
      wants={valueType(param.type)}
      placeholder={gap ? "required, and not passed" : "nothing"}
      problem={gap ? "required, and not passed" : undefined}
      onCommit={(text) => {
        if (provider.kind === "entrance")
          return apply(changeEntrance(project, provider.entrance.id, { pass: withSource(provider.entrance.pass, param.name, text) }));
        const { leg } = provider;
        if (!leg.move) return;
        const move =
          provider.kind === "back"
            ? withGive(leg.move, withSource(giveOf(leg), param.name, text))
            : withPass(leg.move, withSource(passOf(leg), param.name, text));
        apply(changeLeg(project, leg, { move }, `${provider.kind === "back" ? "Hand back" : "Pass"} ${param.name}`));
      }}
    />
  );
}

function withSource(pass: Record<string, string> | undefined, name: string, source: string): Record<string, string> | undefined {
  const { [name]: _, ...rest } = pass ?? {};
  const next = source === "" ? rest : { ...rest, [name]: source };
  return Object.keys(next).length > 0 ? next : undefined;
}

/** Where a value is born, and every screen that it reaches, in words; the map shows the same. */
function FlowView({ project, slot }: { project: Project; slot: Slot }) {
  const { id } = useSession();
  const flow = followValue(project, slot);
  const born = [...new Set(flow.born.map((provider) => `${bornSays(project, provider)} (${providerName(project, provider)})`))];
  const screens = [...new Set(flow.slots.map((s) => s.screen))];
  return (
    <p data-flow className="m-0 border-l-2 border-accent pl-2 text-[12px]" role="status">
      Born of {born.length > 0 ? born.join("; ") : "nothing yet"}. It is known on {screens.map((id) => nameOf(project, id)).join(", ")}.{" "}
      <Link to={`/p/${id}`} className="font-semibold text-accent">
        See it on the map
      </Link>
    </p>
  );
}

function providerName(project: Project, provider: Provider): string {
  if (provider.kind === "entrance") return `${provider.entrance.name} (${provider.entrance.kind})`;
  const { leg } = provider;
  const element = elementIdOf(leg);
  return `${nameOf(project, leg.from)} · ${element === undefined ? triggerLabel(leg) : (elementOf(project, leg.from, element)?.label ?? element)}`;
}

const keyOf = (provider: Provider) =>
  provider.kind === "entrance" ? provider.entrance.id : provider.kind === "back" ? `${provider.leg.id} back` : provider.leg.id;
