import gherkin from "highlight.js/lib/languages/gherkin";
import json from "highlight.js/lib/languages/json";
import kotlin from "highlight.js/lib/languages/kotlin";
import markdown from "highlight.js/lib/languages/markdown";
import swift from "highlight.js/lib/languages/swift";
import typescript from "highlight.js/lib/languages/typescript";
import xml from "highlight.js/lib/languages/xml";
import { createLowlight } from "lowlight";
import { Fragment, useMemo } from "react";

const LANGUAGES = { typescript, kotlin, swift, json, xml, markdown, gherkin };
const lowlight = createLowlight(LANGUAGES);

/** By the end of a file's name the language that it is in. */
const BY_ENDING: Record<string, keyof typeof LANGUAGES> = {
  ts: "typescript",
  kt: "kotlin",
  swift: "swift",
  json: "json",
  scxml: "xml",
  graphml: "xml",
  md: "markdown",
  feature: "gherkin",
};

/** The text of a file with its words told apart by the language that its name says it is in. */
export function Highlighted({ name, text }: { name: string; text: string }) {
  const language = BY_ENDING[name.split(".").at(-1) ?? ""];
  const tree = useMemo(() => (language ? lowlight.highlight(language, text) : undefined), [language, text]);
  return tree ? <code className="highlighted">{tree.children.map(drawn)}</code> : text;
}

type Part = ReturnType<typeof lowlight.highlight>["children"][number];

function drawn(part: Part, at: number): React.ReactNode {
  if (part.type === "text") return <Fragment key={at}>{part.value}</Fragment>;
  if (part.type !== "element") return null;
  const names = part.properties.className;
  return (
    <span key={at} className={Array.isArray(names) ? names.join(" ") : undefined}>
      {part.children.map(drawn)}
    </span>
  );
}
