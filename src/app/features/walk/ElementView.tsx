import { rowText, templateText } from "../../../core/insight/text.ts";
import { keyField, lookup } from "../../../core/model/lookup.ts";
import type { Element, Json, Project, Row } from "../../../core/model/schema.ts";
import type { Shown, State } from "../../../core/semantics/types.ts";
import { legsOf } from "./gestures.ts";
import type { Hands } from "./useHands.ts";

interface Props {
  project: Project;
  state: State;
  screen: Shown;
  branch: number;
  placeId: string;
  element: Element;
  enabled: boolean;
  hands: Hands;
}

/** One element on the device, in a plain sketch style. */
export function ElementView(props: Props) {
  const { project, state, screen, branch, placeId, element, enabled, hands } = props;
  const fields = hands.fields(branch);
  const on = { branch, place: placeId, element };
  const text = element.text === undefined ? element.label : templateText(project, state, screen, placeId, element.text, { fields });
  const tap = () => hands.use(on, "tap");
  const live = hands.live.has(`${placeId} ${element.id}`);
  const common = { "data-element": element.id, "data-of": placeId, "data-live": live, disabled: !enabled, onClick: tap, ...hands.holding(on) };
  switch (element.kind) {
    case "button":
      return (
        <button
          type="button"
          {...common}
          className="min-h-9 w-full shrink-0 border border-ink bg-sheet px-3 py-1 font-semibold text-[12.5px] text-ink enabled:active:bg-band disabled:border-hairline disabled:text-ink-2"
        >
          {text}
        </button>
      );
    case "icon":
      return (
        <button
          type="button"
          {...common}
          aria-label={element.label}
          title={element.label}
          className="flex min-h-7 min-w-7 items-center justify-center self-start rounded-full border border-ink/60 px-1.5 text-[11px]"
        >
          {element.label.slice(0, 1)}
        </button>
      );
    case "link":
      return (
        <button
          type="button"
          {...common}
          className="min-h-7 shrink-0 self-start px-1 text-left text-[12.5px] text-accent underline decoration-1 underline-offset-2 disabled:text-ink-2 disabled:no-underline"
        >
          {text}
        </button>
      );
    case "pager":
      return (
        <button
          type="button"
          {...common}
          className="min-h-7 shrink-0 self-stretch border-b border-hairline text-[12px] text-ink-2 enabled:text-ink disabled:opacity-50"
        >
          {text}
        </button>
      );
    case "list":
      return <ListView {...props} />;
    case "field":
      return (
        <label className="block shrink-0 text-[11px] text-ink-2">
          {element.label}
          <input
            data-element={element.id}
            data-of={placeId}
            disabled={!enabled}
            value={String(fields[element.id] ?? "")}
            onChange={(event) => hands.type(on, event.target.value)}
            onClick={tap}
            onKeyDown={(event) => {
              if (event.key === "Enter") hands.use(on, legsOf(project, placeId, element, "submit").length > 0 ? "submit" : "tap");
            }}
            className="mt-0.5 block h-8 w-full border border-ink-2 bg-paper px-2 text-[12.5px] text-ink"
          />
        </label>
      );
    case "switch":
      return (
        <label className="flex min-h-8 shrink-0 items-center justify-between text-[12.5px]">
          {text}
          <input
            type="checkbox"
            data-element={element.id}
            data-of={placeId}
            disabled={!enabled}
            checked={fields[element.id] === true}
            onChange={(event) => {
              hands.type(on, event.target.checked);
              tap();
            }}
            className="h-4 w-4 accent-(--accent)"
          />
        </label>
      );
    case "text":
      return hands.leads(placeId, element) ? (
        <button type="button" {...common} className="shrink-0 text-left text-[12.5px] text-ink underline decoration-dotted underline-offset-4">
          {text}
        </button>
      ) : (
        <p data-element={element.id} data-of={placeId} className="m-0 shrink-0 text-[12.5px]">
          {text}
        </p>
      );
    case "image":
      return hands.leads(placeId, element) ? (
        <button type="button" {...common} aria-label={element.label} className="shrink-0 border border-ink/60 bg-band p-0">
          <Image />
        </button>
      ) : (
        <div data-element={element.id} data-of={placeId} role="img" aria-label={element.label} className="shrink-0 bg-band">
          <Image />
        </div>
      );
  }
}

function Image() {
  return (
    <svg className="block h-24 w-full" preserveAspectRatio="none" viewBox="0 0 100 60" aria-hidden="true">
      <path d="M0 58 28 30 48 46 74 14 100 40" fill="none" stroke="var(--ink-2)" strokeWidth={1} vectorEffect="non-scaling-stroke" />
    </svg>
  );
}

function ListView({ project, state, screen, branch, placeId, element, enabled, hands }: Props) {
  const type = element.of === undefined ? undefined : lookup(project).types.get(element.of);
  const rows: Array<Row | undefined> = type && type.samples.length > 0 ? type.samples : [undefined];
  const key = type && keyField(type);
  return (
    <ul className="m-0 shrink-0 list-none border-t border-hairline p-0">
      {rows.map((row, i) => {
        const label = row ? rowText(project, state, screen, placeId, element, row) : element.label;
        const item: Json | undefined = row && key !== undefined ? row[key] : undefined;
        return (
          <li key={String(item ?? i)} className="border-b border-hairline">
            <button
              type="button"
              data-element={element.id}
              data-of={placeId}
              data-live={hands.live.has(`${placeId} ${element.id}`)}
              data-item={item === undefined ? undefined : String(item)}
              disabled={!enabled}
              onClick={() => hands.use({ branch, place: placeId, element, row }, "tap")}
              {...hands.holding({ branch, place: placeId, element, row })}
              className="flex min-h-9 w-full items-center justify-between gap-2 px-1 text-left text-[12.5px]"
            >
              <span className="truncate">{label}</span>
              <span aria-hidden="true" className="text-ink-2">
                ›
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
