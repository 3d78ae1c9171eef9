import { useEffect, useMemo, useState } from "react";
import { changeArea, putPicture, removeArea, removePicture } from "../../../core/model/edits/pictures.ts";
import { lookup } from "../../../core/model/lookup.ts";
import { pictureFor } from "../../../core/model/pictures.ts";
import type { Area, Picture, Project, Screen } from "../../../core/model/schema.ts";
import type { Luma, Rect } from "../../../core/pictures/snap.ts";
import { choosePictures } from "../../session/actions/takingPictures.ts";
import { useDark, useDocument, usePictures, usePictureUrls, useSelection, useSession, useWalkState } from "../../session/hooks.ts";
import { placeOf } from "../../session/selection.ts";
import { Button } from "../../ui/Button.tsx";
import { Check } from "../../ui/Field.tsx";
import { useSize } from "../../ui/useSize.ts";
import { PictureWorkers } from "../../worker/pictures.ts";
import { AreaList } from "./AreaList.tsx";
import { Filmstrip } from "./Filmstrip.tsx";
import { areaEdit } from "./makeArea.ts";
import { PictureStage } from "./PictureStage.tsx";

/** Pixels around a picture in its room. */
const MARGIN = 22;

/** The pictures of the screens, and on the chosen one the areas that stand for its controls. */
export function PicturesPanel() {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const { selected } = useSelection();
  const screen = lookup(project).screens.get(placeOf(project, selected) ?? "") ?? project.screens.find((s) => s.pictures) ?? project.screens[0];
  const any = project.screens.some((s) => s.pictures);
  return (
    <section aria-label="Pictures" className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_auto] bg-paper">
      {screen?.pictures ? (
        <OneScreen key={screen.id} project={project} screen={screen} pictures={screen.pictures} />
      ) : (
        <div className="flex flex-col items-start justify-center gap-3 px-10">
          <h2 className="caption m-0 text-[20px]">{any && screen ? `“${screen.name}” has no picture` : "Put pictures of your screens here"}</h2>
          <p className="m-0 max-w-[52ch] text-[13.5px] text-ink-2">
            {any
              ? "Drop its picture here or onto the screen in the map, or choose the file. Until then it is drawn as a sketch."
              : "Drop them anywhere on this page, one or fifty, or paste one: each becomes a screen named for its file, or the picture of the screen that has its name. Then drag over what people tap, say what it is and where it leads, and walk through it at the right."}
          </p>
          <Button tone="main" onClick={() => void choosePictures(session, any ? { onto: screen?.id } : {})}>
            Choose pictures…
          </Button>
          <p className="m-0 text-[12px] text-ink-2">
            PNG, JPEG, WebP or AVIF, at most 4 MiB and 4,096 pixels a side. Names such as “Home dark” or “Home wide” make a second picture of “Home”.
          </p>
        </div>
      )}
      {any && <Filmstrip project={project} screen={screen?.id} />}
    </section>
  );
}

function OneScreen({ project, screen, pictures }: { project: Project; screen: Screen; pictures: Picture[] }) {
  const session = useSession();
  const { apply } = useDocument();
  const urls = usePictureUrls();
  const dark = useDark();
  const width = useWalkState()?.width ?? "narrow";
  const [file, setFile] = useState<string>();
  const picture = pictures.find((p) => p.file === file) ?? pictureFor(screen, { width, dark }) ?? pictures[0];
  const [chosen, setChosen] = useState<number>();
  const [asked, setAsked] = useState<Rect>();
  const [snap, setSnap] = useState(true);
  const [wide, setWide] = useState(false);
  const [alone, setAlone] = useState(false);
  const [room, measured] = useSize();
  const luma = useLuma(picture?.file);
  if (!picture) return null;
  const url = urls.url(picture.file);
  const area = chosen === undefined ? undefined : picture.areas[chosen];
  const change = (was: Area, next: Area) => apply(changeArea(project, screen.id, picture, was, next, alone));
  const remove = (one: Area) => {
    setChosen(undefined);
    apply(removeArea(project, screen.id, picture, one, alone));
  };
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hairline bg-sheet px-9 py-1.5 text-[12px]">
        <h2 className="m-0 max-w-48 truncate font-semibold text-[13.5px]">{screen.name || screen.id}</h2>
        <Variants pictures={pictures} picture={picture} onChoose={setFile} />
        <span className="ml-auto flex items-center gap-1">
          <Button
            tone="quiet"
            onClick={() => void choosePictures(session, { onto: screen.id, instead: picture.file })}
            title="A new version of this picture; its areas stay"
          >
            Replace…
          </Button>
          <Button tone="quiet" onClick={() => apply(removePicture(project, screen.id, picture.file))}>
            Delete picture
          </Button>
        </span>
      </header>
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_212px]">
        <div ref={room as React.RefObject<HTMLDivElement | null>} className="flex min-h-0 items-start justify-center overflow-auto p-[22px]">
          {url === undefined ? (
            <p className="m-auto max-w-[40ch] text-center text-[13px] text-ink-2">
              The file “{picture.file}” is not here. Drop it onto this screen again; its{" "}
              {picture.areas.length === 1 ? "area stays" : `${picture.areas.length} areas stay`}.
            </p>
          ) : (
            <PictureStage
              project={project}
              screen={screen.id}
              picture={picture}
              url={url}
              luma={luma}
              snap={snap}
              chosen={chosen}
              onChoose={setChosen}
              asked={asked}
              onDrawn={setAsked}
              onMake={(rect, what) => {
                setAsked(undefined);
                apply(areaEdit(session, project, screen.id, picture, rect, what));
                // What is drawn next is chosen again; the screen stays.
                session.selection.getState().select({ kind: "place", id: screen.id });
              }}
              onChange={(was, rect) => change(was, { ...was, at: rect })}
              onRemove={remove}
              size={sizeIn(picture, measured, wide)}
              room={measured?.width ?? 0}
            />
          )}
        </div>
        <div className="min-h-0 overflow-y-auto border-l border-hairline bg-sheet p-3 text-[12.5px]">
          <AreaList
            project={project}
            screen={screen.id}
            picture={picture}
            chosen={chosen}
            area={area}
            alone={alone}
            onAlone={setAlone}
            onChoose={setChosen}
            onChange={change}
            onRemove={remove}
            onPlace={(control) => apply(areaEdit(session, project, screen.id, picture, middleOf(picture), { control, within: undefined }))}
          />
          <div className="mt-3 border-t border-hairline pt-2">
            <Check label="Snap to edges of the picture" value={snap} onChange={setSnap} />
            <Check label="As wide as there is room" value={wide} onChange={setWide} />
            <PictureOptions project={project} screen={screen} picture={picture} />
          </div>
        </div>
      </div>
    </div>
  );
}

/** Which picture of the screen it is, where there are several. */
function Variants({ pictures, picture, onChoose }: { pictures: readonly Picture[]; picture: Picture; onChoose: (file: string) => void }) {
  if (pictures.length < 2) return <span className="text-ink-2">{variantName(picture)}</span>;
  return (
    <span role="radiogroup" aria-label="Picture" className="flex gap-1">
      {pictures.map((one) => (
        <button
          key={one.file}
          type="button"
          role="radio"
          aria-checked={one === picture}
          className={`min-h-6 border px-2 text-[11.5px] ${one === picture ? "border-accent bg-accent-soft font-semibold" : "border-hairline text-ink-2 hover:text-ink"}`}
          onClick={() => onChoose(one.file)}
        >
          {variantName(one)}
        </button>
      ))}
    </span>
  );
}

function variantName({ for: width, dark }: Picture): string {
  return [width ?? "any width", ...(dark ? ["dark"] : [])].join(", ");
}

function PictureOptions({ project, screen, picture }: { project: Project; screen: Screen; picture: Picture }) {
  const apply = useDocument((d) => d.apply);
  const change = (next: Picture) => apply(putPicture(project, screen.id, next, picture.file));
  const { for: width, dark: _, ...rest } = picture;
  const select = "h-6 min-w-0 flex-1 border border-hairline bg-paper text-[12px] text-ink";
  const row = "mt-1.5 flex items-center gap-2 text-[11.5px] text-ink-2";
  return (
    <>
      <label className={row}>
        Shows
        <select
          aria-label="What the picture shows"
          className={select}
          value={picture.holds}
          onChange={(event) => change({ ...picture, holds: event.target.value as Picture["holds"] })}
        >
          <option value="screen">the whole screen</option>
          <option value="body">what is between bars</option>
        </select>
      </label>
      <label className={row}>
        For
        <select
          aria-label="Widths that the picture is for"
          className={select}
          value={width ?? ""}
          onChange={(event) =>
            change({
              ...rest,
              ...(event.target.value ? { for: event.target.value as NonNullable<Picture["for"]> } : {}),
              ...(picture.dark ? { dark: true } : {}),
            })
          }
        >
          <option value="">any width</option>
          <option value="narrow">narrow</option>
          <option value="middle">middle</option>
          <option value="wide">wide</option>
        </select>
      </label>
      <Check
        label="For the dark"
        value={picture.dark === true}
        onChange={(on) => change({ ...rest, ...(width ? { for: width } : {}), ...(on ? { dark: true } : {}) })}
      />
      <p className="m-0 mt-1 truncate font-mono text-[10.5px] text-ink-2" title={picture.file}>
        {picture.file} · {picture.size[0]} × {picture.size[1]}
      </p>
    </>
  );
}

/** Brightness of the picture, to find its edges by; made off the main thread, and forgotten with the picture. */
function useLuma(file: string | undefined): Luma | undefined {
  const bytes = usePictures((p) => (file === undefined ? undefined : p.rows?.get(file)?.bytes));
  const [luma, setLuma] = useState<{ of: Blob; luma: Luma | undefined }>();
  useEffect(() => {
    if (!bytes) return;
    const workers = new PictureWorkers();
    void workers.luma(bytes).then((made) => setLuma({ of: bytes, luma: made }));
    return () => workers.close();
  }, [bytes]);
  return useMemo(() => (luma && luma.of === bytes ? luma.luma : undefined), [luma, bytes]);
}

function sizeIn({ size: [width, height] }: Picture, room: { width: number; height: number } | undefined, wide: boolean): { width: number; height: number } {
  const [w, h] = [Math.max(80, (room?.width ?? 400) - 2 * MARGIN), Math.max(80, (room?.height ?? 500) - 2 * MARGIN)];
  const scale = wide ? w / width : Math.min(w / width, h / height);
  return { width: Math.round(width * scale), height: Math.round(height * scale) };
}

function middleOf({ size: [width, height] }: Picture): Rect {
  const [w, h] = [Math.round(width * 0.4), Math.round(height * 0.08)];
  return [Math.round((width - w) / 2), Math.round((height - h) / 2), w, h];
}
