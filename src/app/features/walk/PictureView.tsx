import { useRef } from "react";
import { elementOn } from "../../../core/insight/elements.ts";
import { rowText } from "../../../core/insight/text.ts";
import { drawerOf, isPinned, keyField, lookup, nameOf } from "../../../core/model/lookup.ts";
import { type Control, controlsOf } from "../../../core/model/pictures.ts";
import type { Area, Picture, Row } from "../../../core/model/schema.ts";
import { planOf } from "../../../core/plan/planOf.ts";
import { leadOf } from "../../../core/semantics/bar.ts";
import { branchNode, currentScreen, topBranch, visiblePath } from "../../../core/semantics/state.ts";
import { type Size, useSize } from "../../ui/useSize.ts";
import { ElementView } from "./ElementView.tsx";
import { legsOf } from "./gestures.ts";
import type { On } from "./useHands.ts";
import type { Shows } from "./usePicture.ts";
import type { Within } from "./within.ts";

/** Milliseconds for which the areas show after a tap beside them. */
const FLASH = 900;

/** A screen as its picture: what can be used lies over it, and what the picture has no area for is listed beneath. */
export function PictureView({ within, shows }: { within: Within; shows: Shows }) {
  const { project, state, branch, hands } = within;
  const { picture, url } = shows;
  const screen = currentScreen(state, branch);
  const frame = useRef<HTMLDivElement>(null);
  const controls = controlsOf(project, screen.at);
  const [width, height] = picture.size;
  const [room, size] = useSize();
  const flash = (event: React.MouseEvent) => {
    if (event.target instanceof Element && event.target.closest("button, input, label")) return;
    hands.missed();
    const element = frame.current;
    element?.classList.add("areas-flash");
    setTimeout(() => element?.classList.remove("areas-flash"), FLASH);
  };
  const areas = picture.areas.flatMap((area, i) => {
    const control = controls.find((one) => one.control === area.control);
    return control ? [{ area, control, nth: picture.areas.slice(0, i).filter((other) => other.control === area.control).length }] : [];
  });
  const drawn = new Set(areas.map(({ control }) => control.control));
  return (
    <div ref={room as React.RefObject<HTMLDivElement | null>} className="min-h-0 flex-1 overflow-y-auto">
      <div
        ref={frame}
        className="relative mx-auto overflow-hidden"
        style={{ aspectRatio: `${width} / ${height}`, width: size ? widthIn(size, picture) : "100%" }}
        onClick={flash}
      >
        <img src={url} alt={nameOf(project, screen.at)} className="block h-full w-full select-none" draggable={false} />
        {areas.map(({ area, control, nth }) => (
          <AreaView key={`${area.control} ${nth}`} within={within} shows={shows} area={area} control={control} nth={nth} />
        ))}
      </div>
      <Others within={within} controls={controls.filter(({ control }) => !drawn.has(control))} picture={picture} />
    </div>
  );
}

/** How much longer than its room a picture may be and still be shown whole, a little smaller; longer ones fill the width, and scroll. */
const NEARLY = 1.3;

function widthIn(room: Size, { size: [width, height] }: Picture): number {
  const whole = (room.height * width) / height;
  const fits = whole >= room.width;
  const shownWhole = room.width / whole <= NEARLY || (width < height && room.width > room.height);
  return fits || !shownWhole ? room.width : whole;
}

interface AreaProps {
  within: Within;
  shows: Shows;
  area: Area;
  control: Control;
  /** How many areas of the same control come before it: the row of a list that it stands for. */
  nth: number;
}

/** One area: what it does is what its control does. */
function AreaView({ within, shows, area, control, nth }: AreaProps) {
  const { project, state, branch, hands } = within;
  const style = placed(area, shows.picture);
  const screen = currentScreen(state, branch);
  const onTop = branch === topBranch(state);
  if (control.kind !== "element") {
    const { label, event, live, current } = usedBy(within, control, onTop);
    return (
      <button
        type="button"
        data-area={control.control}
        data-live={live}
        aria-label={label}
        aria-current={current ? "page" : undefined}
        className="area"
        style={style}
        onClick={event}
      />
    );
  }
  const element = control.element;
  if (!element) return null;
  const { shown, enabled } = elementOn(project, state, screen, control.on, element, hands.fields(branch));
  if (!shown) return null;
  const on: On = { branch, place: control.on, element };
  const common = {
    "data-area": control.control,
    "data-element": element.id,
    "data-of": control.on,
    "data-live": hands.live.has(`${control.on} ${element.id}`),
    disabled: !enabled,
  };
  if (element.kind === "field")
    return (
      <input
        {...common}
        aria-label={element.label}
        value={String(hands.fields(branch)[element.id] ?? "")}
        className={`area px-[2%] text-[12px] text-black ${hands.fields(branch)[element.id] ? "bg-white/90" : ""}`}
        style={style}
        onChange={(event) => hands.type(on, event.target.value)}
        onClick={() => hands.use(on, "tap")}
        onKeyDown={(event) => event.key === "Enter" && hands.use(on, legsOf(project, control.on, element, "submit").length > 0 ? "submit" : "tap")}
      />
    );
  if (element.kind === "switch") {
    const checked = hands.fields(branch)[element.id] === true;
    return (
      <button
        type="button"
        {...common}
        role="switch"
        aria-checked={checked}
        aria-label={element.label}
        className={`area ${checked ? "area-on" : ""}`}
        style={style}
        onClick={() => {
          hands.type(on, !checked);
          hands.use(on, "tap");
        }}
      />
    );
  }
  if ((element.kind === "text" || element.kind === "image") && !hands.leads(control.on, element))
    return (
      <div
        {...common}
        role="img"
        aria-label={element.label}
        className="area pointer-events-none"
        style={{ ...style, ...carried(within, area, shows, element.id) }}
      />
    );
  const rows = element.kind === "list" ? rowsFor(within, control, area, shows.picture, nth) : [undefined];
  return rows.map((row, i) => {
    const key = row && element.of !== undefined ? keyField(lookup(project).types.get(element.of) ?? { id: "", fields: [], samples: [] }) : undefined;
    const item = row && key !== undefined ? String(row[key]) : undefined;
    const strip: Area = { ...area, at: [area.at[0], area.at[1] + (area.at[3] * i) / rows.length, area.at[2], area.at[3] / rows.length] };
    return (
      <button
        key={item ?? i}
        type="button"
        {...common}
        data-item={item}
        aria-label={row ? rowText(project, state, screen, control.on, element, row) : element.label}
        className="area"
        style={{ ...placed(strip, shows.picture), ...carried(within, strip, shows, element.id) }}
        onClick={() => hands.use({ ...on, ...(row ? { row } : {}) }, "tap")}
        {...hands.holding({ ...on, ...(row ? { row } : {}) })}
      />
    );
  });
}

/** The rows that an area of a list stands for: where the list has several areas one each, in their order; else all of the samples. */
function rowsFor({ project }: Within, { element }: Control, area: Area, picture: Picture, nth: number): Array<Row | undefined> {
  const samples = element?.of === undefined ? [] : (lookup(project).types.get(element.of)?.samples ?? []);
  if (samples.length === 0) return [undefined];
  const several = picture.areas.filter((other) => other.control === area.control).length > 1;
  // A picture may show more rows than there are samples: those below stand for the last.
  return several ? [samples[nth] ?? samples.at(-1)] : samples;
}

/** What an area for the lead, the ×, a tab or a member of a drawer does. */
function usedBy({ project, state, branch, hands }: Within, { kind, control, label }: Control, onTop: boolean) {
  const place = control.split(":")[1] ?? "";
  const current = visiblePath(branchNode(state, branch)).some(({ at }) => at === place);
  switch (kind) {
    case "lead": {
      const lead = leadOf(planOf(project), state, branch);
      const words = { back: "Back", up: "Up", menu: "Menu", idle: "Does nothing", none: "Does nothing" }[lead];
      return { label: words, live: lead !== "idle" && lead !== "none", current: false, event: () => onTop && hands.send({ do: "lead" }) };
    }
    case "close":
      return { label: "Close", live: onTop, current: false, event: () => hands.send({ do: "close", via: "button" }) };
    case "tab":
      return { label, live: true, current, event: () => hands.send({ do: "tab", to: place }) };
    default:
      return { label, live: true, current, event: () => hands.send({ do: "pick", to: place }) };
  }
}

function placed({ at: [x, y, w, h] }: Area, { size: [width, height] }: Picture): React.CSSProperties {
  const percent = (part: number, whole: number) => `${(part / whole) * 100}%`;
  return { left: percent(x, width), top: percent(y, height), width: percent(w, width), height: percent(h, height) };
}

/** What a motion carries is cut out of the picture, so that there is something to see grow. */
function carried({ project }: Within, { at: [x, y, w, h] }: Area, { picture: { size }, url }: Shows, element: string): React.CSSProperties {
  const carries = project.legs.some(({ motion }) => motion?.carries?.some(({ from, to }) => from === element || to === element));
  if (!carries) return {};
  const along = (at: number, part: number, whole: number) => (whole === part ? 0 : (at / (whole - part)) * 100);
  return {
    backgroundImage: `url("${url}")`,
    backgroundSize: `${(size[0] / w) * 100}% ${(size[1] / h) * 100}%`,
    backgroundPosition: `${along(x, w, size[0])}% ${along(y, h, size[1])}%`,
  };
}

/** Whether something of the frame around a screen is listed: a drawer that slides in and the × of a layer are there anyway. */
function isListed({ project, state, branch }: Within, { kind, on }: Control): boolean {
  if (kind === "lead") return leadOf(planOf(project), state, branch) !== "none";
  if (kind === "pick") return isPinned(drawerOf(project, on), state.width);
  return kind !== "close";
}

/** What is on the screen and has no area on its picture: nothing is out of reach. */
function Others({ within, controls, picture }: { within: Within; controls: readonly Control[]; picture: Picture }) {
  const { project, state, branch, hands } = within;
  const screen = currentScreen(state, branch);
  const onTop = branch === topBranch(state);
  // Where the picture is that of the body, bars and tabs are drawn as usual.
  const wanted = controls.filter((one) => one.kind === "element" || (picture.holds === "screen" && isListed(within, one)));
  const listed = wanted.flatMap((control) => {
    if (control.kind !== "element") {
      const { label, event, current } = usedBy(within, control, onTop);
      return [
        <button
          key={control.control}
          type="button"
          className="min-h-7 border border-hairline bg-sheet px-2 text-[11.5px] text-ink aria-[current]:font-semibold"
          aria-current={current ? "page" : undefined}
          onClick={event}
        >
          {label}
        </button>,
      ];
    }
    const element = control.element;
    if (!element || (picture.holds === "body" && element.at === "bar")) return [];
    const { shown, enabled } = elementOn(project, state, screen, control.on, element, hands.fields(branch));
    if (!shown) return [];
    return [
      <div key={`${control.on} ${element.id}`} className="flex w-full flex-col">
        <ElementView project={project} state={state} screen={screen} branch={branch} placeId={control.on} element={element} enabled={enabled} hands={hands} />
      </div>,
    ];
  });
  if (listed.length === 0) return null;
  return (
    <section aria-label="Not on the picture" className="border-t border-hairline bg-sheet px-3 py-2">
      <p className="m-0 mb-1 text-[10.5px] text-ink-2">Not on the picture</p>
      <div className="flex flex-wrap gap-1.5">{listed}</div>
    </section>
  );
}
