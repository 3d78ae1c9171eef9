import { evaluate } from "../../core/insight/evaluate.ts";
import { compile, type Scope } from "../../core/model/expression.ts";
import { templateParts } from "../../core/model/template.ts";
import type { Values } from "../../core/plan/expression.ts";
import { TextField } from "./Field.tsx";

interface Props {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  scope: Scope;
  values: Values;
  placeholder?: string;
}

/** Text with expressions in braces: what is wrong in them stands below, else what comes out on the samples. */
export function TemplateField({ label, value, onCommit, scope, values, placeholder }: Props) {
  const holes = templateParts(value).flatMap((part) => ("hole" in part ? [{ source: part.hole, compiled: compile(part.hole, scope) }] : []));
  const wrong = holes.flatMap(({ source, compiled }) => (compiled.ok ? [] : [`in {${source}}: ${compiled.error.message}`]))[0];
  return (
    <div>
      <TextField label={label} value={value} placeholder={placeholder ?? ""} onCommit={onCommit} {...(wrong === undefined ? {} : { problem: wrong })} />
      {holes.length > 0 && wrong === undefined && <span className="block truncate text-[11px] text-ink-2">on the samples: {filled(value, scope, values)}</span>}
    </div>
  );
}

function filled(template: string, scope: Scope, values: Values): string {
  return templateParts(template)
    .map((part) => {
      if ("text" in part) return part.text;
      const compiled = compile(part.hole, scope);
      const value = evaluate(compiled, values);
      return value === undefined ? "…" : String(value);
    })
    .join("");
}
