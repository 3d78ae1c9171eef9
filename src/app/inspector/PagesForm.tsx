import { lookup, typeLabel } from "../../core/model/lookup.ts";
import type { Screen } from "../../core/model/schema.ts";
import { Choice } from "../parts/Field.tsx";
import { useDocument } from "../store/document.ts";

/** Paging: the screen shows one row of a type, and its neighbours are one step away as `next` and `prev`. */
export function PagesForm({ screen, onChange }: { screen: Screen; onChange: (pages: Screen["pages"]) => void }) {
  const project = useDocument((d) => d.project);
  const { pages } = screen;
  if (project.types.length === 0 || screen.params.length === 0) return null;
  const type = pages && lookup(project).types.get(pages.over);
  return (
    <div>
      <div className="grid grid-cols-3 gap-2">
        <Choice
          label="Pages through"
          value={pages?.over ?? ""}
          options={[{ value: "", label: "nothing" }, ...project.types.map((t) => ({ value: t.id, label: typeLabel(t) }))]}
          onChange={(over) => onChange(over === "" ? undefined : { over, by: pages?.by ?? screen.params[0]?.name ?? "" })}
        />
        {pages && (
          <>
            <Choice
              label="the one named by"
              value={pages.by}
              options={screen.params.map((p) => ({ value: p.name, label: p.name }))}
              onChange={(by) => onChange({ ...pages, by })}
            />
            <Choice
              label="in the order of"
              value={pages.order ?? ""}
              options={[{ value: "", label: "the samples" }, ...(type?.fields ?? []).map((f) => ({ value: f.name, label: f.name }))]}
              onChange={(order) => onChange(order === "" ? { over: pages.over, by: pages.by } : { ...pages, order })}
            />
          </>
        )}
      </div>
      {pages && (
        <p className="m-0 text-[11.5px] text-ink-2">
          Legs from here can name <code className="font-mono">next.</code> and <code className="font-mono">prev.</code>; at the ends there is none, so ask{" "}
          <code className="font-mono">has(next.{type?.fields[0]?.name ?? "id"})</code> first.
        </p>
      )}
    </div>
  );
}
