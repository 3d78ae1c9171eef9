import { useDeferredValue, useMemo, useRef, useState } from "react";
import type { LineProblem } from "../../../core/lines/ast.ts";
import { linesInto } from "../../../core/lines/into.ts";
import { useDocument, useSession } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { buildLines } from "./buildLines.ts";

/** Problems that are listed at once. */
const LISTED = 8;

/** Lines that were pasted and could not be built, to be fixed on the spot: each problem leads to where it is. */
export function LinesDialog({ pasted, beside, onClose }: { pasted: string; beside: string | undefined; onClose: () => void }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const [text, setText] = useState(pasted);
  const area = useRef<HTMLTextAreaElement>(null);
  const shown = useDeferredValue(text);
  const made = useMemo(() => linesInto(project, shown, beside), [project, shown, beside]);
  const problems = made.ok ? [] : made.problems;
  const goTo = ({ line, column }: LineProblem) => {
    const before = text
      .split("\n")
      .slice(0, line - 1)
      .join("\n");
    const start = line === 1 ? 0 : before.length + 1;
    const end = text.indexOf("\n", start);
    const from = Math.min(start + column - 1, text.length);
    // A field scrolls to its caret when it gets the focus.
    area.current?.setSelectionRange(from, from);
    area.current?.blur();
    area.current?.focus();
    area.current?.setSelectionRange(from, end < 0 ? text.length : end);
  };
  return (
    <Dialog title={problems.length === 0 ? "These lines can be built" : "These lines need a fix"} open onClose={onClose} wide written>
      <textarea
        ref={area}
        value={text}
        onChange={(event) => setText(event.target.value)}
        rows={14}
        spellCheck={false}
        aria-label="Lines"
        aria-invalid={problems.length > 0}
        className="w-full resize-y border border-hairline bg-band p-2 font-mono text-[12px] leading-5"
      />
      <div role="status" className="mt-2 mb-3 min-h-10 text-[12.5px]">
        {made.ok ? (
          <p className="m-0">
            <span className="font-semibold text-accent">Build makes</span> {made.makes.length === 0 ? "nothing new" : made.makes.join(", ")}
          </p>
        ) : (
          <ul className="m-0 list-none border-urgent border-l-2 p-0 pl-2">
            {problems.slice(0, LISTED).map((problem) => (
              <li key={`${problem.line} ${problem.column} ${problem.message}`}>
                <button type="button" onClick={() => goTo(problem)} className="min-h-6 text-left text-urgent hover:underline">
                  Line {problem.line}, column {problem.column}: {problem.message}
                </button>
              </li>
            ))}
            {problems.length > LISTED && <li className="text-ink-2">and {problems.length - LISTED} more</li>}
          </ul>
        )}
      </div>
      <div className="flex gap-2">
        <Button
          tone="main"
          disabled={!made.ok}
          onClick={() => {
            if (buildLines(session, text, beside)) onClose();
          }}
        >
          Build
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}
