import type { PictureKind } from "../../core/pictures/header.ts";
import type { Luma } from "../../core/pictures/snap.ts";

/** What a worker is asked of a picture: to look at it and make it small, or how bright it is where. */
export interface PictureRequest {
  id: number;
  is: "prepare" | "luma" | "shrink";
  file: Blob;
  /** Pixels that a picture may be wide when it is made smaller. */
  width?: number;
}
export interface Prepared {
  kind: PictureKind;
  size: [width: number, height: number];
  thumb: Blob;
}
export type PictureAnswer = { id: number } & (
  | ({ is: "prepared" } & Prepared)
  | { is: "refused"; message: string }
  | ({ is: "luma" } & Luma)
  | { is: "shrunk"; address: string }
);
