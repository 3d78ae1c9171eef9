import { useLiveQuery } from "dexie-react-hooks";
import { lazy, Suspense, useState } from "react";
import type { LensChoice } from "../../../core/map/lenses/lens.ts";
import { lookup, nameOf } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { useDocument, useLensing, useSelection, useSession } from "../../session/hooks.ts";
import { documentOf, versionsOf } from "../../session/storage/versions.ts";

const FollowedOptions = lazy(async () => ({ default: (await import("./FollowedOptions.tsx")).FollowedOptions }));

/** What can be asked of the lens that is on. */
export function LensOptions({ choice }: { choice: LensChoice }) {
  switch (choice.lens) {
    case "findings":
      return null;
    case "reach":
      return <ReachOptions choice={choice} />;
    case "walked":
      return <WalkedOptions choice={choice} />;
    case "changed":
      return <ChangedOptions choice={choice} />;
    case "data":
      return <DataOptions choice={choice} />;
    case "followed":
      return (
        <Suspense>
          <FollowedOptions />
        </Suspense>
      );
  }
}

interface SelectProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  children: React.ReactNode;
}

function Select({ label, value, onChange, children }: SelectProps) {
  return (
    <label className="block text-[11.5px] text-ink-2">
      {label}
      <select
        className="mt-0.5 block h-7 w-full border border-hairline bg-paper text-[12.5px] text-ink"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {children}
      </select>
    </label>
  );
}

/** A place that is named once among the options, whatever it is there for. */
function unique(ids: readonly (string | undefined)[]): string[] {
  return [...new Set(ids.filter((id) => id !== undefined))];
}

function ReachOptions({ choice }: { choice: Extract<LensChoice, { lens: "reach" }> }) {
  const project = useDocument((d) => d.project);
  const choose = useLensing((l) => l.choose);
  const selected = useSelection((s) => (s.selected?.kind === "place" ? s.selected.id : undefined));
  const tabs = unique([...project.containers.flatMap((one) => (one.kind === "tabs" || one.kind === "drawer" ? one.members : [])), selected, choice.from]);
  const hubs = unique([
    ...project.screens.flatMap(({ id, hub }) => (hub ? [id] : [])),
    lookup(project).screens.has(selected ?? "") ? selected : undefined,
    choice.to,
  ]);
  const value = choice.to !== undefined ? `to ${choice.to}` : choice.from !== undefined ? `from ${choice.from}` : "launch";
  return (
    <Select
      label="Taps"
      value={value}
      onChange={(next) => {
        const [way, id] = next.split(" ");
        choose({ lens: "reach", ...(way === "from" && id ? { from: id } : {}), ...(way === "to" && id ? { to: id } : {}) });
      }}
    >
      <option value="launch">from launch</option>
      {tabs.map((id) => (
        <option key={`from ${id}`} value={`from ${id}`}>
          from {nameOf(project, id)}
        </option>
      ))}
      {hubs.map((id) => (
        <option key={`to ${id}`} value={`to ${id}`}>
          back to {nameOf(project, id)}
        </option>
      ))}
    </Select>
  );
}

function WalkedOptions({ choice }: { choice: Extract<LensChoice, { lens: "walked" }> }) {
  const choose = useLensing((l) => l.choose);
  return (
    <label className="flex min-h-6 items-center gap-2">
      <input
        type="checkbox"
        className="h-4 w-4 accent-(--accent)"
        checked={choice.tests === true}
        onChange={(event) => choose({ lens: "walked", tests: event.target.checked })}
      />
      with the generated tests
    </label>
  );
}

function ChangedOptions({ choice }: { choice: Extract<LensChoice, { lens: "changed" }> }) {
  const session = useSession();
  const against = useLensing((l) => l.against);
  const versions = useLiveQuery(() => versionsOf(session.id), [session.id]);
  const [refused, setRefused] = useState<string>();
  const compare = async (id: string) => {
    const version = versions?.find((one) => one.id === id);
    if (version) against({ id, name: `“${version.name}”`, project: await documentOf(id) });
  };
  return (
    <>
      <Select label="Since" value={choice.against} onChange={(id) => void compare(id).catch((error: unknown) => setRefused(String(error)))}>
        <option value="">{versions?.length === 0 ? "no version is kept yet" : "choose a version…"}</option>
        {versions?.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Select>
      {refused !== undefined && (
        <p role="alert" className="m-0 text-urgent">
          {refused}
        </p>
      )}
      <button type="button" className="min-h-6 text-left font-semibold text-accent" onClick={() => session.go("versions")}>
        Keep a version, or compare with a file…
      </button>
    </>
  );
}

function DataOptions({ choice }: { choice: Extract<LensChoice, { lens: "data" }> }) {
  const project = useDocument((d) => d.project);
  const choose = useLensing((l) => l.choose);
  return (
    <Select
      label="Value"
      value={choice.screen === undefined ? "" : `${choice.screen} ${choice.param}`}
      onChange={(next) => {
        const [screen, param] = next.split(" ");
        choose({ lens: "data", ...(screen && param ? { screen, param } : {}) });
      }}
    >
      <option value="">all that screens need</option>
      {valuesOf(project).map(({ screen, param, name }) => (
        <option key={`${screen} ${param}`} value={`${screen} ${param}`}>
          {param} of {name}
        </option>
      ))}
    </Select>
  );
}

function valuesOf(project: Project) {
  return project.screens.flatMap(({ id, name, params }) => params.map((param) => ({ screen: id, param: param.name, name: name || id })));
}
