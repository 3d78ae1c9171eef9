import { compile, fits, type Scope, valueType } from "../../core/model/expression.ts";
import { firstScreen } from "../../core/model/lookup.ts";
import { TextField } from "../parts/Field.tsx";
import { useDocument } from "../store/document.ts";

interface Props {
  scope: Scope;
  target: string;
  pass: Record<string, string> | undefined;
  onChange: (pass: Record<string, string> | undefined) => void;
}

/** What is handed to the screen that a place shows first: one line for each of its parameters. */
export function PassForm({ scope, target, pass, onChange }: Props) {
  const project = useDocument((d) => d.project);
  const params = firstScreen(project, target)?.params ?? [];
  if (params.length === 0) return null;
  return (
    <div>
      <h4 className="caption m-0 mb-1">Carrying</h4>
      {params.map((param) => {
        const source = pass?.[param.name];
        const compiled = source === undefined ? undefined : compile(source, scope);
        const missing = source === undefined && param.required && param.default === undefined;
        const problem = missing
          ? "needed, and not handed on"
          : compiled && !compiled.ok
            ? compiled.error.message
            : compiled?.ok && !fits(compiled.type, valueType(param.type))
              ? `this is ${compiled.type}; ${param.type} is wanted`
              : undefined;
        return (
          <TextField
            key={param.name}
            mono
            label={`${param.name} =`}
            value={source ?? ""}
            problem={problem}
            placeholder={param.default === undefined ? param.type : `else ${JSON.stringify(param.default)}`}
            onCommit={(text) => {
              const { [param.name]: _, ...rest } = pass ?? {};
              const next = text === "" ? rest : { ...rest, [param.name]: text };
              onChange(Object.keys(next).length > 0 ? next : undefined);
            }}
          />
        );
      })}
    </div>
  );
}
