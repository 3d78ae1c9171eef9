import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from "chart.js";
import { useEffect, useRef } from "react";
import type { LensView } from "../../../core/map/lenses/lens.ts";
import { useTheme } from "../../ui/theme.ts";

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

/** How many have which value, as small bars; the same in words for who cannot see them. */
export function LensChart({ chart }: { chart: NonNullable<LensView["chart"]> }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme((t) => t.theme);
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const colour = (name: string) => getComputedStyle(element).getPropertyValue(name).trim();
    const [ink, line] = [colour("--ink-2"), colour("--hairline")];
    const font = { family: "Hanken Grotesk Variable", size: 11 };
    const drawn = new Chart(element, {
      type: "bar",
      data: {
        labels: [...chart.labels],
        datasets: [{ data: [...chart.counts], backgroundColor: colour(theme === "dark" ? "--s4" : "--s3"), barPercentage: 0.9, categoryPercentage: 0.92 }],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        plugins: { legend: { display: false }, tooltip: { displayColors: false } },
        scales: {
          x: { ticks: { color: ink, font }, grid: { display: false }, border: { color: line } },
          y: { ticks: { color: ink, font, precision: 0, maxTicksLimit: 4 }, grid: { color: line }, border: { display: false } },
        },
      },
    });
    return () => drawn.destroy();
  }, [chart, theme]);
  const words = chart.labels.map((label, i) => `${label}: ${chart.counts[i]}`).join(", ");
  return (
    <figure className="m-0">
      <figcaption className="mb-1 text-[11.5px] text-ink-2">{chart.title}</figcaption>
      <div className="h-24">
        <canvas ref={canvas} role="img" aria-label={`${chart.title}: ${words}`} />
      </div>
    </figure>
  );
}
