import { type ComponentType, use, useSyncExternalStore } from "react";

/** A part of the page that is not needed for its first view. */
export interface Part<P> {
  loaded: ComponentType<P> | undefined;
  readonly loading: Promise<ComponentType<P>>;
}

/**
 * Begins to load a part of the page beside the first drawing, so that it is there at once when it is asked for. (React's `lazy` waits
 * a moment even for what is loaded, and what is typed meanwhile is lost.)
 */
export function preload<P>(load: () => Promise<ComponentType<P>>): Part<P> {
  const part: Part<P> = {
    loaded: undefined,
    loading: load().then((component) => {
      part.loaded = component;
      return component;
    }),
  };
  // Who draws it hears of a failure; nobody else has to.
  part.loading.catch(() => undefined);
  return part;
}

/** Draws a part that is loaded beside the page; suspends where it is not there yet. */
export function Later<P extends object>({ part, ...props }: { part: Part<P> } & P) {
  const Component = part.loaded ?? use(part.loading);
  return <Component {...(props as unknown as P)} />;
}

/** A piece of code that is loaded beside the page: what it is, and who is told when it is there. */
interface Beside<T> {
  (): T | undefined;
  subscribe: (tell: () => void) => () => void;
}

/** A piece of code that is loaded beside the page, for what nobody does in its first moment; undefined until it is there. */
export function beside<T>(load: () => Promise<T>): Beside<T> {
  let loaded: T | undefined;
  const waiting = new Set<() => void>();
  load().then(
    (made) => {
      loaded = made;
      for (const tell of waiting) tell();
    },
    () => undefined,
  );
  const subscribe = (tell: () => void) => {
    waiting.add(tell);
    return () => {
      waiting.delete(tell);
    };
  };
  return Object.assign(() => loaded, { subscribe });
}

/** The same for what is drawn with it: drawn again when it is there. */
export function useBeside<T>(part: Beside<T>): T | undefined {
  return useSyncExternalStore(part.subscribe, part);
}
