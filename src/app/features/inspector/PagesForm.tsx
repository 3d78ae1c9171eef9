import { useState } from "react";
import { pagedType } from "../../../core/model/edits/paging.ts";
import { lookup, typeLabel } from "../../../core/model/lookup.ts";
import type { Screen } from "../../../core/model/schema.ts";
import { pageThrough } from "../../session/actions/paging.ts";
import { contextOf } from "../../session/context.ts";
import { useDocument, useSession } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { Choice } from "../../ui/Field.tsx";

/** The choice that stands for a record type that is yet to be made. */
const NEW = "new";

/** Paging: the screen shows one row of a type, and its neighbours are one step away as `next` and `prev`. */
export function PagesForm({ screen, onChange }: { screen: Screen; onChange: (pages: Screen["pages"]) => void }) {
  const project = useDocument((d) => d.project);
  const { pages } = screen;
  const type = pages && lookup(project).types.get(pages.over);
  if (!pages) return <Begin screen={screen} />;
  return (
    <div>
      <div className="grid grid-cols-3 gap-2">
        <Choice
          label="Pages through"
          value={pages.over}
          options={[{ value: "", label: "nothing" }, ...project.types.map((t) => ({ value: t.id, label: typeLabel(t) }))]}
          onChange={(over) => onChange(over === "" ? undefined : { over, by: pages.by })}
        />
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
      </div>
      <p className="m-0 text-[11.5px] text-ink-2">
        Legs from here can name <code className="font-mono">next.</code> and <code className="font-mono">prev.</code>; at the ends there is none, so ask{" "}
        <code className="font-mono">has(next.{type?.fields[0]?.name ?? "id"})</code> first.
      </p>
    </div>
  );
}

/** One gesture: Previous and Next with swipes, off at the ends. */
function Begin({ screen }: { screen: Screen }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const [over, setOver] = useState<string>();
  const usual = pagedType(project, screen.id) ?? NEW;
  return (
    <div className="flex items-end gap-2">
      <Choice
        label="Through the rows of"
        value={over ?? usual}
        options={[...project.types.map((t) => ({ value: t.id, label: typeLabel(t) })), { value: NEW, label: `a new record type “${screen.name}”` }]}
        onChange={setOver}
      />
      <Button
        onClick={() => {
          const type = over ?? usual;
          pageThrough(contextOf(session), screen.id, type === NEW ? undefined : type);
        }}
      >
        Add Previous and Next
      </Button>
    </div>
  );
}
