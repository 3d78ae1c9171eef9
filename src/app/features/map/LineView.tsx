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
  const word = atStart ? { x: line.from.x + 40, y: line.from.y - 4 } : wordPlace(line);
  return (
    <g data-leg={line.leg.id} className="map-line">
      <title>{`${moveWord(line.leg.move)} ${stubLabel(project, line.leg)}`}</title>
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
        <text x={word.x} y={word.y} textAnchor="middle" fontSize={11.5} fontWeight={600} fill="var(--accent)" className="line-word">
          {moveWord(line.leg.move)}
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

/** Above the middle of the line's longest level stretch. */
function wordPlace({ points }: Line): { x: number; y: number } {
  let best = { x: points[0]?.x ?? 0, y: points[0]?.y ?? 0, length: 0 };
  points.forEach((point, i) => {
    const next = points[i + 1];
    if (!next || next.y !== point.y) return;
    const length = Math.abs(next.x - point.x);
    if (length > best.length) best = { x: (next.x + point.x) / 2, y: point.y - 4, length };
  });
  return best;
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
