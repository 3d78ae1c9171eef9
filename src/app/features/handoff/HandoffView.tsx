import { strToU8, zipSync } from "fflate";
import { Tabs } from "radix-ui";
import { useDeferredValue, useMemo, useState } from "react";
import useSWR from "swr";
import { meaningless } from "../../../core/check/handOffBlockers.ts";
import { proofText } from "../../../core/check/proof.ts";
import { standings } from "../../../core/check/standingText.ts";
import type { Checked, HandedFile } from "../../../core/handoff/handed.ts";
import { TARGETS } from "../../../core/handoff/target.ts";
import type { Project } from "../../../core/model/schema.ts";
import { endOf, type FindingsState } from "../../session/findings.ts";
import { useDocument, useFindings, useNotices, useSession } from "../../session/hooks.ts";
import type { Session } from "../../session/session.ts";
import { Button } from "../../ui/Button.tsx";
import { fileName, save } from "../../ui/download.ts";
import { Failed } from "../../ui/Failed.tsx";
import type { PlainResult } from "../../worker/protocol.ts";

import { Highlighted } from "./Highlighted.tsx";
import { OnPhone } from "./OnPhone.tsx";
import { useHandedPictures } from "./useHandedPictures.ts";
import { useHandoff } from "./useHandoff.ts";

/** What others get: choose, look at it, copy it, download one file or all. */
export function HandoffView() {
  const project = useDeferredValue(useDocument((d) => d.project));
  const session = useSession();
  const say = useNotices((n) => n.say);
  const [chosen, setChosen] = useState(TARGETS[0]?.id ?? "");
  const [part, setPart] = useState(0);
  const blockers = useMemo(() => meaningless(project), [project]);
  const ended = useFindings((f) => endOf(f, project));
  const result = useFindings((f) => f.result);
  const { data: frame, error: noFrame, mutate: loadFrame } = useSWR<string, Error>("/prototype.html", textAt, { revalidateOnFocus: false });
  const [width, setWidth] = useState(400);
  const { drawn, draw } = useHandedPictures(project, width, PICTURED.includes(chosen));
  const checked = useMemo<Checked>(
    () => ({
      ...whatIsKnown(ended, result),
      frame: frame ?? "{{title}}{{project}}",
      react: true,
      ...(drawn && Object.keys(drawn).length > 0 ? { pictures: drawn } : {}),
    }),
    [ended, result, frame, drawn],
  );
  const { task, files, run } = useHandoff(project, blockers.length > 0 || !drawn ? undefined : chosen, checked);
  const file = files[Math.min(part, files.length - 1)];
  const all = () =>
    zipped().catch((error: unknown) => say(`The zip could not be made: ${error instanceof Error ? error.message : String(error)}. Nothing was downloaded.`));
  const zipped = async () => {
    if (session.findings.getState().running) say("The zip comes as soon as the check has ended.");
    const found = await checkEnded(session, project);
    const known = whatIsKnown(endOf(found, project), found.result);
    const targets = TARGETS.map((t) => t.id);
    const made = await run(targets, { ...known, frame: frame ?? (await textAt("/prototype.html")), pictures: await draw() });
    // One fixed time for all, so that the same project gives the same bytes.
    const zip = zipSync(Object.fromEntries(made.map((f) => [f.name, strToU8(f.text)] as const)), { mtime: "2026-01-01T00:00:00Z" });
    save(`${fileName(project.name)}-hand-off.zip`, zip, "application/zip");
    say(`${made.length} files are in ${fileName(project.name)}-hand-off.zip.`);
  };
  return (
    <div className="grid h-full min-h-0 grid-cols-[200px_minmax(0,1fr)] bg-paper pt-6">
      <div className="overflow-y-auto border-r border-hairline p-3">
        <ul className="m-0 list-none p-0">
          {TARGETS.map((t) => (
            <li key={t.id}>
              <button
                type="button"
                aria-current={t.id === chosen}
                onClick={() => {
                  setChosen(t.id);
                  setPart(0);
                }}
                className={`mb-1 block w-full px-2 py-1.5 text-left ${t.id === chosen ? "bg-accent-soft" : "hover:bg-band"}`}
              >
                <span className="block text-[12.5px] font-semibold">{t.name}</span>
                <span className="block text-[11.5px] text-ink-2">{t.says}</span>
              </button>
            </li>
          ))}
        </ul>
        <Button tone="main" className="mt-2 w-full" disabled={blockers.length > 0} onClick={() => void all()}>
          Download all as a zip
        </Button>
      </div>
      <div className="flex min-h-0 min-w-0 flex-col p-3">
        {blockers.length > 0 ? (
          <div role="alert" className="border border-urgent bg-sheet p-3 text-[12.5px]">
            <p className="m-0 font-semibold">Nothing can be handed off until this is right:</p>
            <ul className="m-0 pl-5">
              {blockers.map((f) => (
                <li key={`${f.code} ${f.subjects.join(" ")}`}>{f.message}</li>
              ))}
            </ul>
          </div>
        ) : (
          <>
            {task.is === "failed" && <Failed what="These files could not be made" error={task.error} onRetry={task.retry} />}
            {!frame && noFrame && chosen === "prototype" && (
              <Failed what="The frame of the prototype could not be loaded" error={String(noFrame.message)} onRetry={() => void loadFrame()} />
            )}
            {task.is === "running" && (
              <p role="status" className="m-0 pb-2 text-[12.5px] text-ink-2">
                Making it; walks that use every leg can take some seconds…
              </p>
            )}
            {file && (
              <Tabs.Root value={file.name} onValueChange={(name) => setPart(files.findIndex((f) => f.name === name))} className="flex min-h-0 flex-1 flex-col">
                <div className="flex items-center gap-2 pb-2">
                  <Tabs.List aria-label="Files" className="flex min-w-0 flex-1 gap-1 overflow-x-auto">
                    {files.map((f) => (
                      <Tabs.Trigger
                        key={f.name}
                        value={f.name}
                        className="min-h-7 shrink-0 px-2 font-mono text-[11.5px] text-ink-2 hover:text-ink data-[state=active]:border-b-2 data-[state=active]:border-accent data-[state=active]:font-semibold data-[state=active]:text-ink"
                      >
                        {f.name}
                      </Tabs.Trigger>
                    ))}
                  </Tabs.List>
                  <Button
                    onClick={async () => {
                      await navigator.clipboard.writeText(file.text);
                      say(`Copied ${file.name}.`);
                    }}
                  >
                    Copy
                  </Button>
                  <Button onClick={() => save(file.name, file.text, "text/plain")}>Download</Button>
                  {file.name === "prototype.html" && <OnPhone text={file.text} />}
                </div>
                {drawn && Object.keys(drawn).length > 0 && <Size file={file} pictures={Object.keys(drawn).length} width={width} onWidth={setWidth} />}
                <Tabs.Content value={file.name} aria-label={file.name} className="flex min-h-0 flex-1 flex-col overflow-auto">
                  <Preview file={file} />
                </Tabs.Content>
              </Tabs.Root>
            )}
          </>
        )}
      </div>
    </div>
  );
}

/** Hand-offs that carry pictures. */
const PICTURED: readonly string[] = ["spec", "prototype", "svg"];

/** How large a file with pictures is, and how large the pictures in it are. */
function Size({ file, pictures, width, onWidth }: { file: HandedFile; pictures: number; width: number; onWidth: (width: number) => void }) {
  const large = file.text.length > LARGE;
  return (
    <p className="m-0 flex flex-wrap items-center gap-2 pb-2 text-[12px] text-ink-2">
      <label className="flex items-center gap-1.5">
        Pictures
        <select value={width} onChange={(event) => onWidth(Number(event.target.value))} className="h-6 border border-hairline bg-paper text-[12px] text-ink">
          <option value={260}>small, 260 pixels wide</option>
          <option value={400}>medium, 400 pixels wide</option>
          <option value={800}>large, 800 pixels wide</option>
          <option value={100_000}>as they are</option>
        </select>
      </label>
      <span className={large ? "font-semibold text-urgent" : ""}>
        {file.name} is {inMegabytes(file.text.length)} with {pictures} {pictures === 1 ? "picture" : "pictures"}
        {large && width > 260 ? "; smaller pictures make it easier to send" : ""}
      </span>
    </p>
  );
}

/** Characters of a file from which it is hard to send. */
const LARGE = 10_000_000;

function inMegabytes(characters: number): string {
  return `${(characters / 1_000_000).toFixed(1)} MB`;
}

/** What is said where nothing is known. */
const UNKNOWN = {
  running: "The check is still running; look again in a moment.",
  stopped: "The check was stopped by hand; nothing is known of its findings.",
  failed: "The check failed; nothing is known of its findings.",
};

/** What the check says, for what is handed off. */
function whatIsKnown(ended: ReturnType<typeof endOf>, result: PlainResult | undefined): Pick<Checked, "findings" | "rules" | "proof"> {
  if (ended === "done" && result) return { findings: result.findings, rules: standings(result.proof), proof: proofText(result.proof) };
  return { findings: [], rules: {}, proof: UNKNOWN[ended === "done" ? "running" : ended] };
}

/** The findings of a project once its check does not run any more. */
function checkEnded({ findings, document }: Session, project: Project): Promise<FindingsState> {
  return new Promise((done, failed) => {
    const look = (state: FindingsState) => {
      const isNewer = state.of !== project && state.of === document.getState().project;
      if (state.running || (state.of !== project && !isNewer)) return;
      stop();
      if (isNewer) failed(new Error("the design was changed meanwhile"));
      else done(state);
    };
    const stop = findings.subscribe(look);
    look(findings.getState());
  });
}

async function textAt(path: string): Promise<string> {
  const response = await fetch(path);
  if (!response.ok) throw new Error(`the server answered ${response.status}`);
  return response.text();
}

/** Most of a file that is shown; the whole is copied and downloaded. */
const MOST = 60_000;

function Preview({ file }: { file: HandedFile }) {
  if (file.name.endsWith(".svg") || file.name.endsWith(".html"))
    return (
      <iframe
        title={file.name}
        sandbox={file.name === "prototype.html" ? "allow-scripts" : ""}
        srcDoc={file.text}
        className="min-h-0 flex-1 border border-hairline bg-white"
      />
    );
  return (
    <pre className="m-0 w-max min-w-full border border-hairline bg-sheet p-3 font-mono text-[11.5px]">
      <Highlighted name={file.name} text={file.text.slice(0, MOST)} />
      {file.text.length > MOST && `\n… ${file.text.length - MOST} characters more`}
    </pre>
  );
}
