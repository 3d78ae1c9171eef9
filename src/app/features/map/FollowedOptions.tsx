import { useFollowing } from "../../session/hooks.ts";

/** Which log is followed, and whether the walk goes along. */
export function FollowedOptions() {
  const { source, report, unreadable, along, setAlong, take } = useFollowing();
  const read = async (file: File | undefined) => {
    if (file) take(`${file.name}, ${new Date().toLocaleTimeString()}`, (await file.text()).split("\n"));
  };
  return (
    <>
      <label className="flex min-h-7 cursor-pointer items-center justify-center border border-ink px-2 font-semibold focus-within:outline-2">
        Read a log…
        <input type="file" className="sr-only" accept=".jsonl,.ndjson,.json,.log,.txt" onChange={(event) => void read(event.target.files?.[0])} />
      </label>
      {report && (
        <p className="m-0 text-ink-2" data-testid="followed">
          {source}: {report.entries} {report.entries === 1 ? "entry" : "entries"} in {report.runs} {report.runs === 1 ? "run" : "runs"};{" "}
          <span className={report.departed > 0 ? "font-semibold text-urgent" : ""}>
            {report.departed === 0 ? "it follows the design" : `it departs ${report.departed === 1 ? "once" : `${report.departed} times`}`}
          </span>
        </p>
      )}
      {report && report.rules.length > 0 && (
        <ul className="m-0 list-none p-0 text-urgent" aria-label="Rules that the log breaks">
          {report.rules.map(({ rule, name, row, count, unsure }) => (
            <li key={rule}>
              {unsure ? "Perhaps breaks" : "Breaks"} the rule “{name}” in line {row}
              {count > 1 ? `, ${count} times in all` : ""}
            </li>
          ))}
        </ul>
      )}
      {unreadable.map((line) => (
        <p key={line} role="alert" className="m-0 text-urgent">
          {line}
        </p>
      ))}
      <label className="flex min-h-6 items-center gap-2">
        <input type="checkbox" className="h-4 w-4 accent-(--accent)" checked={along} onChange={(event) => setAlong(event.target.checked)} />
        the walk goes along
      </label>
    </>
  );
}
