import { useMemo, useState } from "react";
import { isUntouched } from "../../../core/lines/isLines.ts";
import { nameMark } from "../../../core/map/draw/card.ts";
import { innerMarks } from "../../../core/map/draw/far.ts";
import { bandMark, spineMark } from "../../../core/map/draw/ground.ts";
import { launchMark } from "../../../core/map/farSvg.ts";
import { layoutFar } from "../../../core/map/layouts/far.ts";
import { emptyProject } from "../../../core/model/edits/add.ts";
import { changeProject } from "../../../core/model/edits/change.ts";
import { difference } from "../../../core/model/edits/revise.ts";
import type { Pattern } from "../../../core/patterns/pattern.ts";
import { putPattern } from "../../../core/patterns/put.ts";
import { PATTERNS } from "../../../core/patterns/table.ts";
import { useDocument, useNotices, useSession, useSheets } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { MarkView } from "./MarkView.tsx";

/** The room that a picture of a shape is laid out for. */
const ROOM = { width: 230, height: 158 };

/** While nothing leads anywhere: shapes to begin with where nothing is built, else what to do next. */
export function StartHere() {
  const project = useDocument((d) => d.project);
  if (project.screens.some((screen) => screen.pictures)) return <WithPictures />;
  return isUntouched(project) ? (
    <Shapes />
  ) : (
    <FirstSteps screens={project.screens.length} controls={project.screens.some(({ elements }) => elements.length > 0)} />
  );
}

/** What the app is called, and shapes to begin with; or what to do without one. */
function Shapes() {
  const { project, apply } = useDocument();
  const say = useNotices((n) => n.say);
  const open = useSheets((s) => s.open);
  const [name, setName] = useState(project.name);
  const called = name.trim();
  const begin = (shape: Pattern) => {
    const named = { ...project, name: called || project.name };
    const made = putPattern(named, shape, project.root);
    if (!made.ok) return;
    apply(difference(project, made.project, `Begin with “${shape.name}”`));
    say(`${shape.name}: ready to walk. Rename what you like; Undo takes it back.`);
  };
  return (
    <section aria-label="Start here" className="absolute inset-x-3 bottom-12 max-h-[78%] overflow-y-auto border-accent border-l-2 bg-paper/95 py-1 pl-4">
      <label className="flex items-center gap-2 text-[13px]">
        What is the app called?
        <input
          aria-label="What is the app called?"
          value={name}
          onChange={(event) => setName(event.target.value)}
          onBlur={() => called !== "" && called !== project.name && apply(changeProject({ name: called }))}
          className="h-7 w-48 border border-hairline bg-sheet px-2 text-[13px]"
        />
      </label>
      <h2 className="caption m-0 mt-2 mb-1 text-[13px]">Begin with a shape</h2>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(172px,1fr))] gap-2">
        {PATTERNS.filter(({ shape }) => shape).map((shape) => (
          <button
            key={shape.id}
            type="button"
            title={shape.says}
            className="flex flex-col border border-hairline bg-sheet p-1.5 text-left hover:border-accent"
            onClick={() => begin(shape)}
          >
            <ShapePicture shape={shape} />
            <span className="mt-1 font-semibold text-[12.5px]">{shape.name}</span>
          </button>
        ))}
      </div>
      <p className="m-0 mt-2 text-[12.5px] text-ink-2">
        Or type the first screen at the left and press Enter; or a line such as{" "}
        <code className="font-mono text-[12px]">Plots: Plot list &gt; Plot, New plot &gt; New plot (sheet)</code>; or paste many lines; or drop pictures of your
        screens here.{" "}
        <button type="button" className="font-semibold text-accent hover:underline" onClick={() => open({ is: "patterns" })}>
          More patterns…
        </button>
      </p>
    </section>
  );
}

/** The map of a shape, as names. */
function ShapePicture({ shape }: { shape: Pattern }) {
  const drawn = useMemo(() => {
    const made = putPattern(emptyProject("App"), shape, "home");
    if (!made.ok) return undefined;
    const layout = layoutFar(made.project, "names", ROOM, true);
    return {
      width: layout.width,
      height: Math.max(ROOM.height, layout.height),
      marks: [
        ...layout.bands.map((band, index) => bandMark(band, { index, size: layout.size })),
        ...layout.spines.map((spine) => spineMark(spine, layout)),
        ...innerMarks(made.project, layout),
        ...(layout.launch ? [launchMark(layout.launch, layout.form === "columns" ? 17 : 11)] : []),
        ...layout.cards.map((card) => nameMark(card, layout)),
      ],
    };
  }, [shape]);
  if (!drawn) return null;
  return (
    <svg
      className="m pointer-events-none block h-[100px] w-full"
      viewBox={`0 8 ${drawn.width} ${drawn.height}`}
      preserveAspectRatio="xMinYMin meet"
      aria-hidden="true"
    >
      {drawn.marks.map((mark, i) => (
        <MarkView key={mark.key ?? i} mark={{ ...mark, attrs: { ...mark.attrs, "data-card": undefined, "data-place": undefined, "data-band": undefined } }} />
      ))}
    </svg>
  );
}

/** What to do with pictures that nothing leads from yet. */
function WithPictures() {
  const session = useSession();
  return (
    <div className="absolute bottom-16 left-6 flex max-w-[46ch] items-center gap-3 border-accent border-l-2 bg-paper/95 py-2 pr-3 pl-4 text-[13px]">
      <span>Drag over a button in a picture, name it and say where it leads. Then tap it on the device.</span>
      <Button tone="main" onClick={() => session.go("pictures")}>
        Draw areas
      </Button>
    </div>
  );
}

/** What to do while nothing leads anywhere yet. */
function FirstSteps({ screens, controls }: { screens: number; controls: boolean }) {
  const done = [screens > 1, controls];
  const at = done.indexOf(false);
  const tone = (step: number) => (done[step] ? "line-through" : step === (at < 0 ? done.length : at) ? "text-ink" : "");
  return (
    <ol className="absolute bottom-16 left-16 m-0 max-w-md list-none border-l-2 border-accent p-0 pl-4 text-[13.5px] leading-7 text-ink-2">
      <li className={tone(0)}>Add the next screen: type its name at the left and press Enter.</li>
      <li className={tone(1)}>Pick a screen and give it a button, at the left below.</li>
      <li className={tone(2)}>Drag from the button to where it leads, or press L and type. Then tap it on the device.</li>
    </ol>
  );
}
