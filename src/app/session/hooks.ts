import { createContext, useContext, useEffect, useSyncExternalStore } from "react";
import { createStore, type StoreApi, useStore } from "zustand";
import type { State } from "../../core/semantics/types.ts";
import type { PictureUrls } from "./pictures.ts";
import type { Session } from "./session.ts";
import { stateOfWalk, type WalkState } from "./walk.ts";

export const SessionContext = createContext<Session | undefined>(undefined);
/** The walk by itself, for a page that runs an app without a project to edit. */
export const WalkContext = createContext<StoreApi<WalkState> | undefined>(undefined);

/** Where the pictures of screens are, for every page that draws them; without one they are drawn as sketches. */
export const PicturesContext = createContext<StoreApi<PictureUrls> | undefined>(undefined);

/** The open project. Throws outside of a project's route. */
export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error("useSession: this part of the page belongs to an open project.");
  return session;
}

/** The store of the walk that the page is about. */
export function useWalkStore(): StoreApi<WalkState> {
  const walk = useContext(WalkContext);
  if (!walk) throw new Error("useWalkStore: this part of the page belongs to a walk.");
  return walk;
}

interface Hook<S> {
  (): S;
  <T>(select: (state: S) => T): T;
}

/** A hook that reads a store whole or by a selector. */
function hookFor<S>(storeOf: () => StoreApi<S>): Hook<S> {
  const read = <T>(select?: (state: S) => T): S | T => useStore(storeOf(), (state) => (select ? select(state) : state));
  return read as Hook<S>;
}

export const useDocument = hookFor(() => useSession().document);
export const useFindings = hookFor(() => useSession().findings);
export const useSelection = hookFor(() => useSession().selection);
export const useLensing = hookFor(() => useSession().lensing);
export const useSeeing = hookFor(() => useSession().seeing);
export const useFocus = hookFor(() => useSession().focus);
export const useNotices = hookFor(() => useSession().notices);
/** Takes away what was said before, which would lie over a panel that opens now. */
export function useHush() {
  const hush = useNotices((n) => n.close);
  useEffect(hush, [hush]);
}
export const useRenaming = hookFor(() => useSession().renaming);
export const useTrying = hookFor(() => useSession().trying);
export const useSheets = hookFor(() => useSession().sheets);
export const useFollowing = hookFor(() => useSession().following);
export const usePointing = hookFor(() => useSession().pointing);
export const usePictures = hookFor(() => useSession().pictures);
export const useWalk = hookFor(useWalkStore);

/** The state that the device shows. */
export function useWalkState(): State | undefined {
  return useWalk(stateOfWalk);
}

const NO_PICTURES: StoreApi<PictureUrls> = createStore<PictureUrls>(() => ({ url: () => undefined, thumb: () => undefined }));

/** The addresses of pictures. */
export function usePictureUrls(): PictureUrls {
  return useStore(useContext(PicturesContext) ?? NO_PICTURES);
}

function watchTheme(changed: () => void): () => void {
  const watcher = new MutationObserver(changed);
  watcher.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
  return () => watcher.disconnect();
}

/** Whether the page is dark, and so what it draws of an app. */
export function useDark(): boolean {
  return useSyncExternalStore(watchTheme, () => document.documentElement.dataset.theme === "dark");
}
