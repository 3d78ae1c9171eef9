import { changeContainer } from "../../../core/model/edits/change.ts";
import { nameOf } from "../../../core/model/lookup.ts";
import type { Container, Motion, Way } from "../../../core/model/schema.ts";
import { useDocument, useSheets } from "../../session/hooks.ts";
import { Check, Choice, TextField } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { IconField } from "../../ui/IconField.tsx";

import { BarForm } from "./BarForm.tsx";
import { ByItself } from "./ByItself.tsx";
import { AddElement, ElementList } from "./ElementList.tsx";
import { Head } from "./Head.tsx";
import { CommandButtons } from "./ManyForm.tsx";
import { MotionForm, motionSays, trimmedMotion } from "./MotionForm.tsx";
import { PutInto } from "./PutInto.tsx";

const choices = <const T extends string>(...list: ReadonlyArray<readonly [T, string]>) => list.map(([value, label]) => ({ value, label }));

export function ContainerForm({ container }: { container: Container }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const open = useSheets((s) => s.open);
  const change = (part: Partial<Container>) => apply(changeContainer(project, container.id, part));
  return (
    <div className="flex flex-col gap-2">
      <Head
        kind={container.kind}
        name={container.name || container.id}
        what={{ kind: "place", id: container.id }}
        onDelete={() => open({ is: "delete", asked: [{ kind: "place", id: container.id }] })}
      />
      <TextField label="Name" value={container.name} onCommit={(name) => change({ name })} />
      <Choice
        label="Shows first"
        value={container.start}
        options={[...new Set([container.start, ...container.members])].map((id) => ({ value: id, label: nameOf(project, id) }))}
        onChange={(start) => change({ start })}
      />
      <PutInto place={container.id} />
      <p className="m-0 text-[12px] text-ink-2">{behaviourOf(container)}</p>
      <Kind container={container} change={change} />
      <Fold
        name="On every screen in here"
        says={(container.elements ?? []).map((e) => e.label).join(", ") || "nothing yet"}
        open={(container.elements ?? []).length > 0}
      >
        <ElementList place={container.id} elements={container.elements ?? []} />
        <AddElement place={container.id} />
        <ByItself place={container.id} />
      </Fold>
      <Fold name="Bar, icon" says={container.icon}>
        <BarForm bar={container.bar} onChange={(bar) => change({ bar })} />
        <IconField value={container.icon} onChange={(icon) => change({ icon })} />
      </Fold>
      <Fold name="Motion" says={motionSays(container.motion ?? usualWithin(container))}>
        <MotionForm motion={container.motion} usual={usualWithin(container)} onChange={(motion) => change({ motion: trimmedMotion(motion) })} />
      </Fold>
      <Fold name="Special" says={container.once ? "once" : undefined}>
        <Check label="gone through once: Back never meets it again" value={container.once === true} onChange={(v) => change({ once: v || undefined })} />
      </Fold>
      <CommandButtons ids={["unwrap", "duplicate"]} />
    </div>
  );
}

function usualWithin(container: Container): Motion {
  return container.kind === "modal" ? { kind: "rise" } : container.kind === "stack" ? { kind: "slide", from: "end" } : { kind: "fade" };
}

/** What Back does in a container, and what becomes of what is left, in a sentence or two. */
function behaviourOf(container: Container): string {
  switch (container.kind) {
    case "stack":
      return "What is pushed lies on top of what was there, and Back pops it. On its first screen, Back goes on outwards.";
    case "tabs":
    case "drawer": {
      const one = container.kind === "tabs" ? "tab" : "member";
      const back =
        container.onBack === "leave"
          ? `On the first screen of a ${one}, Back goes on outwards.`
          : container.onBack === "start"
            ? `On the first screen of a ${one}, Back goes to the first ${one}, and from there outwards.`
            : `On the first screen of a ${one}, Back goes to the ${one} that was shown before.`;
      return `${back} ${container.keeps ? `Each ${one} is found as it was left.` : `A ${one} that is left starts over.`}`;
    }
    case "modal": {
      const back = container.closeOn.includes("back") ? "On its first screen, Back closes it." : "Back does not close it.";
      return `${back} ${container.blocks ? "Nothing beneath can be used while it is up." : "What is beneath can be used while it is up."}`;
    }
  }
}

/** The settings of each kind, in terms of what happens and not of field names. */
function Kind({ container, change }: { container: Container; change: (part: Partial<Container>) => void }) {
  switch (container.kind) {
    case "stack":
      return null;
    case "tabs":
      return (
        <>
          <div className="grid grid-cols-2 gap-2">
            <Choice
              label="The tabs stand at the"
              value={container.edge}
              options={choices(["bottom", "bottom"], ["top", "top"], ["side", "side"])}
              onChange={(edge) => change({ edge })}
            />
            <Choice
              label="And where it is wide, at the"
              value={container.edgeWide ?? "same"}
              options={choices(["same", "same edge"], ["bottom", "bottom"], ["top", "top"], ["side", "side"])}
              onChange={(edge) => change({ edgeWide: edge === "same" ? undefined : edge })}
            />
            <Choice
              label="Back from a tab"
              value={container.onBack}
              options={choices(["leave", "goes on outwards"], ["start", "goes to the first tab"], ["previous", "goes to the tab before"])}
              onChange={(onBack) => change({ onBack })}
            />
            <Choice
              label="The same tab again"
              value={container.chosenAgain}
              options={choices(["root", "goes to its first screen"], ["nothing", "does nothing"])}
              onChange={(chosenAgain) => change({ chosenAgain })}
            />
          </div>
          <Check label="each tab stays as it was left" value={container.keeps} onChange={(keeps) => change({ keeps })} />
          <Check label="a swipe goes to the neighboring tab" value={container.swipes === true} onChange={(v) => change({ swipes: v || undefined })} />
        </>
      );
    case "drawer":
      return (
        <>
          <div className="grid grid-cols-2 gap-2">
            <Choice
              label="Slides in from the"
              value={container.side}
              options={choices(["left", "left"], ["right", "right"])}
              onChange={(side) => change({ side })}
            />
            <Choice
              label="Always there when"
              value={container.pinnedFrom}
              options={choices(["never", "never"], ["middle", "middle or wide"], ["wide", "wide"])}
              onChange={(pinnedFrom) => change({ pinnedFrom })}
            />
            {container.pinnedFrom !== "never" && (
              <Choice
                label="Then it stands at the"
                value={container.pinnedAs ?? "side"}
                options={choices(["side", "side"], ["top", "top"])}
                onChange={(pinnedAs) => change({ pinnedAs: pinnedAs === "side" ? undefined : pinnedAs })}
              />
            )}
            <Choice
              label="Back from a member"
              value={container.onBack}
              options={choices(["leave", "goes on outwards"], ["start", "goes to the first"])}
              onChange={(onBack) => change({ onBack })}
            />
          </div>
          <Check label="lies over the page" value={container.over} onChange={(over) => change({ over })} />
          <Check label="each member stays as it was left" value={container.keeps} onChange={(keeps) => change({ keeps })} />
          <Ways value={container.closeOn} onChange={(closeOn) => change({ closeOn })} />
        </>
      );
    case "modal":
      return (
        <>
          <div className="grid grid-cols-2 gap-2">
            <Choice
              label="Comes up as a"
              value={container.shape}
              options={choices(["sheet", "sheet"], ["full", "full page"], ["dialog", "dialog"], ["panel", "panel"])}
              onChange={(shape) => change({ shape })}
            />
            <Choice
              label="From the"
              value={container.edge}
              options={choices(["bottom", "bottom"], ["top", "top"], ["left", "left"], ["right", "right"], ["center", "center"])}
              onChange={(edge) => change({ edge })}
            />
            <Choice
              label="Along its edge, at the"
              value={container.align ?? "center"}
              options={choices(["start", "start"], ["center", "center"], ["end", "end"])}
              onChange={(align) => change({ align: align === "center" ? undefined : align })}
            />
            <Choice
              label="Takes"
              value={container.extent ?? "most"}
              options={choices(["fit", "what it needs"], ["half", "half"], ["most", "most of the page"])}
              onChange={(extent) => change({ extent })}
            />
          </div>
          <Check label="nothing beneath can be used" value={container.blocks} onChange={(blocks) => change({ blocks })} />
          <Check label="what is beneath is dimmed" value={container.dims} onChange={(dims) => change({ dims })} />
          <Ways value={container.closeOn} onChange={(closeOn) => change({ closeOn })} />
        </>
      );
  }
}

const WAYS: ReadonlyArray<{ way: Way; label: string }> = [
  { way: "outside", label: "a tap outside" },
  { way: "swipe", label: "a swipe" },
  { way: "button", label: "its × button" },
  { way: "back", label: "Back" },
];

function Ways({ value, onChange }: { value: Way[]; onChange: (value: Way[]) => void }) {
  return (
    <fieldset className="m-0 grid grid-cols-2 border-0 p-0">
      <legend className="p-0 text-[11.5px] text-ink-2">Closes by</legend>
      {WAYS.map(({ way, label }) => (
        <Check
          key={way}
          label={label}
          value={value.includes(way)}
          onChange={(on) => onChange(WAYS.flatMap((w) => ((w.way === way ? on : value.includes(w.way)) ? [w.way] : [])))}
        />
      ))}
    </fieldset>
  );
}
