import { usePreferences } from "../../ui/preferences.ts";
import { sendMoving } from "../actions/play.ts";
import type { Context } from "../context.ts";
import type { View } from "../session.ts";
import type { Command } from "./command.ts";

const goTo =
  (view: View) =>
  ({ session }: Context) =>
    session.go(view);

/** What moves the walk, goes to another view, or is about the document as a whole. */
export const WALK_AND_DOCUMENT: readonly Command[] = [
  {
    id: "restart",
    group: "Walk",
    name: "From the start again",
    words: ["restart", "reset", "relaunch"],
    keys: ["r"],
    shown: "R",
    run: ({ session }) => session.walk.getState().restart(),
  },
  {
    id: "deviceBack",
    group: "Walk",
    name: "Back on the device",
    words: ["system back", "pop"],
    keys: ["b"],
    shown: "B",
    run: ({ session }) => void sendMoving(session.walk, { do: "back" }),
  },
  { id: "stepBack", group: "Walk", name: "A step back", keys: ["["], shown: "[", run: ({ session }) => step(session, -1) },
  { id: "stepOn", group: "Walk", name: "A step on", keys: ["]"], shown: "]", run: ({ session }) => step(session, 1) },

  { id: "map", group: "Document", name: "Go to the map", words: ["view", "graph", "canvas"], run: goTo("map") },
  {
    id: "walk",
    group: "Document",
    name: "Go to the walk on the whole window",
    words: ["view", "full screen", "device", "preview", "play", "prototype", "try"],
    run: goTo("walk"),
  },
  {
    id: "pictures",
    group: "Document",
    name: "Go to the pictures",
    words: ["view", "images", "screenshots", "faces", "areas", "hotspots", "mockups"],
    run: goTo("pictures"),
  },
  {
    id: "addPictures",
    group: "Make",
    name: "Add pictures…",
    words: ["images", "screenshots", "import", "mockups", "screens from files"],
    run: ({ session }) => void import("../actions/takingPictures.ts").then(({ choosePictures }) => choosePictures(session)),
  },
  {
    id: "rules",
    group: "Document",
    name: "Go to the rules",
    words: ["view", "promises", "never", "first", "only", "within", "taps", "property", "requirement", "proof"],
    run: goTo("rules"),
  },
  {
    id: "parameters",
    group: "Document",
    name: "Go to the parameters",
    words: ["view", "arguments", "record types", "samples", "data", "rows"],
    run: goTo("parameters"),
  },
  {
    id: "handOff",
    group: "Document",
    name: "Go to the hand-off",
    words: ["view", "code", "export", "typescript", "kotlin", "swift", "diagram", "tests", "specification"],
    run: goTo("hand-off"),
  },
  {
    id: "copyLines",
    group: "Document",
    name: "Copy the project as lines",
    words: ["quick lines", "text", "tell", "outline", "clipboard"],
    run: (context) => void copyAsLines(context),
  },
  {
    id: "versions",
    group: "Document",
    name: "Go to the versions",
    words: ["history", "snapshots", "keep", "compare", "restore", "changes"],
    run: goTo("versions"),
  },
  { id: "projects", group: "Document", name: "All projects", words: ["home", "open", "import", "switch project"], run: goTo("projects") },
  {
    id: "undo",
    group: "Document",
    name: "Undo",
    words: ["take back"],
    keys: ["$mod+z"],
    shown: "Ctrl Z",
    run: ({ session }) => session.document.getState().undo(),
  },
  { id: "redo", group: "Document", name: "Redo", keys: ["$mod+Shift+z"], shown: "Ctrl Shift Z", run: ({ session }) => session.document.getState().redo() },
  {
    id: "palette",
    group: "Document",
    name: "Do or find anything by name",
    keys: ["$mod+k"],
    shown: "Ctrl K",
    everywhere: true,
    run: ({ session }) => session.sheets.getState().open({ is: "palette" }),
  },
  {
    id: "keys",
    group: "Document",
    name: "All keys",
    words: ["keyboard", "shortcuts", "help"],
    keys: ["Shift+?", "?"],
    shown: "?",
    run: ({ session }) => session.sheets.getState().open({ is: "keys" }),
  },
  {
    id: "singleKeys",
    group: "Document",
    name: "Single-letter keys on or off",
    words: ["keyboard", "shortcuts", "accessibility"],
    run: () => usePreferences.getState().set({ singleKeys: !usePreferences.getState().singleKeys }),
  },
  {
    id: "export",
    group: "Document",
    name: "Export the document",
    words: ["save", "download", "json", "file"],
    run: ({ session, project }) => void import("../actions/exporting.ts").then(({ exported }) => exported(session.id, project)),
  },
  {
    id: "keepInFile",
    group: "Document",
    name: "Keep in a file from now on…",
    words: ["save as", "bind", "disk", "file system", "autosave", "link to a file"],
    run: (context) => void keepInFile(context),
  },
];

function step(session: Context["session"], by: 1 | -1) {
  const { goTo, at } = session.walk.getState();
  goTo(at + by);
}

async function keepInFile({ session, project }: Context) {
  const { bindToFile } = await import("../file/choose.ts");
  const says = await bindToFile(session.id, project);
  if (says !== undefined) session.notices.getState().say(says);
}

/** Puts the project's quick lines on the clipboard, and says what they cannot tell. */
async function copyAsLines({ session, project }: Context) {
  const { lostInLines, toLines } = await import("../../../core/lines/tell.ts");
  const say = session.notices.getState().say;
  try {
    await navigator.clipboard.writeText(toLines(project));
    const lost = lostInLines(project);
    if (lost.length === 0) say("The project is on the clipboard as lines.");
    else say("The project is on the clipboard as lines, except for:", lost);
  } catch {
    say("The browser does not let Etape write to the clipboard. On the command line, “etape lines FILE” does the same.");
  }
}
