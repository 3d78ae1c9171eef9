import { changeEntrance } from "../../core/model/edits/change.ts";
import type { Entrance } from "../../core/model/schema.ts";
import { compileCondition, entranceScope } from "../../core/model/scope.ts";
import { Check, Choice, TextField } from "../parts/Field.tsx";
import { useDeletion } from "../shell/deletion.ts";
import { useDocument } from "../store/document.ts";
import { Head } from "./Head.tsx";
import { PassForm } from "./PassForm.tsx";

export function EntranceForm({ entrance }: { entrance: Entrance }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const ask = useDeletion((d) => d.ask);
  const change = (part: Partial<Entrance>) => apply(changeEntrance(project, entrance.id, part));
  const when = entrance.when === undefined ? undefined : compileCondition(entrance.when, entranceScope(project, entrance));
  const places = [...project.screens, ...project.containers].map((p) => ({ value: p.id, label: p.name || p.id }));
  return (
    <div className="flex flex-col gap-2">
      <Head kind="way in" name={entrance.name} what={{ kind: "entrance", id: entrance.id }} onDelete={() => ask({ kind: "entrance", id: entrance.id })} />
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
      <PassForm scope={entranceScope(project, entrance)} target={entrance.to} pass={entrance.pass} onChange={(pass) => change({ pass })} />
      <TextField
        label="Only if"
        mono
        value={entrance.when ?? ""}
        placeholder="always"
        problem={when && !when.ok ? when.error.message : undefined}
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
