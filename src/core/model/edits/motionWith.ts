import type { Leg, Motion } from "../schema.ts";

/** A leg’s motion (else the usual one) with other carried elements. */
export function motionWith(leg: Leg, usual: Motion | undefined, carries: NonNullable<Motion["carries"]>): Motion {
  const { carries: _, ...rest } = leg.motion ?? usual ?? { kind: "fade" as const };
  return carries.length > 0 ? { ...rest, carries } : rest;
}
