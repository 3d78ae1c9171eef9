import { createElement, memo } from "react";
import type { Mark } from "../../../core/map/draw/mark.ts";

/** A part of a drawing, as the core has it. */
export const MarkView = memo(function MarkView({ mark }: { mark: Mark }) {
  return drawn(mark, 0);
});

function drawn({ tag, attrs, text, children, key }: Mark, i: number): React.ReactElement {
  const inside = (children ?? []).flatMap((child, n) => (child ? [drawn(child, n)] : []));
  return createElement(tag, { key: key ?? i, ...attrs }, ...(text === undefined ? [] : [text]), ...inside);
}
