import { CARD_WIDTH, cut } from "../../../core/map/measure.ts";

interface Props {
  id: string;
  name: string;
  x: number;
  y: number;
  selected: boolean;
}

/** A way in from outside, beneath the card that it leads to. */
export function EntranceView({ id, name, x, y, selected }: Props) {
  return (
    <g className="card-detail" transform={`translate(${x} ${y})`} data-entrance={id}>
      <title>{name}</title>
      <rect width={CARD_WIDTH} height={19} rx={2} fill="var(--paper)" stroke={selected ? "var(--accent)" : "var(--ink-2)"} strokeDasharray="3 2" />
      <text x={9} y={13.5} fontSize={11} fill="var(--ink-2)">
        ↑ {cut(name, 17)}
      </text>
    </g>
  );
}
