import { useMemo } from "react";
import { placeValues } from "../../../core/insight/sample.ts";
import { changeScreen } from "../../../core/model/edits/change.ts";
import { nameOf, upTarget } from "../../../core/model/lookup.ts";
import type { Param, Screen } from "../../../core/model/schema.ts";
import { placeScope } from "../../../core/model/scope.ts";
import { WalkHere } from "../../parts/WalkHere.tsx";
import { useDocument, useSheets } from "../../session/hooks.ts";
import { Check, Choice, TextField } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { IconField } from "../../ui/IconField.tsx";
import { TemplateField } from "../../ui/TemplateField.tsx";
import { BarForm } from "./BarForm.tsx";
import { ByItself } from "./ByItself.tsx";
import { AddElement, ElementList } from "./ElementList.tsx";
import { Head } from "./Head.tsx";
import { CommandButtons } from "./ManyForm.tsx";
import { PagesForm } from "./PagesForm.tsx";
import { ParamsForm } from "./ParamsForm.tsx";
import { PutInto } from "./PutInto.tsx";
import { Shared } from "./Shared.tsx";

/** What is special about a screen, in a few words. */
function specialOf({ hub, once, mayRepeat, coversTabs, planned }: Screen): string | undefined {
  const said = [hub && "hub", once && "once", mayRepeat && "may repeat", coversTabs && "covers the tabs", planned && "planned"].filter((one) => one);
  return said.length > 0 ? said.join(", ") : undefined;
}

export function ScreenForm({ screen }: { screen: Screen }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const open = useSheets((s) => s.open);
  const change = (part: Partial<Screen>) => apply(changeScreen(project, screen.id, part));
  const up = upTarget(project, screen.id);
  const values = useMemo(() => placeValues(project, screen.id), [project, screen.id]);
  return (
    <div className="flex flex-col gap-2">
      <Head
        kind={screen.planned ? "planned screen" : "screen"}
        name={screen.name || screen.id}
        what={{ kind: "place", id: screen.id }}
        onDelete={() => open({ is: "delete", asked: [{ kind: "place", id: screen.id }] })}
      />
      <TextField label="Name" value={screen.name} onCommit={(name) => change({ name })} />
      <PutInto place={screen.id} />
      <h4 className="caption m-0 mt-1">On it</h4>
      <ElementList place={screen.id} elements={screen.elements} />
      <Shared screen={screen} />
      <AddElement place={screen.id} />
      <ByItself place={screen.id} />
      <WalkHere key={screen.id} screen={screen} />
      <Fold name="Needs to know" says={screen.params.map((p) => p.name).join(", ") || "nothing"} open={screen.params.length > 0}>
        <ParamsForm screen={screen} onChange={(params: Param[]) => change({ params })} />
      </Fold>
      <Fold name="Bar and Up" says={up === undefined ? "Up leads nowhere" : `Up: ${nameOf(project, up)}`}>
        <TemplateField
          label="Title in the bar"
          value={screen.title ?? ""}
          placeholder={screen.name}
          scope={placeScope(project, screen.id)}
          values={values}
          onCommit={(title) => change({ title: title === "" ? undefined : title })}
        />
        <Choice
          label="Up leads to"
          value={screen.up}
          options={[
            { value: "auto", label: `as usual${screen.up === "auto" ? ` (${up === undefined ? "nowhere" : nameOf(project, up)})` : ""}` },
            { value: "none", label: "nowhere" },
            ...project.screens.filter((s) => s.id !== screen.id).map((s) => ({ value: s.id, label: s.name || s.id })),
          ]}
          onChange={(value) => change({ up: value })}
        />
        <BarForm bar={screen.bar} onChange={(bar) => change({ bar })} />
        <IconField value={screen.icon} onChange={(icon) => change({ icon })} />
      </Fold>
      <Fold name="Paging" says={screen.pages ? `through ${screen.pages.over}` : "no"} open={screen.pages !== undefined}>
        <PagesForm screen={screen} onChange={(pages) => change({ pages })} />
      </Fold>
      <Fold name="Address, name in code" says={[screen.path, screen.code].filter(Boolean).join(", ") || undefined}>
        <TextField
          label="Address"
          mono
          value={screen.path ?? ""}
          placeholder="/hives/{hiveId}"
          onCommit={(path) => change({ path: path === "" ? undefined : path })}
        />
        <TextField
          label="Name in code"
          mono
          value={screen.code ?? ""}
          placeholder={screen.id}
          onCommit={(code) => change({ code: code === "" ? undefined : code })}
        />
      </Fold>
      <Fold name="Special" says={specialOf(screen)}>
        <Check label="a hub: people can always get back to it" value={screen.hub === true} onChange={(v) => change({ hub: v || undefined })} />
        <Check label="gone through once: Back never meets it again" value={screen.once === true} onChange={(v) => change({ once: v || undefined })} />
        <Check label="may lie on a copy of itself" value={screen.mayRepeat === true} onChange={(v) => change({ mayRepeat: v || undefined })} />
        <Check label="covers the tabs" value={screen.coversTabs === true} onChange={(v) => change({ coversTabs: v || undefined })} />
        <Check label="only planned" value={screen.planned === true} onChange={(v) => change({ planned: v || undefined })} />
      </Fold>
      <CommandButtons ids={["duplicate"]} />
    </div>
  );
}
