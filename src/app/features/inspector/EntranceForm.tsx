import { useMemo } from "react";
import { entranceValues } from "../../../core/insight/sample.ts";
import { changeEntrance, changeLeg } from "../../../core/model/edits/change.ts";
import { parametersOf } from "../../../core/model/lookup.ts";
import type { Entrance } from "../../../core/model/schema.ts";
import { entranceScope } from "../../../core/model/scope.ts";
import { patternVariables } from "../../../core/model/template.ts";
import { legSays } from "../../parts/legSays.ts";
import { useDocument, useSheets } from "../../session/hooks.ts";
import { ExpressionField } from "../../ui/ExpressionField.tsx";
import { Check, Choice, TextField } from "../../ui/Field.tsx";

import { AddressTrial } from "./AddressTrial.tsx";
import { Head } from "./Head.tsx";
import { PassForm } from "./PassForm.tsx";

export function EntranceForm({ entrance }: { entrance: Entrance }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const open = useSheets((s) => s.open);
  const change = (part: Partial<Entrance>) => apply(changeEntrance(project, entrance.id, part));
  const scope = entranceScope(project, entrance);
  const values = useMemo(() => entranceValues(project, entrance.pattern, entrance.to), [project, entrance]);
  const places = [...project.screens, ...project.containers].map((p) => ({ value: p.id, label: p.name || p.id }));
  return (
    <div className="flex flex-col gap-2">
      <Head
        kind="way in"
        name={entrance.name}
        what={{ kind: "entrance", id: entrance.id }}
        onDelete={() => open({ is: "delete", asked: [{ kind: "entrance", id: entrance.id }] })}
      />
      <TextField label="Name" value={entrance.name} onCommit={(name) => change({ name })} />
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="It is a"
          value={entrance.kind}
          options={(["link", "notification", "shortcut"] as const).map((kind) => ({ value: kind, label: kind }))}
          onChange={(kind) => change({ kind })}
        />
        <Choice
          label="Leads to"
          value={entrance.to}
          options={project.screens.map((s) => ({ value: s.id, label: s.name || s.id }))}
          onChange={(to) => change({ to })}
        />
      </div>
      <TextField
        label="Address"
        mono
        value={entrance.pattern ?? ""}
        placeholder="/hives/{hiveId}"
        onCommit={(pattern) => change({ pattern: pattern === "" ? undefined : pattern })}
      />
      {entrance.pattern !== undefined && <AddressTrial project={project} entrance={entrance} />}
      <PassForm
        scope={scope}
        values={values}
        proposed={boundBy(entrance.pattern)}
        bound={boundBy(entrance.pattern)}
        params={parametersOf(project, entrance.to)}
        pass={entrance.pass}
        onChange={(pass) => change({ pass })}
      />
      <ExpressionField
        label="Only if"
        condition
        value={entrance.when ?? ""}
        placeholder="always"
        scope={scope}
        values={values}
        onCommit={(text) => change({ when: text === "" ? undefined : text })}
      />
      {entrance.when !== undefined && (
        <>
          <Choice
            label="Otherwise to"
            value={entrance.otherwise ?? ""}
            options={[{ value: "", label: "as if launched" }, ...places]}
            onChange={(to) => change({ otherwise: to === "" ? undefined : to })}
          />
          <Check label="then wait, and go on once it may" value={entrance.resume === true} onChange={(v) => change({ resume: v || undefined })} />
          {entrance.resume && <Resumers />}
        </>
      )}
      <Choice
        label="While the app is running"
        value={entrance.warm}
        options={[
          { value: "rebuild", label: "the screen gets its own way beneath it" },
          { value: "onTop", label: "the screen goes on top of what is there" },
        ]}
        onChange={(warm) => change({ warm })}
      />
    </div>
  );
}

/** The legs that go on with what waited, to be looked at and chosen: those that set a fact are the ones after which it may. */
function Resumers() {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const setting = project.legs.filter((leg) => leg.set !== undefined || leg.resumes);
  if (setting.length === 0)
    return (
      <p className="m-0 text-[12px] text-ink-2">
        No leg sets a fact yet, so nothing could let it go on. Give the one that does (signing in, joining) a fact to set.
      </p>
    );
  return (
    <fieldset className="m-0 border-0 p-0">
      <legend className="p-0 text-[11.5px] text-ink-2">It goes on with</legend>
      {setting.map((leg) => (
        <Check
          key={leg.id}
          label={legSays(project, leg)}
          value={leg.resumes === true}
          onChange={(v) => apply(changeLeg(project, leg, { resumes: v || undefined }, v ? "Go on with what waited" : "No longer go on"))}
        />
      ))}
    </fieldset>
  );
}

/** What an address hands on by itself: each of its variables under its own name. */
function boundBy(pattern: string | undefined): Record<string, string> {
  return Object.fromEntries(patternVariables(pattern ?? "").map((name) => [name, `link.${name}`]));
}
