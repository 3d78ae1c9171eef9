import { useMemo } from "react";
import { usualMotion } from "../../../core/insight/motion.ts";
import { sampleValues } from "../../../core/insight/sample.ts";
import { triggerLabel } from "../../../core/model/describe.ts";
import { changeLeg } from "../../../core/model/edits/change.ts";
import { elementIdOf, elementOf, nameOf, parametersOf, passOf, passTarget, targetOf } from "../../../core/model/lookup.ts";
import { takesGive, withPass } from "../../../core/model/moves.ts";
import { moveSentence, moveWord, withArguments } from "../../../core/model/propose.ts";
import type { Leg } from "../../../core/model/schema.ts";
import { legScope } from "../../../core/model/scope.ts";
import { Picture } from "../../parts/Picture.tsx";
import { WayPicker } from "../../parts/WayPicker.tsx";
import { useDocument, useSelection, useSheets } from "../../session/hooks.ts";
import { ExpressionField } from "../../ui/ExpressionField.tsx";
import { Check, TextField } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { Carries } from "./Carries.tsx";
import { GiveForm } from "./GiveForm.tsx";
import { Head } from "./Head.tsx";
import { CommandButtons } from "./ManyForm.tsx";
import { MotionForm, motionSays, trimmedMotion } from "./MotionForm.tsx";
import { hasMore, MoveForm, moreSaid } from "./MoveForm.tsx";
import { PassForm } from "./PassForm.tsx";
import { SetForm } from "./SetForm.tsx";
import { TriggerForm } from "./TriggerForm.tsx";

/** A leg as a strip: from, by what, if, goes how, carrying what, setting what; the picture of the stack before and after. */
export function LegStrip({ leg }: { leg: Leg }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { link } = useSelection();
  const open = useSheets((s) => s.open);
  const change = (part: Partial<Leg>) => apply(changeLeg(project, leg, part));
  const elementId = elementIdOf(leg);
  const label = elementId === undefined ? triggerLabel(leg) : (elementOf(project, leg.from, elementId)?.label ?? elementId);
  const to = targetOf(leg);
  const lead = () => link({ place: leg.from, element: elementId, leg: leg.id });
  const scope = legScope(project, leg);
  const values = useMemo(() => sampleValues(project, leg), [project, leg]);
  const proposed = useMemo(() => {
    const move = leg.move && withArguments(project, leg.from, elementIdOf(leg), leg.move);
    return move && "pass" in move ? move.pass : undefined;
  }, [project, leg]);
  const target = passTarget(project, leg);
  const usual = useMemo(() => usualMotion(project, leg), [project, leg]);
  return (
    <div className="flex flex-col gap-2">
      <Head
        kind={leg.planned ? "planned leg" : "leg"}
        name={label}
        what={{ kind: "leg", id: leg.id }}
        onDelete={() => open({ is: "delete", asked: [{ kind: "leg", id: leg.id }] })}
      />
      <p className="m-0 text-[12.5px]">
        {nameOf(project, leg.from)} · {label} <span className="text-ink-2">{moveWord(leg.move)}</span>{" "}
        {to !== undefined && (
          <button type="button" className="font-semibold text-accent hover:underline" title="Lead it elsewhere" onClick={lead}>
            {nameOf(project, to)}
          </button>
        )}
        <button type="button" className="ml-2 min-h-6 text-[11.5px] text-ink-2 hover:text-ink hover:underline" onClick={lead}>
          elsewhere…
        </button>
      </p>
      {leg.move && <p className="m-0 text-[12px] text-ink-2">{moveSentence(project, leg.from, leg.move)}</p>}
      {leg.move && <Picture project={project} from={leg.from} move={leg.move} />}
      <WayPicker leg={leg} />
      {leg.move && hasMore(leg.move) && (
        <Fold name={leg.move.kind === "leave" ? "Address" : "Where, and what is left behind"} says={moreSaid(leg.move)} open={moreSaid(leg.move) !== undefined}>
          <MoveForm project={project} leg={leg} move={leg.move} onChange={(move) => change({ move })} />
        </Fold>
      )}
      <ExpressionField
        label="Only if"
        condition
        value={leg.when ?? ""}
        placeholder="always"
        scope={scope}
        values={values}
        onCommit={(text) => change({ when: text === "" ? undefined : text })}
      />
      {leg.move && "to" in leg.move && leg.move.kind !== "select" && target !== undefined && (
        <PassForm
          scope={scope}
          values={values}
          proposed={proposed}
          params={parametersOf(project, target)}
          pass={passOf(leg)}
          onChange={(pass) => change({ move: leg.move && withPass(leg.move, pass) })}
        />
      )}
      {leg.move && takesGive(leg.move) && <GiveForm project={project} leg={leg} move={leg.move} scope={scope} values={values} />}
      <SetForm project={project} leg={leg} scope={scope} values={values} onChange={(set) => change({ set })} />
      <Check
        label="goes on with what waited (a way in that could not be followed before)"
        value={leg.resumes === true}
        onChange={(v) => change({ resumes: v || undefined })}
      />
      <Fold name="Taken by" says={label}>
        <TriggerForm project={project} leg={leg} onChange={(on) => change({ on })} onFrom={(from) => change({ from })} />
      </Fold>
      <Fold name="Motion" says={motionSays(leg.motion ?? usual)}>
        <MotionForm motion={leg.motion} usual={usual} onChange={(motion) => change({ motion: trimmedMotion(motion) })}>
          <Carries project={project} leg={leg} usual={usual} onChange={(motion) => change({ motion })} />
        </MotionForm>
      </Fold>
      <Fold name="Note, planned" says={leg.note ?? (leg.planned ? "only planned" : undefined)}>
        <TextField label="Note" value={leg.note ?? ""} onCommit={(note) => change({ note: note === "" ? undefined : note })} />
        <Check label="only planned" value={leg.planned === true} onChange={(v) => change({ planned: v || undefined })} />
      </Fold>
      <CommandButtons ids={["whatIf"]} />
    </div>
  );
}
