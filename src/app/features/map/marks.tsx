import { ENDS } from "../../../core/map/form.ts";

/** The ends of lines as markers of the map's drawing; they take the colour of their line. */
export function LineEnds() {
  return (
    <defs>
      {Object.entries(ENDS).map(([end, { d, filled }]) => (
        <marker key={end} id={`end-${end}`} markerWidth={12} markerHeight={12} refX={9} refY={6} orient="auto-start-reverse" markerUnits="userSpaceOnUse">
          <path d={d} fill={filled ? "context-stroke" : "none"} stroke="context-stroke" strokeWidth={1.4} />
        </marker>
      ))}
    </defs>
  );
}
