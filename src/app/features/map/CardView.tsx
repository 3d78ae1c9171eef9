import { memo } from "react";
import type { Severity } from "../../../core/check/finding.ts";
import type { LensTone } from "../../../core/map/draw/look.ts";
import type { Seen } from "../../../core/map/lenses/lens.ts";
import { CARD_HEAD, CARD_WIDTH, cut, NAME_FITS, ROW_FITS, ROW_HEIGHT } from "../../../core/map/measure.ts";
import type { Card, Row } from "../../../core/map/types.ts";

const LENS_GROUND: Record<LensTone, string> = {
  s0: "var(--s0)",
  s1: "var(--s1)",
  s2: "var(--s2)",
  s3: "var(--s3)",
  s4: "var(--s4)",
  s5: "var(--s5)",
  good: "var(--s2)",
  warm: "var(--warm-soft)",
  urgent: "var(--urgent-soft)",
  none: "var(--paper)",
};

function colourOf(severity: Severity): string {
  return severity === "blocker" ? "var(--urgent)" : severity === "warning" ? "var(--warm)" : "var(--ink-2)";
}

interface Props {
  card: Card;
  here: boolean;
  selected: boolean;
  selectedElement: string | undefined;
  beneath: boolean;
  worst: { severity: Severity; count: number } | undefined;
  dropTarget: boolean;
  /** What a lens shows of it. */
  lens: Seen | undefined;
  /** Something else is in focus. */
  faint: boolean;
}

/** A screen on the map: its name and its elements as rows, each with a point to draw a leg from. */
export const CardView = memo(function CardView({ card, here, selected, selectedElement, beneath, worst, dropTarget, lens, faint }: Props) {
  const line = here ? "var(--accent)" : worst?.severity === "blocker" ? "var(--urgent)" : "var(--ink)";
  const text = here ? "var(--on-accent)" : lens && (lens.tone === "s4" || lens.tone === "s5") ? "var(--on-dark)" : "var(--ink)";
  const planned = card.screen.planned === true;
  const name = card.screen.name || card.id;
  return (
    <g data-place={card.id} data-card transform={`translate(${card.x} ${card.y})`} opacity={faint ? 0.28 : undefined}>
      <title>{lens ? lens.long : card.screen.name}</title>
      {(selected || dropTarget) && (
        <rect
          x={-4}
          y={-4}
          width={card.width + 8}
          height={card.height + 8}
          rx={5}
          fill="none"
          stroke="var(--accent)"
          strokeWidth={dropTarget ? 2.5 : 1.5}
          strokeDasharray={dropTarget ? "4 3" : undefined}
        />
      )}
      {beneath && <rect x={3} y={3} width={card.width} height={card.height} rx={3} fill="none" stroke="var(--accent)" strokeWidth={1} />}
      <rect
        width={card.width}
        height={card.height}
        rx={3}
        fill={here ? "var(--accent)" : lens ? LENS_GROUND[lens.tone] : "var(--sheet)"}
        stroke={line}
        strokeWidth={worst?.severity === "blocker" && !here ? 1.8 : 1}
        strokeDasharray={planned ? "3 3" : undefined}
      />
      <g data-head className="map-head">
        <title>{`${name}: drag from here to lead somewhere with a new button`}</title>
        <rect width={card.width} height={card.rows.length > 0 ? CARD_HEAD : card.height} fill="transparent" />
        <text x={10} y={CARD_HEAD / 2 + 4.5} className="card-name" fill={text}>
          {cut(name, worst || lens ? NAME_FITS - 2 : NAME_FITS)}
        </text>
        <circle
          className="map-port"
          cx={CARD_WIDTH}
          cy={CARD_HEAD / 2}
          r={3.4}
          fill="var(--sheet)"
          stroke={here ? "var(--accent)" : "var(--ink-2)"}
          strokeWidth={1}
        />
      </g>
      {card.rows.length > 0 && (
        <path
          className="card-detail"
          d={`M0 ${CARD_HEAD}H${CARD_WIDTH}`}
          stroke={here ? "var(--on-accent)" : "var(--hairline)"}
          strokeOpacity={here ? 0.5 : 1}
        />
      )}
      <g className="card-detail">
        {card.rows.map((row) => (
          <RowView
            key={row.element?.id ?? row.label}
            row={row}
            card={card}
            here={here}
            onDark={text === "var(--on-dark)"}
            selected={row.element !== undefined && row.element.id === selectedElement}
          />
        ))}
      </g>
      {card.screen.hub && (
        <rect x={-5} y={3} width={2.8} height={card.height - 6} rx={1} fill="var(--ink)">
          <title>A hub: people can always get back here</title>
        </rect>
      )}
      {lens && (
        <text x={card.width - 8} y={CARD_HEAD / 2 + 4} textAnchor="end" fontSize={11} fill={text}>
          {lens.says}
        </text>
      )}
      {worst && (
        <g transform={`translate(${card.width} 0)`}>
          <circle r={9} fill={colourOf(worst.severity)} stroke="var(--paper)" strokeWidth={1.5} />
          <text textAnchor="middle" y={4} fontSize={11} fontWeight={700} fill="var(--paper)">
            {worst.count}
          </text>
        </g>
      )}
    </g>
  );
});

function RowView({ row, card, here, onDark, selected }: { row: Row; card: Card; here: boolean; onDark: boolean; selected: boolean }) {
  const y = row.y - card.y;
  const color = here ? "var(--on-accent)" : onDark ? "var(--on-dark)" : selected ? "var(--accent)" : row.element ? "var(--ink-2)" : "var(--ink-2)";
  const full = row.label;
  return (
    <g {...(row.element ? { "data-row": row.element.id } : { "data-trigger": row.legs[0]?.id })} className={row.element ? "map-row" : "map-row map-trigger"}>
      {full.length > ROW_FITS && <title>{full}</title>}
      <rect x={1} y={y - ROW_HEIGHT / 2} width={CARD_WIDTH - 2} height={ROW_HEIGHT} fill={selected && !here ? "var(--accent-soft)" : "transparent"} />
      <text x={10} y={y + 4} fontSize={11.5} fill={color} fontStyle={row.element ? undefined : "italic"}>
        {cut(full, ROW_FITS)}
      </text>
      <circle
        className="map-port"
        cx={CARD_WIDTH}
        cy={y}
        r={row.legs.length > 0 ? 2.6 : 3}
        fill={row.legs.length > 0 ? (here ? "var(--accent)" : "var(--ink)") : "var(--sheet)"}
        stroke={here ? "var(--accent)" : row.legs.length > 0 ? "var(--ink)" : "var(--ink-2)"}
        strokeWidth={1}
      />
    </g>
  );
}
