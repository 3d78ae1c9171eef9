import { rawStorage } from "../session/storage/raw.ts";
import { save } from "../ui/download.ts";

/** Downloads what the browser keeps of the project at the page's address, or of all projects, as it is. */
export async function saveRaw() {
  const project = /^\/p\/([^/]+)/.exec(location.pathname)?.[1];
  const text = await rawStorage(project && decodeURIComponent(project));
  if (text !== undefined) save("etape-storage.json", text, "application/json");
}
