import { memo, useMemo } from "react";
import { faceMark, nameMark } from "../../../core/map/draw/card.ts";
import { flowMark, innerMarks } from "../../../core/map/draw/far.ts";
import { bandMark, rulerMarks, spineMark } from "../../../core/map/draw/ground.ts";
import type { Look } from "../../../core/map/draw/look.ts";
import { faceOf } from "../../../core/map/face.ts";
import { launchMark } from "../../../core/map/farSvg.ts";
import { flowsOf } from "../../../core/map/flows.ts";
import type { InFocus } from "../../../core/map/focus.ts";
import type { End } from "../../../core/map/form.ts";
import type { Line } from "../../../core/map/lines.ts";
import type { Box, Card, MapLayout } from "../../../core/map/types.ts";
import { nameOf, ownersAround } from "../../../core/model/lookup.ts";
import { pictureFor } from "../../../core/model/pictures.ts";
import type { Project } from "../../../core/model/schema.ts";
import type { Worst } from "../../session/findingWords.ts";
import { useDark, usePictureUrls } from "../../session/hooks.ts";
import type { PictureUrls } from "../../session/pictures.ts";
import { LineView } from "./LineView.tsx";
import { MarkView } from "./MarkView.tsx";
import { PointedLegs } from "./PointedLegs.tsx";
import { useGradually } from "./useGradually.ts";
import { meets } from "./useVisible.ts";

/** Faces that come into view in one frame. */
const FACES_A_FRAME = 5;
/** Names are drawn all at once up to so many; they are few marks each. */
const ALL_AT_ONCE = 400;

interface Props {
  project: Project;
  layout: MapLayout;
  /** Legs that are chosen, taken or in focus, in full. */
  routed: readonly Line[];
  drawn: Box;
  worst: ReadonlyMap<string, Worst>;
  lens: ReadonlyMap<string, Look["lens"]> | undefined;
  here: string | undefined;
  beneath: ReadonlySet<string>;
  selectedPlace: string | undefined;
  chosen: ReadonlySet<string>;
  focus: InFocus | undefined;
  /** Flows of this form of leg alone. */
  form: End | undefined;
  dropTarget: string | undefined;
  /** The place under the pointer. */
  pointed: string | undefined;
}

/** The map as faces or names. */
export function FarDrawing(props: Props) {
  const { project, layout, routed, drawn, worst, lens, here, beneath, selectedPlace, chosen, focus, dropTarget } = props;
  const few = layout.cards.length <= ALL_AT_ONCE && layout.drawing === "names";
  const wanted = useMemo(() => (few ? layout.cards : layout.cards.filter((card) => meets(card, drawn))).map(({ id }) => id), [few, layout, drawn]);
  const urls = usePictureUrls();
  const dark = useDark();
  const shown = useGradually(wanted, layout.drawing === "faces" ? FACES_A_FRAME : ALL_AT_ONCE);
  return (
    <>
      <Ground
        project={project}
        layout={layout}
        selected={[selectedPlace, dropTarget, ...chosen].filter((id) => id !== undefined).join(" ")}
        form={props.form}
        quiet={focus !== undefined}
      />
      <PointedLegs project={project} layout={layout} place={props.pointed ?? selectedPlace} />
      {routed.map((line) => (
        <LineView key={`focus ${line.leg.id}`} line={line} project={project} focus atStart={focus !== undefined} />
      ))}
      {layout.cards.map((card) =>
        shown.has(card.id) ? (
          <FarCard
            key={card.id}
            project={project}
            card={card}
            drawing={layout.drawing}
            picture={layout.drawing === "faces" ? thumbOf(urls, card, dark) : undefined}
            form={layout.form}
            size={layout.size}
            here={card.id === here}
            beneath={card.id !== here && beneath.has(card.id)}
            selected={selectedPlace === card.id || chosen.has(card.id)}
            faint={focus !== undefined && !focus.places.has(card.id)}
            drop={dropTarget === card.id}
            severity={lens ? undefined : worst.get(card.id)?.severity}
            count={lens ? 0 : (worst.get(card.id)?.count ?? 0)}
            tone={lens?.get(card.id)?.tone}
            says={lens?.get(card.id)?.says}
            long={lens?.get(card.id)?.long}
          />
        ) : null,
      )}
    </>
  );
}

/** The small picture that a face shows. */
function thumbOf(urls: PictureUrls, { screen }: Card, dark: boolean): string | undefined {
  const picture = pictureFor(screen, { width: "narrow", dark });
  return picture && urls.thumb(picture.file);
}

interface CardProps {
  project: Project;
  card: Card;
  drawing: MapLayout["drawing"];
  /** The address of the screen's picture. */
  picture: string | undefined;
  form: MapLayout["form"];
  size: number;
  here: boolean;
  beneath: boolean;
  selected: boolean;
  faint: boolean;
  drop: boolean;
  severity: Worst["severity"] | undefined;
  count: number;
  tone: NonNullable<Look["lens"]>["tone"] | undefined;
  says: string | undefined;
  long: string | undefined;
}

const FarCard = memo(
  function FarCard({ project, card, drawing, picture, form, size, severity, count, tone, says = "", long = "", ...flags }: CardProps) {
    const look: Look = { ...flags, ...(severity ? { worst: { severity, count } } : {}), ...(tone ? { lens: { tone, says, long } } : {}) };
    const mark =
      drawing === "faces"
        ? faceMark(card, picture === undefined ? faceOf(project, card.screen) : { picture }, size, look)
        : nameMark(card, { form, size }, look);
    return <MarkView mark={mark} />;
  },
  (a, b) => (Object.keys(a) as Array<keyof CardProps>).every((key) => a[key] === b[key] || (key === "project" && (a.drawing === "names" || sameFace(a, b)))),
);

/** The project matters to a face by the containers around its screen, which share tabs and elements, and by sample rows. */
function sameFace(a: CardProps, b: CardProps): boolean {
  if (a.card.screen !== b.card.screen || a.project.types !== b.project.types) return false;
  const [was, is] = [ownersAround(a.project, a.card.id), ownersAround(b.project, b.card.id)];
  return was.length === is.length && was.every((container, i) => container === is[i]);
}

interface GroundProps {
  project: Project;
  layout: MapLayout;
  /** Ids of what is chosen. */
  selected: string;
  form: End | undefined;
  /** Something is in focus: flows step back. */
  quiet: boolean;
}

const Ground = memo(function Ground({ project, layout, selected, form, quiet }: GroundProps) {
  const chosen = new Set(selected.split(" "));
  const still = useMemo(
    () => ({
      flows: flowsOf(project, layout, { form }).flows.map((flow) => flowMark(flow, `${nameOf(project, flow.from)} to ${nameOf(project, flow.to)}`)),
      inner: innerMarks(project, layout),
    }),
    [project, layout, form],
  );
  return (
    <>
      {rulerMarks(layout).map((mark) => (
        <MarkView key={mark.key} mark={mark} />
      ))}
      {layout.bands.map((band, index) => (
        <MarkView key={band.id} mark={bandMark(band, { index, size: layout.size, selected: chosen.has(band.id) })} />
      ))}
      {layout.spines.map((spine) => (
        <MarkView key={`${spine.id} ${spine.x}`} mark={spineMark(spine, layout)} />
      ))}
      <g className="flows" opacity={quiet ? 0.3 : undefined}>
        {still.flows.map((mark) => (
          <MarkView key={mark.key} mark={mark} />
        ))}
      </g>
      {still.inner.map((mark) => (
        <MarkView key={mark.key} mark={mark} />
      ))}
      {layout.launch && <MarkView mark={launchMark(layout.launch, layout.form === "columns" ? 17 : 11)} />}
    </>
  );
});
