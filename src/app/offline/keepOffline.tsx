import { createRoot, type Root } from "react-dom/client";
import { Workbox } from "workbox-window";
import { NewVersion } from "./NewVersion.tsx";

/** Milliseconds between two looks for a new version while a page stays open. */
const LOOK_AGAIN = 60 * 60 * 1000;

/**
 * Keeps the application's files in the browser, so that it opens and works without its server, and tells of a new version. Where the
 * browser has no service workers, or may not use them, everything works as long as the server does.
 */
export async function keepOffline() {
  if (!("serviceWorker" in navigator)) return;
  const worker = new Workbox("/service-worker.js");
  const place = new Place();
  let taken = false;
  worker.addEventListener("waiting", () =>
    place.tell(() => {
      taken = true;
      worker.messageSkipWaiting();
    }),
  );
  worker.addEventListener("controlling", ({ isUpdate, isExternal }) => {
    if (taken) location.reload();
    // Another window took the new version: the parts that this page has not loaded yet are gone.
    else if (isUpdate || isExternal) place.tell(() => location.reload());
  });
  try {
    await worker.register();
    setInterval(() => void worker.update().catch(() => undefined), LOOK_AGAIN);
  } catch {
    // Refused (a private window, a policy): the page works as before.
  }
}

/** Where the news stands: beside everything that the page draws. */
class Place {
  private root: Root | undefined;

  tell(onUse: () => void) {
    this.root ??= createRoot(document.body.appendChild(document.createElement("div")));
    this.root.render(<NewVersion onUse={onUse} onLater={() => this.root?.render(null)} />);
  }
}
