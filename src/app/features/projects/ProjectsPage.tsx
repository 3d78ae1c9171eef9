import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import useSWR from "swr";
import { emptyProject } from "../../../core/model/edits/add.ts";
import { type Problem, readProject, SIZE_LIMIT } from "../../../core/model/read.ts";
import { decodeUtf8, utf8Problem } from "../../../core/model/utf8.ts";
import { db } from "../../session/storage/db.ts";
import { createProject, listProjects } from "../../session/storage/projects.ts";
import { asSentence, storageWords } from "../../session/storage/trouble.ts";
import { Button } from "../../ui/Button.tsx";
import { ThemeToggle } from "../../ui/ThemeToggle.tsx";
import { ProjectList } from "./ProjectList.tsx";

const DEMOS = {
  hollowcomb: () => import("../../../../demo/hollowcomb.etape.json?raw"),
  "hollowcomb-first-draft": () => import("../../../../demo/hollowcomb-first-draft.etape.json?raw"),
  tidewatch: () => import("../../../../demo/tidewatch.etape.json?raw"),
  oddglove: () => import("../../../../demo/oddglove.etape.json?raw"),
};
/** Addresses of the pictures of demos, by their paths. */
const DEMO_PICTURES = import.meta.glob<string>("../../../../demo/*.pictures/*", { query: "?url&no-inline", import: "default" });

/** The pictures of a demo, by their files. */
async function picturesOfDemo(name: string): Promise<Map<string, Blob>> {
  const folder = `/demo/${name}.pictures/`;
  const paths = Object.keys(DEMO_PICTURES).filter((path) => path.includes(folder));
  const pictures = await Promise.all(
    paths.map(async (path) => [path.slice(path.indexOf(folder) + folder.length), await (await fetch((await DEMO_PICTURES[path]?.()) ?? "")).blob()] as const),
  );
  return new Map(pictures);
}

/** The reader of a file that is no project, by the end of its name; undefined for all others. */
async function readerOf(name: string) {
  if (/\.txt$/i.test(name)) return (await import("../../../core/handoff/in/addresses.ts")).fromSomeAddresses;
  if (/\.lines$/i.test(name)) return (await import("./readLines.ts")).readLines;
  if (/\.scxml$/i.test(name)) return (await import("../../../core/handoff/in/scxml.ts")).fromScxml;
  if (/\.xml$/i.test(name)) return (await import("../../../core/handoff/in/sitemap.ts")).fromSitemap;
  return undefined;
}

/** What is kept in this browser, and how to begin: from a demo, empty, or from a file. */
export function ProjectsPage() {
  const go = useNavigate();
  const { data: rows, mutate, error } = useSWR("projects", () => listProjects());
  const [refused, setRefused] = useState<{ file: string; problems: Problem[] }>();
  const file = useRef<HTMLInputElement>(null);
  const openText = async (name: string, text: string, pictures = new Map<string, Blob>()) => {
    const read = await readerOf(name);
    if (read) {
      const made = read(text, name.replace(/\.[^.]*$/, ""));
      if (!made.ok) {
        setRefused({
          file: name,
          problems: made.problems.map((p) => ({ path: p.line === undefined ? "" : `line ${p.line}`, found: p.message, expected: "" })),
        });
        return;
      }
      setRefused(undefined);
      go(`/p/${await createProject(made.project)}`, { state: { lost: made.lost } });
      return;
    }
    const result = readProject(text);
    if (!result.ok) {
      setRefused({ file: name, problems: result.problems });
      return;
    }
    setRefused(undefined);
    if (pictures.size === 0) go(`/p/${await createProject(result.project)}`);
    else {
      const { createWithPictures } = await import("../../session/storage/packed.ts");
      const { id, refused: lost } = await createWithPictures(result.project, pictures);
      go(`/p/${id}`, { state: { lost } });
    }
  };
  /** Opens a document with its pictures; says why it was not opened, such as for want of room. */
  const openPictured = async (file: string, name: string, text: string, pictures: Map<string, Blob>) => {
    try {
      await openText(name, text, pictures);
    } catch (error) {
      setRefused({ file, problems: [{ path: "", found: error instanceof Error ? error.message : String(error), expected: "" }] });
    }
  };
  const openDemo = async (name: keyof typeof DEMOS) => {
    const file = `${name}.etape.json`;
    // Without its pictures it is drawn as sketches, and the checker says what is missing.
    await openPictured(file, file, (await DEMOS[name]()).default, await picturesOfDemo(name).catch(() => new Map<string, Blob>()));
  };
  /** A document and its pictures in one file. */
  const openZip = async (file: File) => {
    const { unzip } = await import("../../ui/readFile.ts");
    const read = await unzip(file);
    if (!read.ok) setRefused({ file: file.name, problems: [{ path: "", found: read.message, expected: "a file that was exported from here" }] });
    else await openPictured(file.name, `${read.name}.etape.json`, read.text, read.pictures);
  };
  const openFile = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (/\.zip$/i.test(chosen.name)) await openZip(chosen);
    else if (chosen.size > SIZE_LIMIT)
      setRefused({ file: chosen.name, problems: [{ path: "", found: `a file of ${chosen.size} bytes`, expected: "at most 20 MiB" }] });
    else {
      const decoded = decodeUtf8(new Uint8Array(await chosen.arrayBuffer()));
      if (decoded.ok) await openText(chosen.name, decoded.text);
      else setRefused({ file: chosen.name, problems: [utf8Problem(decoded)] });
    }
  };
  return (
    <div
      className="mx-auto max-w-[880px] px-8 pt-10 pb-16"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void openFile(event.dataTransfer.files[0]);
      }}
    >
      <header className="flex items-baseline justify-between">
        <h1 className="caption m-0 text-[34px] font-extrabold" style={{ fontStretch: "125%" }}>
          Etape
        </h1>
        <ThemeToggle />
      </header>
      <p className="mt-1 mb-8 max-w-[56ch] text-[15px] text-ink-2">
        Draw how people move through your app, walk through it as they would, and see for certain that nobody gets stuck.
      </p>
      {db.refused !== undefined && (
        <p role="alert" className="mt-0 mb-4 border border-urgent bg-sheet px-3 py-2 text-[13px] text-urgent">
          {asSentence(db.refused)}
        </p>
      )}
      <section className="grid grid-cols-[1.4fr_1fr_1fr] gap-4">
        <button type="button" onClick={() => openDemo("hollowcomb")} className="border border-ink bg-ink p-4 text-left text-paper hover:opacity-90">
          <span className="caption block text-[15px]">Open Hollowcomb</span>
          <span className="mt-1 block text-[12.5px] opacity-80">A demo: a beekeepers’ hive log with tabs, a drawer, sheets and ways in.</span>
        </button>
        <button
          type="button"
          onClick={async () => {
            go(`/p/${await createProject(emptyProject("New app"))}`);
          }}
          className="border border-ink bg-sheet p-4 text-left hover:bg-band"
        >
          <span className="caption block text-[15px]">Start empty</span>
          <span className="mt-1 block text-[12.5px] text-ink-2">One bare screen; add the rest by name, or drop pictures of them.</span>
        </button>
        <button type="button" onClick={() => file.current?.click()} className="border border-dashed border-ink bg-sheet p-4 text-left hover:bg-band">
          <span className="caption block text-[15px]">Open a file</span>
          <span className="mt-1 block text-[12.5px] text-ink-2">
            A project (.etape.json, .zip), quick lines (.lines), addresses (.txt), a sitemap (.xml) or a state chart (.scxml).
          </span>
        </button>
        <input
          ref={file}
          type="file"
          accept=".json,.zip,.lines,.txt,.xml,.scxml,application/json,text/plain,application/xml"
          className="hidden"
          aria-label="Project file"
          onChange={(event) => {
            void openFile(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </section>
      <p className="mt-3 mb-0 text-[12.5px] text-ink-2">
        Or open{" "}
        <button type="button" className="min-h-6 font-semibold text-accent hover:underline" onClick={() => openDemo("hollowcomb-first-draft")}>
          its first draft
        </button>
        , the same app earlier, with a dozen mistakes to find and fix; or{" "}
        <button type="button" className="min-h-6 font-semibold text-accent hover:underline" onClick={() => openDemo("tidewatch")}>
          Tidewatch
        </button>
        , a harbour desk for wide windows with an address for every page; or{" "}
        <button type="button" className="min-h-6 font-semibold text-accent hover:underline" onClick={() => openDemo("oddglove")}>
          Oddglove
        </button>
        , a lost-property office drawn as pictures.
      </p>
      {refused && <Refused {...refused} onClose={() => setRefused(undefined)} />}
      <h2 className="caption mt-10 mb-2 border-b border-hairline pb-1 text-[13px]">In this browser</h2>
      {rows?.length === 0 && <p className="text-ink-2">Nothing yet. Hollowcomb is a good first walk.</p>}
      {error !== undefined && (
        <p role="alert" className="text-urgent">
          What is kept could not be read: {storageWords(error)}
        </p>
      )}
      <ProjectList rows={rows ?? []} onChange={() => void mutate()} />
    </div>
  );
}

function Refused({ file, problems, onClose }: { file: string; problems: Problem[]; onClose: () => void }) {
  return (
    <section role="alert" className="mt-6 border border-urgent bg-sheet p-4">
      <header className="flex items-baseline justify-between">
        <h2 className="caption m-0 text-[14px] text-urgent">
          {file} was not opened: {problems.length} {problems.length === 1 ? "problem" : "problems"}
        </h2>
        <Button tone="quiet" onClick={onClose}>
          close
        </Button>
      </header>
      <table className="mt-2 w-full border-collapse text-left text-[12.5px]">
        <thead className="text-ink-2">
          <tr>
            <th className="pr-3 font-medium">Where</th>
            <th className="pr-3 font-medium">Found</th>
            <th className="font-medium">Expected</th>
          </tr>
        </thead>
        <tbody>
          {problems.map((problem) => (
            <tr key={`${problem.path} ${problem.found} ${problem.expected}`} className="border-t border-hairline align-top">
              <td className="py-1 pr-3 font-mono text-[11.5px]">{problem.path || "document"}</td>
              <td className="py-1 pr-3">{problem.found}</td>
              <td className="py-1">{problem.expected}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="m-0 mt-2 text-[12px] text-ink-2">Nothing was changed. Fix the file and open it again.</p>
    </section>
  );
}
