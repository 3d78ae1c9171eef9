import classes from "./marks.css?raw";

/** The colours of the sheet; a reader's dark look takes the second of each. They are those of the page. */
const COLOURS: Record<string, [string, string]> = {
  paper: ["#f3efe4", "#14181b"],
  sheet: ["#fcfaf4", "#1b2125"],
  ink: ["#1f2a30", "#ece7db"],
  "ink-2": ["#5e6661", "#a9a592"],
  hairline: ["#d5cdb9", "#343c40"],
  band: ["#ebe5d5", "#1f262a"],
  "band-2": ["#e4ddca", "#242c31"],
  accent: ["#2c3fc4", "#8fa2ff"],
  "accent-soft": ["#dde1f8", "#2a3052"],
  "on-accent": ["#ffffff", "#14181b"],
  warm: ["#9a5f0c", "#e0a94a"],
  urgent: ["#b5341f", "#f07b62"],
  proved: ["#2c6e4f", "#7fc8a2"],
  lift: ["#d9d3c4", "#0d1012"],
  s0: ["#f4f6ee", "#1e2724"],
  s1: ["#dbe8dc", "#24362f"],
  s2: ["#bcd6c5", "#2d4a3e"],
  s3: ["#95bfa8", "#38604e"],
  s4: ["#3f7f60", "#6fb593"],
  s5: ["#1f5a3f", "#a3e0c2"],
  "warm-soft": ["#f3e2c4", "#3d3019"],
  "urgent-soft": ["#f5d8d0", "#442720"],
};

/** The style of a file: the page's colours, light or dark as its reader has it. */
export function fileStyle(): string {
  const rules = (which: 0 | 1) =>
    Object.entries(COLOURS)
      .map(([name, pair]) => `--${name}:${pair[which]}`)
      .join(";");
  const flows = (which: 0 | 1) => `--flow:${["#a39c8a", "#6d7268"][which]};--on-dark:${["#ffffff", "#14181b"][which]}`;
  return [
    "<style>",
    `svg{${rules(0)};${flows(0)};font-family:"Hanken Grotesk","Helvetica Neue",Arial,sans-serif}`,
    `@media (prefers-color-scheme:dark){svg{${rules(1)};${flows(1)}}}`,
    classes.trim(),
    "</style>",
  ].join("\n");
}
