import type { Project } from "../../model/schema.ts";
import { planHash } from "../../plan/planOf.ts";
import { oneLine } from "./module.ts";

/** A small file for React apps beside the module: a provider, hooks, links and the screens themselves. */
export function reactModule(project: Project): string {
  return `// Made by Etape from "${oneLine(project.name)}", design ${planHash(project)}. Do not edit: change the design and make this file again.\n\n${REACT}`;
}

const REACT = `import {
  type AnchorHTMLAttributes,
  type ComponentType,
  createContext,
  createElement,
  type MouseEvent,
  type ReactNode,
  useContext,
  useEffect,
  useLayoutEffect,
  useRef,
  useSyncExternalStore,
} from "react";
import { type Event, type Facts, type HistoryOptions, type Navigator, type Page, type Screen, type ScreenId, type Params, viewNames, type ViewParams } from "./navigation";

const Context = createContext<Navigator | undefined>(undefined);

/** Gives a navigator to all that is in it and, where \`history\` is not false, binds it to the browser's history. */
export function NavigatorProvider({ navigator, history = {}, children }: { navigator: Navigator; history?: HistoryOptions | false; children: ReactNode }) {
  const bound = useRef<HistoryOptions | false>(history);
  useEffect(() => (bound.current === false ? undefined : navigator.bindHistory(bound.current)), [navigator]);
  return createElement(Context.Provider, { value: navigator }, children);
}

/** The navigator. What it says now is read with the hooks below, which draw anew when it changes. */
export function useNavigator(): Navigator {
  const navigator = useContext(Context);
  if (!navigator) throw new Error("useNavigator: there is no NavigatorProvider around this");
  return navigator;
}

/** The page and the modals over it, lowest first. */
export function usePages(): readonly Page[] {
  const navigator = useNavigator();
  return useSyncExternalStore(
    (changed) => navigator.subscribe(changed),
    () => navigator.pages,
  );
}

/** The screen that shows. */
export function useScreen(): Screen {
  const pages = usePages();
  return (pages[pages.length - 1] as Page).screen;
}

export function useFacts(): Facts {
  usePages();
  return useNavigator().facts;
}

type LegProps = { event: Event; children: ReactNode } & Omit<AnchorHTMLAttributes<HTMLElement>, "href" | "children">;

/**
 * A leg as a link: \`<Leg event={events.toHive(row)}>\`. It has the address to which it leads, so that it can be opened in a new tab; where
 * that has none it is a button. While nothing would come of it, it is disabled.
 */
export function Leg({ event, children, onClick, ...rest }: LegProps) {
  const navigator = useNavigator();
  usePages();
  const href = navigator.href(event);
  const idle = navigator.whyNot(event) !== undefined;
  const use = (click: MouseEvent<HTMLElement>) => {
    onClick?.(click);
    if (click.defaultPrevented || click.metaKey || click.ctrlKey || click.shiftKey || click.altKey || click.button !== 0) return;
    click.preventDefault();
    navigator.send(event);
  };
  if (href !== undefined) return createElement("a", { ...rest, href, onClick: use }, children);
  return createElement("button", { ...rest, type: "button", disabled: idle, onClick: use }, children);
}

/** One component a screen, by its name in code; where one is missing, this does not compile. */
export type Components = { readonly [Name in keyof ViewParams]: ComponentType<ViewParams[Name]> };

interface ScreensProps {
  views: Components;
  /** Keeps screens mounted that are covered or stand in other tabs, so that they stay as they were left. */
  keep?: boolean;
}

/** The screens that show: the page, and each modal over it in a dialog. Each keeps its place to scroll as long as it stands. */
export function Screens({ views, keep = false }: ScreensProps) {
  const pages = usePages();
  const page = pages[0] as Page;
  useScroll(page.screen.key);
  return pages.map(({ modal, screen, standing, inReach }) => {
    const shown = (keep ? standing : [screen]).map((one) =>
      createElement(
        "div",
        { key: one.key, hidden: one.key !== screen.key, "data-at": one.id, ...(inReach && one.key === screen.key ? { "data-screen": "" } : {}) },
        createElement(views[viewNames[one.id]] as ComponentType<Params[ScreenId]>, one.params),
      ),
    );
    const frame = modal === undefined ? {} : { role: "dialog", "aria-modal": true, "aria-label": screen.title, "data-modal": modal };
    return createElement("div", { key: modal ?? "page", inert: !inReach, ...frame }, shown);
  });
}

/** Keeps how far each screen of the page was scrolled. */
function useScroll(key: number) {
  const places = useRef(new Map<number, number>());
  useLayoutEffect(() => {
    window.history.scrollRestoration = "manual";
    window.scrollTo(0, places.current.get(key) ?? 0);
    const note = () => places.current.set(key, window.scrollY);
    window.addEventListener("scroll", note, { passive: true });
    return () => window.removeEventListener("scroll", note);
  }, [key]);
}
`;
