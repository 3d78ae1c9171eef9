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
  s3: ["#95bfa8", "#3b6653"],
  s4: ["#4f8f70", "#5a9a7d"],
  s5: ["#1f5a3f", "#8ad0ac"],
  "warm-soft": ["#f3e2c4", "#3d3019"],
  "urgent-soft": ["#f5d8d0", "#442720"],
};

/** What the classes of a drawing look like; the page and files use the same. Colours are custom properties. */
export const MAP_CLASSES = [
  ".m-ground{fill:none}",
  ".m .paper{fill:var(--paper)}.m .sheet{fill:var(--sheet);stroke:var(--ink);stroke-width:1}.m .band{fill:var(--band)}.m .band-2{fill:var(--band-2)}.m .lift{fill:var(--lift)}",
  ".m .chosen{stroke:var(--accent);stroke-width:1.6}",
  ".m text{fill:var(--ink-2);font-size:11px}.m .name{font-weight:600}.m .count{font-size:11px}.m .strong{font-weight:650}",
  ".m .caption{fill:var(--ink);font-weight:700;font-stretch:108%}.m .caption .says{font-weight:400;fill:var(--ink-2);font-stretch:100%}.m .group{fill:var(--ink-2);font-weight:600}.m .ruler{fill:var(--ink-2)}",
  ".m .face,.m .frame{stroke:var(--ink);stroke-width:1}.m .frame{fill:none!important;stroke-width:1.4}.m .bare{fill:transparent;stroke:none}.m .blocked{stroke:var(--urgent);stroke-width:1.7}",
  ".m .tone-plain{fill:var(--sheet)}.m .face.bare{fill:transparent;stroke:none}.m .tone-here{fill:var(--accent);stroke:var(--accent)}.m .tone-none{fill:var(--paper)}.m .tone-good{fill:var(--s2)}.m .tone-warm{fill:var(--warm-soft)}.m .tone-urgent{fill:var(--urgent-soft)}",
  ".m .tone-s0{fill:var(--s0)}.m .tone-s1{fill:var(--s1)}.m .tone-s2{fill:var(--s2)}.m .tone-s3{fill:var(--s3)}.m .tone-s4{fill:var(--s4)}.m .tone-s5{fill:var(--s5)}",
  ".m .on-plain,.m .on-none,.m .on-good,.m .on-warm,.m .on-urgent,.m .on-s0,.m .on-s1,.m .on-s2,.m .on-s3{fill:var(--ink)}.m .on-here{fill:var(--on-accent)}.m .on-s4,.m .on-s5{fill:var(--on-dark)}",
  ".m .faint{opacity:.28}.m .halo{fill:none;stroke:var(--accent);stroke-width:1.6}.m .halo.drop{stroke-width:2.4;stroke-dasharray:4 3}.m .beneath{fill:none;stroke:var(--accent)}",
  ".m .line{stroke:var(--ink);fill:none}.m .knot{fill:var(--paper);stroke:var(--ink);stroke-width:1.6}.m .catch{fill:transparent}",
  ".m .way-in,.m .way-out{stroke:var(--ink);stroke-width:1.3;fill:none}.m .flow{stroke:var(--flow);fill:none}.m .flow-head{fill:none;stroke:var(--flow);stroke-width:2}.m .push{stroke:var(--ink);stroke-width:1.1;fill:none}.m .tree{stroke:var(--ink-2);stroke-opacity:.55;stroke-width:1;fill:none}",
  ".m .badge.blocker{fill:var(--urgent)}.m .badge.warning{fill:var(--warm)}.m .badge.note{fill:var(--ink-2)}.m .badge text{fill:var(--paper);font-weight:700}.m .badge path{stroke:var(--paper);stroke-width:1.2}",
  ".m .f-none{fill:none}.m .f-sheet{fill:var(--sheet)}.m .f-band{fill:var(--band)}.m .f-paper{fill:var(--paper)}.m .f-ink{fill:var(--ink)}.m .f-second{fill:var(--ink-2)}.m .f-hair{fill:var(--hairline)}",
  ".m .l-none{stroke:none}.m .l-ink{stroke:var(--ink);stroke-width:.9}.m .l-second{stroke:var(--ink-2);stroke-width:.8}.m .l-hair{stroke:var(--hairline);stroke-width:.8}",
].join("\n");

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
    MAP_CLASSES,
    "</style>",
  ].join("\n");
}
