import { memo } from "react";
import { lineForm } from "../../../core/map/form.ts";
import { type Line, pathOf } from "../../../core/map/lines.ts";
import { stubLabel, stubText, stubWidth } from "../../../core/map/stub.ts";
import { moveWord } from "../../../core/model/propose.ts";
import type { Project } from "../../../core/model/schema.ts";

interface Props {
  line: Line;
  project: Project;
  focus: boolean;
  /** Where many are in focus at once, the word stands at the line's start, where no other line runs. */
  atStart?: boolean;
}

/** A leg: a line along its band, or a stub with its target's name. In focus it says what it does. */
export const LineView = memo(function LineView({ line, project, focus, atStart }: Props) {
  const form = lineForm(line.leg.move);
  const color = focus ? "var(--accent)" : "var(--ink)";
  const planned = line.leg.planned ? "2 4" : undefined;
  if (line.drawn === "stub") return <Stub line={line} project={project} focus={focus} />;
  const says = moveWord(line.leg.move);
  const word = atStart ? { x: line.from.x + 40, y: line.from.y - 4, anchor: "middle" as const } : wordPlace(line, says.length);
  return (
    <g data-leg={line.leg.id} className="map-line">
      <title>{`${says} ${stubLabel(project, line.leg)}`}</title>
      <path d={pathOf(line.points)} fill="none" stroke="transparent" strokeWidth={10} />
      <path
        d={pathOf(line.points)}
        fill="none"
        stroke={color}
        strokeWidth={focus ? 2 : 1.3}
        strokeDasharray={planned ?? form.dash}
        markerEnd={`url(#end-${form.end})`}
      />
      {focus && (
        <text x={word.x} y={word.y} textAnchor={word.anchor} fontSize={11.5} fontWeight={600} fill="var(--accent)" className="line-word">
          {says}
        </text>
      )}
    </g>
  );
}, sameLine);

/** The project matters to a line by its target's name alone. */
function sameLine(a: Props, b: Props): boolean {
  return (
    a.line === b.line &&
    a.focus === b.focus &&
    a.atStart === b.atStart &&
    (a.project === b.project || stubLabel(a.project, a.line.leg) === stubLabel(b.project, b.line.leg))
  );
}

/** Width of a letter of a word beside a line, about. */
const LETTER = 7;

/** How far from the start of an upright stretch a word stands beside it. */
const NEAR = 34;

/** Above the middle of the line's longest level stretch; where that is shorter than the word, beside its longest upright one. */
function wordPlace({ points }: Line, letters: number): { x: number; y: number; anchor: "middle" | "start" } {
  const longest = (along: "x" | "y") => {
    const across = along === "x" ? "y" : "x";
    const stretches = points.slice(1).flatMap((to, i) => {
      const from = points[i] as { x: number; y: number };
      return from[across] === to[across] ? [{ from, to, length: Math.abs(to[along] - from[along]) }] : [];
    });
    return stretches.reduce<(typeof stretches)[number] | undefined>((best, one) => (best && best.length >= one.length ? best : one), undefined);
  };
  const [level, upright] = [longest("x"), longest("y")];
  const narrow = level === undefined || level.length < letters * LETTER;
  if (narrow && upright) {
    // Near its start: further on it may pass the controls of other screens.
    const along = Math.min(NEAR, upright.length / 2) * Math.sign(upright.to.y - upright.from.y);
    return { x: upright.from.x + 6, y: upright.from.y + along + 4, anchor: "start" };
  }
  const [from, to] = level ? [level.from, level.to] : [points[0], points[0]];
  return { x: ((from?.x ?? 0) + (to?.x ?? 0)) / 2, y: (from?.y ?? 0) - 4, anchor: "middle" };
}

function Stub({ line, project, focus }: { line: Line; project: Project; focus: boolean }) {
  const name = stubLabel(project, line.leg);
  const label = stubText(name, line.count);
  const width = stubWidth(label);
  const { x, y } = line.from;
  const color = focus ? "var(--accent)" : "var(--ink)";
  const open = line.leg.move?.kind === "open";
  return (
    <g data-leg={line.leg.id} className="map-line map-stub">
      <title>{`${moveWord(line.leg.move)} ${name}${line.count > 1 ? ` and ${line.count - 1} more` : ""}`}</title>
      <path d={`M${x} ${y}h9`} stroke={color} strokeWidth={1.3} strokeDasharray={open ? "2 2" : undefined} />
      <rect
        x={x + 9}
        y={y - 8}
        width={width}
        height={16}
        rx={8}
        fill={focus ? "var(--accent-soft)" : "var(--paper)"}
        stroke={color}
        strokeWidth={focus ? 1.4 : 0.8}
        strokeDasharray={open ? "2 2" : undefined}
      />
      <text x={x + 15} y={y + 4} fontSize={11} fill={color}>
        {label}
      </text>
    </g>
  );
}
