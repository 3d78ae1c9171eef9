import { useRef } from "react";
import { areaProblem, controlNamed } from "../../../core/model/pictures.ts";
import type { Area, Picture, Project } from "../../../core/model/schema.ts";
import type { Luma, Rect } from "../../../core/pictures/snap.ts";
import { AreaForm } from "./AreaForm.tsx";
import type { NewArea } from "./makeArea.ts";
import { type Grip, useStage } from "./useStage.ts";

const GRIPS: ReadonlyArray<{ grip: Grip; className: string }> = [
  { grip: "nw", className: "-top-2 -left-2 cursor-nwse-resize" },
  { grip: "ne", className: "-top-2 -right-2 cursor-nesw-resize" },
  { grip: "sw", className: "-bottom-2 -left-2 cursor-nesw-resize" },
  { grip: "se", className: "-right-2 -bottom-2 cursor-nwse-resize" },
  { grip: "n", className: "-top-2 left-1/2 -translate-x-1/2 cursor-ns-resize" },
  { grip: "s", className: "-bottom-2 left-1/2 -translate-x-1/2 cursor-ns-resize" },
  { grip: "w", className: "top-1/2 -left-2 -translate-y-1/2 cursor-ew-resize" },
  { grip: "e", className: "top-1/2 -right-2 -translate-y-1/2 cursor-ew-resize" },
];
/** Pixels that an area has to be high to bear its name all the time. */
const ROOMY = 44;
/** Pixels that a picture moves by one press of an arrow key, with Shift. */
const LARGE = 10;

interface Props {
  project: Project;
  screen: string;
  picture: Picture;
  url: string;
  luma: Luma | undefined;
  snap: boolean;
  /** The area that is chosen, by its number. */
  chosen: number | undefined;
  onChoose: (area: number | undefined) => void;
  /** A rectangle that waits to be named. */
  asked: Rect | undefined;
  onDrawn: (rect: Rect | undefined) => void;
  onMake: (rect: Rect, what: NewArea) => void;
  onChange: (area: Area, rect: Rect) => void;
  onRemove: (area: Area) => void;
  size: { width: number; height: number };
  /** Pixels of the room that the picture stands in the middle of. */
  room: number;
}

/** A picture with its areas: drawn by dragging over it; chosen, moved and sized by pointer or keys. */
export function PictureStage(props: Props) {
  const { project, screen, picture, url, luma, snap, chosen, onChoose, asked, onDrawn, onMake, onChange, onRemove, size, room } = props;
  const frame = useRef<HTMLDivElement>(null);
  const stage = useStage({ picture, frame, luma, snap, drawn: onDrawn, chosen: onChoose, changed: onChange });
  const placed = ([x, y, w, h]: Rect): React.CSSProperties => ({
    left: `${(x / picture.size[0]) * 100}%`,
    top: `${(y / picture.size[1]) * 100}%`,
    width: `${(w / picture.size[0]) * 100}%`,
    height: `${(h / picture.size[1]) * 100}%`,
  });
  const waiting = asked ?? stage.drawing;
  const keys = (event: React.KeyboardEvent, i: number, area: Area) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (by) {
      event.preventDefault();
      event.stopPropagation();
      const far = event.shiftKey ? LARGE : 1;
      stage.nudge(i, (by[0] ?? 0) * far, (by[1] ?? 0) * far, event.altKey);
    } else if (event.key === "Delete" || event.key === "Backspace") {
      event.preventDefault();
      event.stopPropagation();
      onRemove(area);
    } else if (event.key === "Escape") onChoose(undefined);
  };
  return (
    <div
      ref={frame}
      data-testid="picture"
      data-edges={luma ? "known" : "looked for"}
      className="relative shrink-0 cursor-crosshair touch-none select-none border border-ink/40"
      style={{ width: size.width, height: size.height }}
      onPointerDown={(event) => {
        onDrawn(undefined);
        stage.onDown(event, undefined);
      }}
      onPointerMove={stage.onMove}
      onPointerUp={stage.onUp}
      onPointerCancel={stage.onCancel}
    >
      <img src={url} alt={`What ${picture.file} shows`} draggable={false} className="pointer-events-none block h-full w-full" />
      {picture.areas.map((area, i) => {
        const lost = areaProblem(project, screen, picture, area);
        const label = controlNamed(project, screen, area.control)?.label ?? area.control;
        const rect = stage.moving?.area === i ? stage.moving.rect : area.at;
        const here = chosen === i;
        return (
          <div key={`${area.control} ${picture.areas.slice(0, i).filter((a) => a.control === area.control).length}`} className="absolute" style={placed(rect)}>
            <button
              type="button"
              data-area={area.control}
              aria-label={`Area for ${label}`}
              aria-pressed={here}
              title={lost ? `${label}: ${lost}` : label}
              className={`peer absolute inset-0 cursor-move touch-none rounded-[3px] border-2 ${lost ? "border-urgent border-dashed bg-urgent/15" : here ? "border-accent bg-accent/20" : "border-accent/70 bg-accent/10 hover:bg-accent/20"}`}
              onPointerDown={(event) => {
                event.stopPropagation();
                event.currentTarget.focus();
                onDrawn(undefined);
                stage.onDown(event, { grip: "move", area: i });
              }}
              onFocus={() => !here && onChoose(i)}
              onKeyDown={(event) => keys(event, i, area)}
              onKeyUp={stage.settle}
              onBlur={stage.settle}
            />
            <span
              className={`pointer-events-none absolute top-0 left-0 max-w-full truncate ${here || lost || (rect[3] * size.height) / picture.size[1] >= ROOMY ? "" : "opacity-0 peer-hover:opacity-100 peer-focus-visible:opacity-100"} rounded-br-[3px] px-1 text-[10.5px] leading-[15px] ${lost ? "bg-urgent text-paper" : "bg-accent text-on-accent"}`}
            >
              {label}
            </span>
            {here &&
              GRIPS.map(({ grip, className }) => (
                <span
                  key={grip}
                  data-grip={grip}
                  className={`absolute z-10 flex h-4 w-4 touch-none items-center justify-center ${className}`}
                  onPointerDown={(event) => {
                    event.stopPropagation();
                    stage.onDown(event, { grip, area: i });
                  }}
                >
                  <span className="h-2 w-2 border border-accent bg-sheet" />
                </span>
              ))}
          </div>
        );
      })}
      {waiting && <div className="pointer-events-none absolute rounded-[3px] border-2 border-accent bg-accent/20" style={placed(waiting)} />}
      {asked && (
        <AreaForm
          key={asked.join(" ")}
          screen={screen}
          picture={picture}
          style={beside(asked, picture, size, room)}
          onDone={(what) => onMake(asked, what)}
          onCancel={() => onDrawn(undefined)}
        />
      )}
    </div>
  );
}

/** Pixels that the form is wide. */
const FORM = 286;

/** The form stands beneath its area, or above where there is no room; over the picture where neither has. */
function beside([x, y, w, h]: Rect, { size: [width, height] }: Picture, shown: { width: number; height: number }, room: number): React.CSSProperties {
  const scale = shown.width / width;
  const middle = (x + w / 2) * scale;
  const side = Math.max(0, (room - shown.width) / 2 - 6);
  const left = Math.max(-side, Math.min(middle - FORM / 2, shown.width + side - FORM));
  return (y + h / 2) * scale < (height * scale) / 2 ? { left, top: (y + h) * scale + 8 } : { left, bottom: shown.height - y * scale + 8 };
}
