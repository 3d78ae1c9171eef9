import { cut, tapsOn } from "../../../core/map/measure.ts";
import { stubLabel } from "../../../core/map/stub.ts";
import type { Band, Spine } from "../../../core/map/types.ts";
import type { Project } from "../../../core/model/schema.ts";

interface Props {
  band: Band;
  project: Project;
  index: number;
  selected: boolean;
}

/** The ground of a stack or a lane; a modal's is a sheet lifted off it. */
export function BandView({ band, project, index, selected }: Props) {
  const caption = band.name || band.id;
  const width = caption.length * 7.2;
  return (
    <g data-place={band.id} data-band>
      {band.lifted && <rect x={band.x + 7} y={band.y + 7} width={band.width} height={band.height} fill="var(--lift)" rx={3} />}
      <rect
        x={band.x}
        y={band.y}
        width={band.width}
        height={band.height}
        rx={band.lifted ? 3 : 0}
        fill={band.lifted ? "var(--sheet)" : index % 2 === 0 ? "var(--band)" : "var(--band-2)"}
        stroke={selected ? "var(--accent)" : band.lifted ? "var(--ink)" : "none"}
      />
      {!band.lifted && (
        <path d={`M${band.x} ${band.y}H${band.x + band.width}M${band.x} ${band.y + band.height}H${band.x + band.width}`} stroke="var(--hairline)" />
      )}
      {band.scale.map(({ x, y, depth }) => (
        <g key={depth} className="band-scale" fontSize={11}>
          <path d={`M${x - 8} ${y + 8}V${band.y + band.height - 8}`} stroke="var(--hairline)" />
          <text x={x} y={y + 4} fill="var(--ink-2)">
            {tapsOn(depth)}
          </text>
        </g>
      ))}
      <text x={band.x + 12} y={band.y + 17} className="caption" fill="var(--ink)">
        {caption}
        <tspan className="band-says" dx={8} fontWeight={400} fill="var(--ink-2)" fontFamily="Hanken Grotesk Variable" style={{ fontStretch: "100%" }}>
          {band.says}
        </tspan>
      </text>
      {band.rows.length > 0 && (
        <g className="card-detail" transform={`translate(${band.x + 30 + width + band.says.length * 6.1} ${band.y + 13})`}>
          {band.rows.map((row, i) => (
            <g
              key={row.element?.id ?? row.label}
              transform={`translate(${i * 156} 0)`}
              {...(row.element ? { "data-row": row.element.id } : {})}
              className="map-row"
            >
              <rect y={-9} width={146} height={18} rx={2} fill="var(--sheet)" stroke="var(--hairline)" />
              <text x={8} y={4} fontSize={11.5} fill="var(--ink-2)">
                {cut(row.label, 10)}
                {row.legs[0] && (
                  <tspan fill="var(--ink)" dx={5}>
                    → {cut(stubLabel(project, row.legs[0]), 9)}
                  </tspan>
                )}
              </text>
              <circle className="map-port" cx={146} r={2.6} fill="var(--ink)" />
            </g>
          ))}
        </g>
      )}
    </g>
  );
}

/** The line at the left on which lanes hang: heavy for tabs, double for a drawer, a bracket for what a stack holds. */
export function SpineView({ spine }: { spine: Spine }) {
  const weight = spine.kind === "tabs" ? 5 : spine.kind === "drawer" ? 2 : 1;
  const middle = (spine.top + Math.min(spine.bottom, spine.top + 260)) / 2;
  const words = `${spine.name} · ${spine.kind}`;
  return (
    <g data-place={spine.id} data-band className="map-spine">
      <rect x={spine.x - 14} y={spine.top} width={24} height={spine.bottom - spine.top} fill="transparent" />
      <path d={`M${spine.x} ${spine.top + 4}V${spine.bottom - 4}`} stroke="var(--ink)" strokeWidth={weight} strokeLinecap="round" />
      {spine.kind === "drawer" && <path d={`M${spine.x + 4} ${spine.top + 4}V${spine.bottom - 4}`} stroke="var(--ink)" strokeWidth={1} />}
      {spine.knots.map((y) => (
        <g key={y}>
          <path d={`M${spine.x} ${y}H${spine.to}`} stroke="var(--ink)" strokeWidth={spine.kind === "tabs" ? 2 : 1} />
          {spine.kind === "tabs" && <circle cx={spine.x} cy={y} r={4.5} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />}
        </g>
      ))}
      <text transform={`translate(${spine.x - 7} ${middle}) rotate(-90)`} textAnchor="middle" fontSize={11} fill="var(--ink-2)">
        {words}
      </text>
    </g>
  );
}
