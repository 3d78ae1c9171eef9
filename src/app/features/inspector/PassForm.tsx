import { type Scope, valueType } from "../../../core/model/expression.ts";
import { mustBePassed } from "../../../core/model/lookup.ts";
import type { Param } from "../../../core/model/schema.ts";
import type { Values } from "../../../core/plan/expression.ts";
import { ExpressionField } from "../../ui/ExpressionField.tsx";

interface Props {
  heading?: string;
  scope: Scope;
  values: Values;
  /** The parameters that can be passed. */
  params: readonly Param[];
  pass: Record<string, string> | undefined;
  /** What Etape would pass, for parameters that nothing is passed for. */
  proposed?: Record<string, string> | undefined;
  /** What is passed by itself as long as nothing is written here: the variables of an address. */
  bound?: Record<string, string> | undefined;
  onChange: (pass: Record<string, string> | undefined) => void;
}

/** What is handed to a screen: one line for each of its parameters. */
export function PassForm({ heading = "Passes", scope, values, params, pass, proposed, bound, onChange }: Props) {
  if (params.length === 0) return null;
  // Writing one value keeps what the others get by themselves.
  const kept = pass ?? Object.fromEntries(params.flatMap(({ name }) => (bound?.[name] === undefined ? [] : [[name, bound[name]]])));
  const put = (next: Record<string, string>) => onChange(Object.keys(next).length > 0 ? next : undefined);
  return (
    <div>
      <h4 className="caption m-0 mb-1">{heading}</h4>
      {params.map((param) => {
        const source = pass?.[param.name];
        const byItself = pass === undefined ? bound?.[param.name] : undefined;
        const missing = source === undefined && byItself === undefined && mustBePassed(param);
        const offer = source === undefined && byItself === undefined ? proposed?.[param.name] : undefined;
        return (
          <div key={param.name}>
            <ExpressionField
              label={`${param.name} =`}
              value={source ?? ""}
              scope={scope}
              values={values}
              wants={valueType(param.type)}
              problem={missing ? "required, and not passed" : undefined}
              placeholder={byItself !== undefined ? "from the address" : param.default === undefined ? param.type : `else ${JSON.stringify(param.default)}`}
              onCommit={(text) => {
                const { [param.name]: _, ...rest } = kept;
                put(text === "" ? rest : { ...rest, [param.name]: text });
              }}
            />
            {offer !== undefined && (
              <button
                type="button"
                className="min-h-6 text-[11.5px] font-semibold text-accent hover:underline"
                onClick={() => put({ ...kept, [param.name]: offer })}
              >
                {heading === "Passes" ? "pass" : "hand back"} {offer}
              </button>
            )}
          </div>
        );
      })}
    </div>
  );
}
