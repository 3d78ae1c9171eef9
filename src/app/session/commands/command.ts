import type { Context } from "../context.ts";

export type Group = "Make" | "Arrange" | "Look" | "Walk" | "Document";

/** Something that can be done by key or by name. */
export interface Command {
  id: string;
  name: string;
  /** Other words that people use for it: typed into the palette they find it. */
  words?: readonly string[];
  /** The key, as the key binding takes it; several are alternatives. */
  keys?: readonly string[];
  /** The key as people read it. */
  shown?: string;
  group: Group;
  /** Whether it works wherever the focus is, in a field and over a sheet too. */
  everywhere?: boolean;
  /** Whether it can be done now. */
  can?: (context: Context) => boolean;
  run: (context: Context) => void | Promise<void>;
}
