import { addElement, freshElementId } from "../../core/model/edits/add.ts";
import { elementIdOf, lookup } from "../../core/model/lookup.ts";
import type { Element } from "../../core/model/schema.ts";
import { Button } from "../parts/Button.tsx";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";

export const ELEMENT_KINDS = ["button", "icon", "link", "list", "field", "switch", "text", "image", "pager"] as const;

/** The elements of a place, each with what it leads to. */
export function ElementList({ place, elements }: { place: string; elements: readonly Element[] }) {
  const project = useDocument((d) => d.project);
  const { select, link } = useSelection();
  const legs = lookup(project).legsFrom.get(place) ?? [];
  return (
    <ul className="m-0 list-none p-0">
      {elements.map((element) => {
        const count = legs.filter((leg) => elementIdOf(leg) === element.id).length;
        return (
          <li key={element.id} className="flex items-center gap-2 text-[12.5px]">
            <button
              type="button"
              className="min-h-6 min-w-0 flex-1 truncate text-left hover:underline"
              onClick={() => select({ kind: "element", place, id: element.id })}
            >
              {element.label || element.id} <span className="text-[11px] text-ink-2">{element.kind}</span>
            </button>
            <button type="button" className="min-h-6 px-1 text-[11.5px] text-accent" onClick={() => link({ place, element: element.id })}>
              {count === 0 ? "lead…" : `${count} ${count === 1 ? "leg" : "legs"}`}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/** Puts an element on a place and chooses it, so that L leads it somewhere next. */
export function AddElement({ place }: { place: string }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { select } = useSelection();
  return (
    <form
      className="flex gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        const label = String(data.get("label")).trim();
        const kind = ELEMENT_KINDS.find((k) => k === data.get("kind"));
        if (label === "" || !kind) return;
        const id = freshElementId(project, place, label);
        apply(addElement(place, { id, kind, label }));
        event.currentTarget.reset();
        select({ kind: "element", place, id });
        document.getElementById("places")?.focus();
      }}
    >
      <input
        id="new-element"
        name="label"
        aria-label="Label of a new element"
        placeholder="Add a button, a list…"
        className="h-7 min-w-0 flex-1 border border-hairline bg-paper px-1.5 text-[12.5px]"
        onKeyDown={(event) => event.key === "Escape" && document.getElementById("places")?.focus()}
      />
      <select name="kind" aria-label="Kind of the new element" className="h-7 border border-hairline bg-paper text-[12px]">
        {ELEMENT_KINDS.map((kind) => (
          <option key={kind}>{kind}</option>
        ))}
      </select>
      <Button type="submit">Add</Button>
    </form>
  );
}
