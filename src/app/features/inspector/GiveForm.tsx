import { useState } from "react";
import { takersOf } from "../../../core/insight/takers.ts";
import { changeLeg } from "../../../core/model/edits/change.ts";
import { handBack } from "../../../core/model/edits/give.ts";
import type { Scope } from "../../../core/model/expression.ts";
import { elementIdOf, nameOf } from "../../../core/model/lookup.ts";
import { type GivingMove, withGive } from "../../../core/model/moves.ts";
import { sourceFor } from "../../../core/model/propose.ts";
import { type Leg, NAME_PATTERN, type Param, type Project } from "../../../core/model/schema.ts";
import type { Values } from "../../../core/plan/expression.ts";
import { useDocument } from "../../session/hooks.ts";
import { PassForm } from "./PassForm.tsx";

interface Props {
  project: Project;
  leg: Leg;
  move: GivingMove;
  scope: Scope;
  values: Values;
}

/** What a leg hands back to the screen that shows once it went back: a picked row, a name that was typed. */
export function GiveForm({ project, leg, move, scope, values }: Props) {
  const apply = useDocument((d) => d.apply);
  const takers = takersOf(project, leg);
  const params = new Map<string, Param>();
  for (const taker of takers) for (const param of taker.params) if (!params.has(param.name)) params.set(param.name, { ...param, required: false });
  // What nobody there takes is shown all the same, so that it can be changed or taken away.
  for (const name of Object.keys(move.give ?? {})) if (!params.has(name)) params.set(name, { name, type: "text", required: false });
  const names = takers.map(({ id }) => `“${nameOf(project, id)}”`).join(", ");
  const proposed = Object.fromEntries(
    [...params.values()].flatMap((param) => {
      const source = sourceFor(project, leg.from, elementIdOf(leg), param);
      return source === undefined ? [] : [[param.name, source]];
    }),
  );
  return (
    <div>
      <PassForm
        heading="Hands back"
        scope={scope}
        values={values}
        params={[...params.values()]}
        pass={move.give}
        proposed={proposed}
        onChange={(give) => apply(changeLeg(project, leg, { move: withGive(move, give) }, "Hand back"))}
      />
      <Another
        heading={params.size === 0}
        says={names === "" ? "the screen that shows then" : names}
        taken={(name) => params.has(name)}
        onName={(name) =>
          apply(
            handBack(
              project,
              leg.id,
              takers.map(({ id }) => id),
              name,
            ),
          )
        }
      />
    </div>
  );
}

/** A value that the screen does not take yet: it declares it, and the leg hands it back. */
function Another({ heading, says, taken, onName }: { heading: boolean; says: string; taken: (name: string) => boolean; onName: (name: string) => void }) {
  const [name, setName] = useState("");
  const fits = NAME_PATTERN.test(name) && !taken(name);
  return (
    <>
      {heading && <h4 className="caption m-0 mb-1">Hands back</h4>}
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!fits) return;
          onName(name);
          setName("");
        }}
      >
        <input
          aria-label="Hand something back"
          value={name}
          onChange={(event) => setName(event.target.value.trim())}
          placeholder="name of a result"
          className="h-6 min-w-0 flex-1 border border-hairline bg-paper px-1 font-mono text-[11.5px]"
        />
        <button type="submit" disabled={!fits} className="min-h-6 text-[11.5px] font-semibold text-accent hover:underline disabled:text-ink-2">
          hand it back
        </button>
      </form>
      <p className="m-0 text-[11.5px] text-ink-2">
        {name !== "" && !fits
          ? taken(name)
            ? `There is a line for ${name} above.`
            : "A name is letters and digits, and begins with a letter."
          : `To ${says}, which keeps all else that it knows.`}
      </p>
    </>
  );
}
