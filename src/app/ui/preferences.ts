import * as z from "zod";
import { create } from "zustand";
import { FAR } from "../../core/check/options.ts";
import { DRAWINGS } from "../../core/map/types.ts";

/** The most taps that a screen may be away before it is far. */
export const MOST_FAR = 20;

const KEY = "etape-preferences";

const Kept = z.object({
  /** Pixels that a side is wide where it was dragged; else what it needs. */
  left: z.number().optional().catch(undefined),
  right: z.number().optional().catch(undefined),
  foldedLeft: z.boolean().catch(false),
  foldedRight: z.boolean().catch(false),
  /** Whether single letters are keys while the map, the outline or the device has the focus. */
  singleKeys: z.boolean().catch(true),
  /** Taps from launch beyond which a screen is far. */
  far: z.number().int().min(1).max(MOST_FAR).catch(FAR),
  /** How the map was drawn when it was last looked at. */
  drawing: z.enum(DRAWINGS).catch("rows"),
});
type Kept = z.infer<typeof Kept>;

interface Preferences extends Kept {
  set: (part: Partial<Kept>) => void;
  fold: (side: "left" | "right") => void;
}

/** What this browser keeps of how somebody likes to work, for all projects. */
export const usePreferences = create<Preferences>((set, get) => ({
  ...Kept.parse(stored()),
  set: (part) => {
    set(part);
    localStorage.setItem(KEY, JSON.stringify(Kept.parse(get())));
  },
  fold: (side) => get().set(side === "left" ? { foldedLeft: !get().foldedLeft } : { foldedRight: !get().foldedRight }),
}));

function stored(): unknown {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "{}") ?? {};
  } catch {
    return {};
  }
}
