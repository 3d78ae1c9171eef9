import { type Clip, clipSays, copied, readClip } from "../../../core/model/edits/clip.ts";
import { paste, pasted } from "../../../core/model/edits/paste.ts";
import { lookup } from "../../../core/model/lookup.ts";
import { type Context, contextOf } from "../context.ts";
import type { Session } from "../session.ts";

/** What is chosen, as text for the system's clipboard; undefined where nothing is. */
export function textOfChosen({ session, project, chosen }: Context): string | undefined {
  if (chosen.length === 0) return undefined;
  return JSON.stringify({ ...copied(project, chosen), from: session.id });
}

export function sayCopied({ session, project, chosen }: Context) {
  session.notices.getState().say(`Copied ${clipSays(copied(project, chosen))}. Paste it into any container, onto any screens, or into another project.`);
}

/** Pastes a clip's text where something is chosen, chooses what came, and says what could not stay as it was. */
export function pasteText(text: string, context: Context) {
  const read = readClip(text);
  const { say } = context.session.notices.getState();
  if (!read.ok) {
    say(read.message);
    return;
  }
  const { clip } = read;
  const pictured = clip.from !== context.session.id && clip.document.screens.some((screen) => screen.pictures);
  if (!pictured) return put(context, clip, context.places, "Pasted");
  const bring = async () => {
    const { withPicturesHere } = await import("./clipPictures.ts");
    const brought = await withPicturesHere(context.session, clip);
    put(contextOf(context.session), brought.clip, context.places, "Pasted", brought.says);
  };
  void bring().catch((error: unknown) => say("Nothing was pasted.", [error instanceof Error ? error.message : String(error)]));
}

/** A second copy of what is chosen, beside it. */
export function duplicate(context: Context) {
  const clip = copied(context.project, context.chosen);
  put(context, clip, clip.places.length > 0 ? besides(context, clip.places[0]) : context.places, "Duplicated");
}

/** A duplicate stands beside the original and never inside it. */
function besides({ project }: Context, id: string | undefined): string[] {
  const owner = lookup(project).owners.get(id ?? "");
  return owner ? [owner.id] : [];
}

function put(context: Context, clip: Clip, onto: string[], word: "Pasted" | "Duplicated", more: readonly string[] = []) {
  const result = pasted(context.project, clip, onto);
  context.apply(paste(clip, onto, word === "Pasted" ? "Paste" : "Duplicate"));
  context.session.selection.getState().selectAll(result.chosen);
  context.session.notices.getState().say(`${word} ${clipSays(clip)}.`, [...result.says, ...more]);
}

/** Listens to the system's copy, cut and paste outside of fields; gives what stops listening. */
export function listenToClipboard(session: Session): () => void {
  const inField = (event: Event) => event.target instanceof Element && event.target.closest("input, textarea, select, [role=dialog]") !== null;
  const onCopy = (event: ClipboardEvent) => {
    const context = contextOf(session);
    const text = inField(event) || (getSelection()?.toString() ?? "") !== "" ? undefined : textOfChosen(context);
    if (text === undefined) return;
    event.preventDefault();
    event.clipboardData?.setData("text/plain", text);
    if (event.type === "cut") session.sheets.getState().open({ is: "delete", asked: context.chosen });
    else sayCopied(context);
  };
  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData?.getData("text/plain") ?? "";
    if (inField(event) || text === "") return;
    event.preventDefault();
    pasteText(text, contextOf(session));
  };
  document.addEventListener("copy", onCopy);
  document.addEventListener("cut", onCopy);
  document.addEventListener("paste", onPaste);
  return () => {
    document.removeEventListener("copy", onCopy);
    document.removeEventListener("cut", onCopy);
    document.removeEventListener("paste", onPaste);
  };
}
