import { createContext, useContext } from "react";
import { type StoreApi, useStore } from "zustand";
import type { State } from "../../core/semantics/types.ts";
import type { Session } from "./session.ts";
import { stateOfWalk, type WalkState } from "./walk.ts";

export const SessionContext = createContext<Session | undefined>(undefined);
/** The walk by itself, for a page that runs an app without a project to edit. */
export const WalkContext = createContext<StoreApi<WalkState> | undefined>(undefined);

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
export const useRenaming = hookFor(() => useSession().renaming);
export const useTrying = hookFor(() => useSession().trying);
export const useSheets = hookFor(() => useSession().sheets);
export const useFollowing = hookFor(() => useSession().following);
export const usePointing = hookFor(() => useSession().pointing);
export const useWalk = hookFor(useWalkStore);

/** The state that the device shows. */
export function useWalkState(): State | undefined {
  return useWalk(stateOfWalk);
}
