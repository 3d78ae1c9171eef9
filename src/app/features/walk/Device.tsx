import { Suspense } from "react";
import { modalOf } from "../../../core/model/lookup.ts";
import type { Project, Width } from "../../../core/model/schema.ts";
import { currentScreen } from "../../../core/semantics/state.ts";
import type { State } from "../../../core/semantics/types.ts";
import { Later, preload } from "../../ui/preloaded.tsx";
import { Page } from "./Page.tsx";
import type { Hands } from "./useHands.ts";
import { type Shows, usePicture } from "./usePicture.ts";

const AddressBar = preload(async () => (await import("./AddressBar.tsx")).AddressBar);
const LayerView = preload(async () => (await import("./LayerView.tsx")).LayerView);

/** The size of the drawn device in its own pixels. */
export const SIZES: Record<Width, { width: number; height: number }> = {
  narrow: { width: 232, height: 450 },
  middle: { width: 520, height: 640 },
  wide: { width: 800, height: 620 },
};

interface Props {
  project: Project;
  state: State;
  hands: Hands;
  /** Pixels that it may be wide. */
  room: number;
  /** Pixels that it may be high, where it fills what there is: it is then drawn larger or smaller, and as long as fits. */
  fill?: number;
}

/** Pixels of the device around what it shows. */
const FRAME = 22;
/** The most that a device is drawn longer for a picture. */
const LONGEST = 1.2;

/** How large the device is that shows a state, in its own pixels. */
export function useDeviceSize(project: Project, state: State): { width: number; height: number } {
  const { width, height } = SIZES[state.width];
  return { width, height: heightFor(usePicture(project, state, 0), state.width, height) };
}

/** A narrow device has the shape of the picture that it shows, within reason. */
function heightFor(shows: Shows | undefined, width: Width, usual: number): number {
  if (!shows || width !== "narrow" || shows.picture.holds !== "screen") return usual;
  const [w, h] = shows.picture.size;
  return Math.round(Math.max(usual, Math.min(usual * LONGEST, ((SIZES.narrow.width - FRAME) * h) / w + FRAME)));
}

/** A device of no platform on which the app runs: drawn from the document, tapped like the real thing. */
export function Device({ project, state, hands, room, fill }: Props) {
  const { width, height: usual } = useDeviceSize(project, state);
  const scale = fill === undefined ? Math.min(1, room / width) : room / width;
  const height = fill === undefined ? usual : fill / scale;
  // Beneath a layer that does not block, what can be used is used; a tap on free ground is a tap outside.
  const tapOutside = (event: React.MouseEvent) => {
    const top = modalOf(project, state.layers.at(-1)?.at ?? "");
    if (!top || top.blocks || !top.closeOn.includes("outside") || !(event.target instanceof Element)) return;
    if (!event.target.closest("button, input, label, [data-layer]")) hands.send({ do: "close", via: "outside" });
  };
  return (
    <div style={{ width: width * scale, height: height * scale }} data-testid="device" data-screen={currentScreen(state).at}>
      <div
        className={`device relative flex origin-top-left flex-col overflow-hidden bg-paper ${fill === undefined ? "rounded-[14px] border-2 border-ink p-2" : ""}`}
        style={{ width, height, transform: `scale(${scale})` }}
      >
        {state.width === "wide" && (
          <Suspense>
            <Later part={AddressBar} project={project} state={state} onGo={hands.goTo} />
          </Suspense>
        )}
        <div className="relative min-h-0 flex-1 overflow-hidden rounded-[4px] border border-hairline bg-sheet" onClick={tapOutside}>
          <Page project={project} state={state} branch={0} hands={hands} />
          {state.layers.map((layer, i) => (
            <Suspense key={`${layer.at} ${i + 1}`}>
              <Later part={LayerView} project={project} state={state} layer={layer} branch={i + 1} hands={hands} />
            </Suspense>
          ))}
        </div>
      </div>
    </div>
  );
}
