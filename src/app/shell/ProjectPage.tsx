import { Suspense, useEffect, useState } from "react";
import { type LoaderFunctionArgs, Outlet, useLoaderData, useLocation, useNavigate, useParams } from "react-router";
import { useKeys } from "../features/commands/useKeys.ts";
import { Foot } from "../features/findings/Foot.tsx";
import { PicturesContext, SessionContext, useDocument, useFindings, useSession, WalkContext } from "../session/hooks.ts";
import { Session, type View } from "../session/session.ts";
import { type Loaded, loadProject } from "../session/storage/projects.ts";
import { useFocusHome } from "../session/useFocusHome.ts";
import { afterPaint } from "../ui/afterPaint.ts";
import { Later, preload } from "../ui/preloaded.tsx";
import { Head } from "./Head.tsx";
import { Opening } from "./Opening.tsx";
import { Sheets } from "./Sheets.tsx";

const Notice = preload(async () => (await import("./Notice.tsx")).Notice);
const TakesPictures = preload(async () => (await import("../features/pictures/TakesPictures.tsx")).TakesPictures);

/** Reads the project of an address. */
export async function loadOpen({ params }: LoaderFunctionArgs): Promise<Loaded> {
  const id = params.id ?? "";
  const loaded = (await loadProject(id)) ?? (id.startsWith("file-") ? await (await import("../session/file/served.ts")).loadServed(id) : undefined);
  if (!loaded) throw Response.json("project", { status: 404 });
  return loaded;
}

/** One project: its session begins with its route and ends with it. */
export function ProjectPage() {
  const { id = "" } = useParams();
  const loaded: Loaded = useLoaderData();
  const [session, setSession] = useState<Session>();
  useEffect(() => {
    const opened = new Session(id, loaded);
    setSession(opened);
    return () => opened.close();
  }, [id, loaded]);
  if (session?.id !== id) return <Opening />;
  return (
    <SessionContext value={session}>
      <WalkContext value={session.walk}>
        <PicturesContext value={session.pictures}>
          <Opened key={id} />
        </PicturesContext>
      </WalkContext>
    </SessionContext>
  );
}

const ADDRESS: Record<View, string> = {
  map: "",
  walk: "/walk",
  pictures: "/pictures",
  rules: "/rules",
  parameters: "/parameters",
  versions: "/versions",
  "hand-off": "/hand-off",
  projects: "",
};

/** The open project: its head, the view that is shown, how things stand at the foot, and the sheets. */
function Opened() {
  const session = useSession();
  const { status, project, error } = useDocument();
  const check = useFindings((f) => f.check);
  const follow = session.walk.getState().follow;
  const navigate = useNavigate();
  const { state: came } = useLocation();
  useEffect(() => {
    session.go = (view) => void navigate(view === "projects" ? "/" : `/p/${session.id}${ADDRESS[view]}`);
  }, [session, navigate]);
  useEffect(() => follow(project), [follow, project]);
  useEffect(() => afterPaint(() => check(project)), [check, project]);
  useEffect(() => session.following.getState().again(project), [session, project]);
  useEffect(() => {
    document.title = `${project.name} – Etape`;
    return () => {
      document.title = "Etape";
    };
  }, [project.name]);
  const lost = lostIn(came);
  useEffect(() => {
    if (lost !== undefined) session.notices.getState().say("Not kept:", lost);
  }, [session, lost]);
  useKeys();
  useFocusHome();
  if (status === "missing") throw Response.json("project", { status: 404 });
  if (status === "failed") throw new Error(error);
  return (
    <div className="grid h-full min-w-[1024px] grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
      <Head />
      <Outlet />
      <Foot />
      <Sheets />
      <Suspense>
        <Later part={Notice} />
        <Later part={TakesPictures} />
      </Suspense>
    </div>
  );
}

/** What a file that was just read in had and a project cannot have. */
function lostIn(state: unknown): string[] | undefined {
  const lost = typeof state === "object" && state !== null && "lost" in state ? state.lost : undefined;
  return Array.isArray(lost) && lost.length > 0 ? lost.map(String) : undefined;
}
