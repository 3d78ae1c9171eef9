import { useEffect, useId, useRef, useState } from "react";
import { evaluate } from "../../core/insight/evaluate.ts";
import { completions, spoken } from "../../core/model/complete.ts";
import { compile, plainNames, type Scope, type ValueType } from "../../core/model/expression.ts";
import type { Json, Row } from "../../core/model/schema.ts";
import { compileCondition } from "../../core/model/scope.ts";
import { fromPlainWords } from "../../core/model/spokenExpression.ts";
import type { Values } from "../../core/plan/expression.ts";

interface Props {
  label: string;
  /** The name of the field where no label is shown. */
  accessibleLabel?: string;
  value: string;
  onCommit: (value: string) => void;
  scope: Scope;
  /** Values of the samples, for what the expression gives on them. */
  values?: Values;
  /** Whether it has to be true or false. */
  condition?: boolean;
  /** The type that is wanted, if one is. */
  wants?: ValueType;
  placeholder?: string;
  /** The fact that the value is for: what it can be needs no quotes. */
  fact?: string;
  /** A problem that is not the expression's own. */
  problem?: string | undefined;
  onFocus?: () => void;
}

/** A value as it reads: a row by its name, else by the first thing that it says. */
function sampleText(value: Json): string {
  if (typeof value !== "object" || value === null || Array.isArray(value)) return JSON.stringify(value);
  const row = value as Row;
  return String(row.name ?? Object.values(row)[0] ?? "an empty row");
}

/** An expression that is typed and completed as it is written; its type and its value on the samples stand below. */
export function ExpressionField({ label, accessibleLabel, value, onCommit, scope, values, condition, wants, fact, placeholder, problem, onFocus }: Props) {
  const [draft, setDraft] = useState(value);
  const [caret, setCaret] = useState<number>();
  const [at, setAt] = useState(-1);
  const input = useRef<HTMLInputElement>(null);
  const list = useId();
  useEffect(() => setDraft(value), [value]);
  const offered = caret === undefined ? [] : completions(draft, caret, scope);
  const compiling = (source: string) => (condition ? compileCondition(source, scope) : compile(source, scope));
  const asTyped = draft.trim() === "" ? undefined : compiling(draft);
  // Plain words are taken for what they say, where that is clear: member and order = none.
  const plain = asTyped === undefined || asTyped.ok ? undefined : fromPlainWords(draft.trim(), plainNames(scope), fact);
  const read = plain === undefined ? undefined : compiling(plain);
  const compiled = read?.ok ? read : asTyped;
  const written = read?.ok && plain !== undefined ? plain : draft.trim();
  const misfit =
    compiled?.ok && wants !== undefined && !(compiled.type === wants || (compiled.type === "integer" && wants === "number"))
      ? `this is ${spoken(compiled.type)}; ${spoken(wants)} is wanted`
      : undefined;
  const error = compiled && !compiled.ok ? compiled.error : undefined;
  const wrong = error ? error.message : (misfit ?? problem);
  const result = compiled && values ? evaluate(compiled, values) : undefined;
  const commit = () => {
    setCaret(undefined);
    if (draft === value) return;
    setDraft(written);
    onCommit(written);
  };
  const take = (i: number) => {
    const chosen = offered[i];
    if (!chosen || caret === undefined) return;
    const next = draft.slice(0, chosen.from) + chosen.insert + draft.slice(caret);
    const end = chosen.from + chosen.insert.length;
    setDraft(next);
    setAt(-1);
    setCaret(end);
    requestAnimationFrame(() => input.current?.setSelectionRange(end, end));
  };
  const keys = (event: React.KeyboardEvent) => {
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      if (offered.length === 0) return;
      event.preventDefault();
      setAt((at + (event.key === "ArrowDown" ? 1 : offered.length + (at < 0 ? 0 : -1))) % offered.length);
    } else if (event.key === "Tab" && offered.length > 0 && draft !== value) {
      event.preventDefault();
      take(Math.max(at, 0));
    } else if (event.key === "Enter") {
      if (at >= 0) {
        event.preventDefault();
        take(at);
      } else commit();
    } else if (event.key === "Escape") {
      setDraft(value);
      setCaret(undefined);
    }
  };
  const open = offered.length > 0;
  return (
    <div className="relative">
      <label className="block text-[11.5px] text-ink-2">
        {label}
        <input
          ref={input}
          role="combobox"
          aria-label={accessibleLabel}
          aria-expanded={open}
          aria-controls={list}
          aria-autocomplete="list"
          aria-activedescendant={open && at >= 0 ? `${list}-${at}` : undefined}
          aria-invalid={wrong !== undefined}
          value={draft}
          maxLength={2000}
          data-clean={draft === value}
          placeholder={placeholder}
          onFocus={onFocus}
          onChange={(event) => {
            setDraft(event.target.value);
            setAt(-1);
            setCaret(event.target.selectionStart ?? event.target.value.length);
          }}
          onBlur={commit}
          onKeyDown={keys}
          className={`mt-0.5 block h-7 w-full border bg-paper px-1.5 font-mono text-[11.5px] text-ink ${wrong ? "border-urgent" : "border-hairline"}`}
        />
      </label>
      {open && (
        <div
          id={list}
          role="listbox"
          tabIndex={-1}
          aria-label="What can stand here"
          className="absolute inset-x-0 z-40 max-h-40 overflow-y-auto border border-ink bg-sheet font-mono text-[11.5px] shadow-[0_6px_16px_var(--lift)]"
        >
          {offered.map((one, i) => (
            <div
              key={one.insert}
              id={`${list}-${i}`}
              role="option"
              tabIndex={-1}
              aria-selected={i === at}
              // Before the field loses the focus, so that what is written is not taken as it is.
              onMouseDown={(event) => {
                event.preventDefault();
                take(i);
              }}
              className={`flex min-h-6 items-center justify-between gap-3 px-1.5 ${i === at ? "bg-accent-soft" : ""}`}
            >
              <span>{one.insert}</span>
              <span className="text-ink-2">{one.says}</span>
            </div>
          ))}
        </div>
      )}
      {wrong !== undefined ? (
        <span className="block text-[11.5px] text-urgent">
          {error && error.end > error.start && (
            <code className="mr-1 font-mono underline decoration-wavy underline-offset-2">{draft.slice(error.start, error.end)}</code>
          )}
          {wrong}
          {error && <span className="text-ink-2"> (at {error.start + 1})</span>}
        </span>
      ) : (
        compiled?.ok && (
          <span className="block truncate text-[11px] text-ink-2">
            {read?.ok && (
              <>
                reads <code className="font-mono text-ink">{written}</code>,{" "}
              </>
            )}
            {spoken(compiled.type)}
            {result === undefined ? "" : `, on the samples ${sampleText(result)}`}
          </span>
        )
      )}
    </div>
  );
}
