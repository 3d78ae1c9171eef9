import { useLiveQuery } from "dexie-react-hooks";
import { useRef, useState } from "react";
import { difference } from "../../../core/model/edits/revise.ts";
import type { Project } from "../../../core/model/schema.ts";
import { handOut } from "../../session/actions/exporting.ts";
import { useDocument, useLensing, useNotices, useSession } from "../../session/hooks.ts";
import { withPicturesKept } from "../../session/storage/packed.ts";
import { deleteVersion, documentOf, keepVersion, renameVersion, type VersionHead, versionsOf } from "../../session/storage/versions.ts";
import { Button } from "../../ui/Button.tsx";
import { NameField } from "../../ui/NameField.tsx";
import { readFile } from "../../ui/readFile.ts";

/** The project as it was: kept by name, compared on the map, taken back. */
export function VersionsView() {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const against = useLensing((l) => l.against);
  const say = useNotices((n) => n.say);
  const [name, setName] = useState("");
  const [refused, setRefused] = useState<string>();
  const versions = useLiveQuery(() => versionsOf(session.id), [session.id]);
  const failed = (error: unknown) => setRefused(error instanceof Error ? error.message : String(error));

  const keep = async () => {
    const called = name.trim() || usualName();
    await keepVersion(session.id, called, project, "hand");
    setName("");
    say(`“${called}” is kept.`);
  };
  const compare = async ({ id, name }: VersionHead) => {
    against({ id, name: `“${name}”`, project: await documentOf(id) });
    session.go("map");
  };
  const takeBack = async (title: string, before: string, next: Project) => {
    await keepVersion(session.id, before, project, "etape");
    apply(difference(project, next, title));
    say(`${title}. What was there before is kept as “${before}”, and can be undone.`);
  };
  const fromFile = async (file: File, what: "compare" | "replace") => {
    setRefused(undefined);
    const read = await readFile(file);
    if (!read.ok) return setRefused(read.message);
    // Its pictures are kept with those of the project, for it may be taken back later.
    const { project: came, refused: lost } = await withPicturesKept(session.id, read.project, read.pictures);
    if (lost.length > 0) setRefused(lost.join(" "));
    if (what === "replace") return takeBack(`Replace with ${file.name}`, `Before ${file.name}`, came);
    const id = await keepVersion(session.id, file.name, came, "file");
    against({ id, name: file.name, project: came });
    session.go("map");
  };
  return (
    <div className="h-full overflow-y-auto bg-paper p-6 pt-8">
      <div className="mx-auto max-w-[760px]">
        <h2 className="caption m-0 text-[20px]">Versions</h2>
        <p className="mt-1 mb-4 max-w-[62ch] text-ink-2">
          Keep the project as it is now, under a name. A version can be compared with what you have on the map, taken back, or exported. They stay in this
          browser.
        </p>
        <form
          className="flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            keep().catch(failed);
          }}
        >
          <input
            aria-label="Name of the version"
            placeholder={usualName()}
            value={name}
            onChange={(event) => setName(event.target.value)}
            className="h-8 w-72 border border-hairline bg-sheet px-2 text-[12.5px]"
          />
          <Button tone="main" type="submit">
            Keep this version
          </Button>
        </form>
        <div className="mt-2 flex gap-4">
          <FileButton says="Compare with a file…" onFile={(file) => fromFile(file, "compare").catch(failed)} />
          <FileButton says="Replace with a file…" onFile={(file) => fromFile(file, "replace").catch(failed)} />
        </div>
        {refused !== undefined && (
          <p role="alert" className="mt-3 border-urgent border-l-2 pl-3 text-urgent">
            {refused}
          </p>
        )}
        <ul className="m-0 mt-6 list-none border-hairline border-t p-0" aria-label="Kept versions">
          {versions?.map((version) => (
            <VersionRow
              key={version.id}
              version={version}
              onCompare={() => void compare(version).catch(failed)}
              onTakeBack={() =>
                void documentOf(version.id)
                  .then((was) => takeBack(`Take back “${version.name}”`, `Before “${version.name}”`, was))
                  .catch(failed)
              }
              onExport={() =>
                void documentOf(version.id)
                  .then((was) => handOut(session.id, was))
                  .catch(failed)
              }
              onRename={(next) => void renameVersion(version.id, next).catch(failed)}
              onDelete={() => void deleteVersion(version.id).catch(failed)}
            />
          ))}
        </ul>
        {versions?.length === 0 && <p className="text-ink-2">No version is kept yet. Etape keeps one by itself before it replaces the project.</p>}
      </div>
    </div>
  );
}

const BY: Record<VersionHead["by"], string> = { hand: "", etape: "kept by Etape", file: "from a file" };

interface RowProps {
  version: VersionHead;
  onCompare: () => void;
  onTakeBack: () => void;
  onExport: () => void;
  onRename: (name: string) => void;
  onDelete: () => void;
}

function VersionRow({ version, onCompare, onTakeBack, onExport, onRename, onDelete }: RowProps) {
  const [naming, setNaming] = useState(false);
  return (
    <li className="flex min-h-11 items-center gap-3 border-hairline border-b">
      {naming ? (
        <NameField
          label={`Another name for ${version.name}`}
          name={version.name}
          onName={(name) => {
            setNaming(false);
            if (name) onRename(name);
          }}
          className="h-7 min-w-0 flex-1 px-1"
        />
      ) : (
        <span className="min-w-0 flex-1 truncate font-semibold" title={version.name}>
          {version.name}
        </span>
      )}
      <span className="text-[11.5px] text-ink-2">
        {BY[version.by]} {new Date(version.at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
      </span>
      <Button tone="link" onClick={onCompare}>
        Compare
      </Button>
      <Button tone="link" onClick={onTakeBack}>
        Take back
      </Button>
      <Button tone="quiet" onClick={onExport}>
        Export
      </Button>
      <Button tone="quiet" onClick={() => setNaming(true)}>
        Rename
      </Button>
      <Button tone="quiet" aria-label={`Delete the version ${version.name}`} onClick={onDelete}>
        Delete
      </Button>
    </li>
  );
}

function FileButton({ says, onFile }: { says: string; onFile: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button tone="link" onClick={() => input.current?.click()}>
        {says}
      </Button>
      <input
        ref={input}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        aria-label={says}
        className="hidden"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (file) onFile(file);
        }}
      />
    </>
  );
}

function usualName(): string {
  return new Date().toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" });
}
