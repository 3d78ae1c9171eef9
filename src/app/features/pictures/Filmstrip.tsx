import { useEffect, useRef } from "react";
import { pictureFor } from "../../../core/model/pictures.ts";
import type { Project } from "../../../core/model/schema.ts";
import { choosePictures } from "../../session/actions/takingPictures.ts";
import { useDark, usePictureUrls, useSelection, useSession } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

/** All screens with their pictures in one row, to go from one to the next. */
export function Filmstrip({ project, screen }: { project: Project; screen: string | undefined }) {
  const session = useSession();
  const select = useSelection((s) => s.select);
  const urls = usePictureUrls();
  const dark = useDark();
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    if (screen !== undefined) list.current?.querySelector('[aria-current="true"]')?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [screen]);
  return (
    <div className="flex items-stretch border-t border-hairline bg-sheet">
      <ul ref={list} className="m-0 flex min-w-0 flex-1 list-none gap-1.5 overflow-x-auto p-2" aria-label="Screens">
        {project.screens.map((one) => {
          const picture = pictureFor(one, { width: "narrow", dark });
          const thumb = picture && urls.thumb(picture.file);
          return (
            <li key={one.id} className="shrink-0 [content-visibility:auto]">
              <button
                type="button"
                aria-current={one.id === screen}
                title={one.name}
                className={`flex w-[62px] flex-col items-center p-1 ${one.id === screen ? "bg-accent-soft" : "hover:bg-band"}`}
                onClick={() => select({ kind: "place", id: one.id })}
              >
                <span
                  className={`flex h-[72px] w-[50px] items-center justify-center overflow-hidden rounded-[3px] border ${one.id === screen ? "border-accent" : "border-hairline"} bg-paper`}
                >
                  {thumb ? (
                    <img src={thumb} alt="" className="h-full w-full object-cover object-top" draggable={false} />
                  ) : (
                    <span className="text-[10px] text-ink-2">{picture ? "missing" : "sketch"}</span>
                  )}
                </span>
                <span className="w-full truncate text-center text-[10.5px]">{one.name || one.id}</span>
              </button>
            </li>
          );
        })}
      </ul>
      <div className="flex shrink-0 items-center border-l border-hairline px-2">
        <Button onClick={() => void choosePictures(session)}>Add pictures…</Button>
      </div>
    </div>
  );
}
