import { useState } from "react";
import { comparePatterns, findByAddress, matchAddress } from "../../../core/model/address.ts";
import type { Entrance, Project } from "../../../core/model/schema.ts";

/** An address typed in, taken apart by the pattern; and which other ways in it would match too. */
export function AddressTrial({ project, entrance }: { project: Project; entrance: Entrance }) {
  const [address, setAddress] = useState("");
  const values = address === "" || entrance.pattern === undefined ? undefined : matchAddress(entrance.pattern, address);
  const first = values && findByAddress(project.entrances, address)?.one;
  const others = project.entrances.filter(
    ({ id, pattern }) =>
      values && id !== entrance.id && pattern !== undefined && matchAddress(pattern, address) && comparePatterns(pattern, entrance.pattern ?? "") === 0,
  );
  return (
    <div className="text-[11.5px] text-ink-2">
      <label className="block">
        Try an address
        <input
          value={address}
          placeholder={(entrance.pattern ?? "").replace(/\{\+?(\w+)\}/g, "$1")}
          onChange={(event) => setAddress(event.target.value)}
          className="mt-0.5 block h-7 w-full border border-hairline bg-paper px-1.5 font-mono text-[11.5px] text-ink"
        />
      </label>
      {address !== "" && (
        <p role="status" className="m-0">
          {values === undefined
            ? "It does not match."
            : Object.keys(values).length === 0
              ? "It matches, and says nothing more."
              : Object.entries(values).map(([name, value]) => (
                  <span key={name} className="mr-3 font-mono">
                    {name} = {JSON.stringify(value)}
                  </span>
                ))}
          {first && first.id !== entrance.id && others.length === 0 && (
            <span className="text-urgent"> This address opens “{first.name}” instead: its pattern is more exact.</span>
          )}
          {others.length > 0 && <span className="text-urgent"> It would also match {others.map((e) => `“${e.name}”`).join(", ")}.</span>}
        </p>
      )}
    </div>
  );
}
