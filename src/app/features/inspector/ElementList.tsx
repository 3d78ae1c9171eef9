import { useState } from "react";
import { labelOf } from "../../../core/lines/elements.ts";
import { addElement, freshElementId } from "../../../core/model/edits/add.ts";
import { elementIdOf, elementOf, lookup } from "../../../core/model/lookup.ts";
import { ELEMENT_KINDS, type Element } from "../../../core/model/schema.ts";
import { useDocument, useSelection } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

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
            <button
              type="button"
              aria-label={
                count === 0
                  ? `Lead “${element.label || element.id}” somewhere`
                  : `Lead “${element.label || element.id}” elsewhere, ${count} ${count === 1 ? "leg" : "legs"} now`
              }
              className="min-h-6 px-1 text-[11.5px] text-accent"
              onClick={() => link({ place, element: element.id })}
            >
              {count === 0 ? "lead…" : `${count} ${count === 1 ? "leg" : "legs"}`}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/**
 * Puts one element after another on a place: the place stays chosen and the field keeps the focus. Enter in the empty field leads
 * the last one somewhere.
 */
export function AddElement({ place }: { place: string }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const link = useSelection((s) => s.link);
  const [last, setLast] = useState<string>();
  const [typed, setTyped] = useState("");
  const [chosen, setChosen] = useState<Element["kind"]>();
  // Until a kind is chosen, the last word says it: Recipes list, Settings icon.
  const read = labelOf(typed.trim());
  const added = last === undefined ? undefined : elementOf(project, place, last);
  return (
    <form
      className="flex flex-wrap gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim() === "" && added) link({ place, element: added.id });
        if (typed.trim() === "") return;
        const { kind, label } = chosen === undefined ? read : { kind: chosen, label: typed.trim() };
        const id = freshElementId(project, place, label);
        apply(addElement(place, { id, kind, label }));
        setLast(id);
        setTyped("");
        setChosen(undefined);
        document.getElementById("new-element")?.focus();
      }}
    >
      <input
        id="new-element"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        aria-label="Label of a new element"
        placeholder="Add a button, a list…"
        className="h-7 min-w-0 flex-1 border border-hairline bg-paper px-1.5 text-[12.5px]"
        onKeyDown={(event) => event.key === "Escape" && document.getElementById("places")?.focus()}
      />
      <select
        aria-label="Kind of the new element"
        value={chosen ?? read.kind}
        onChange={(event) => setChosen(ELEMENT_KINDS.find((kind) => kind === event.target.value))}
        className="h-7 border border-hairline bg-paper text-[12px]"
      >
        {ELEMENT_KINDS.map((kind) => (
          <option key={kind}>{kind}</option>
        ))}
      </select>
      <Button type="submit">Add</Button>
      {added && (
        <p role="status" className="m-0 w-full text-[11.5px] text-ink-2">
          “{added.label}” is on it. <b className="font-semibold text-ink">Enter</b> again leads it somewhere; or type the next.
        </p>
      )}
    </form>
  );
}
