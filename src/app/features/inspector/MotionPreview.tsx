import { useRef } from "react";
import type { Motion } from "../../../core/model/schema.ts";
import { Button } from "../../ui/Button.tsx";

const OUT: Record<NonNullable<Motion["from"]>, string> = {
  start: "translateX(-100%)",
  end: "translateX(100%)",
  top: "translateY(-100%)",
  bottom: "translateY(100%)",
};

/** A small page on which the motion is played, there and back. */
export function MotionPreview({ motion }: { motion: Motion | undefined }) {
  const coming = useRef<HTMLDivElement>(null);
  const carried = useRef<HTMLDivElement>(null);
  const play = async () => {
    const page = coming.current;
    if (!page) return;
    page.style.visibility = "visible";
    const options = { duration: stillWanted() ? 0 : (motion?.ms ?? 260), easing: "ease-out", fill: "both" as const };
    const frames = framesOf(motion);
    await page.animate(frames, options).finished;
    carried.current?.animate([{ transform: "translate(0, 0)" }, { transform: "translate(18px, -40px) scale(1.4)" }], options);
    await pause(700);
    carried.current?.animate([{ transform: "translate(18px, -40px) scale(1.4)" }, { transform: "translate(0, 0)" }], options);
    await page.animate([...frames].reverse(), options).finished;
    page.style.visibility = "hidden";
  };
  return (
    <div className="flex items-end gap-3">
      <div className="relative h-[104px] w-[60px] shrink-0 overflow-hidden border border-ink bg-paper" aria-hidden>
        <p className="m-0 px-1 pt-1 text-[9px] text-ink-2">before</p>
        <div ref={coming} className="invisible absolute inset-0 border-l-2 border-accent bg-accent-soft">
          <p className="m-0 px-1 pt-1 text-[9px] text-accent">after</p>
        </div>
        {motion?.carries && motion.carries.length > 0 && <div ref={carried} className="absolute bottom-3 left-2 h-3 w-3 bg-accent" />}
      </div>
      <Button onClick={() => void play()}>Play it, there and back</Button>
    </div>
  );
}

function framesOf(motion: Motion | undefined): Keyframe[] {
  switch (motion?.kind) {
    case "slide":
      return [{ transform: OUT[motion.from ?? "end"] }, { transform: "none" }];
    case "rise":
      return [{ transform: OUT[motion.from ?? "bottom"] }, { transform: "none" }];
    case "fade":
      return [{ opacity: 0 }, { opacity: 1 }];
    case "grow":
      return [
        { transform: "scale(0.82)", opacity: 0 },
        { transform: "none", opacity: 1 },
      ];
    case "none":
    case undefined:
      return [{ opacity: 1 }, { opacity: 1 }];
  }
}

const stillWanted = () => matchMedia("(prefers-reduced-motion: reduce)").matches;
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));
