import type { ButtonHTMLAttributes } from "react";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  tone?: "plain" | "main" | "quiet" | "link";
}
const TONES: Record<NonNullable<Props["tone"]>, string> = {
  plain: "border border-ink bg-sheet px-2.5 py-1 font-medium enabled:hover:bg-band disabled:border-hairline disabled:text-ink-2",
  main: "border border-ink bg-ink px-3 py-1.5 font-semibold text-paper enabled:hover:opacity-90 disabled:opacity-50",
  quiet: "px-2 py-1 text-ink-2 enabled:hover:text-ink disabled:opacity-60",
  link: "px-0 py-0.5 font-semibold text-accent enabled:hover:underline",
};

export function Button({ tone = "plain", className = "", ...rest }: Props) {
  return <button type="button" {...rest} className={`rounded-sm text-[12.5px] whitespace-nowrap ${TONES[tone]} ${className}`} />;
}
