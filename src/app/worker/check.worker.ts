import "../policy/noEval.ts";
import { check } from "../../core/check/check.ts";
import { wayTo } from "../../core/check/counterexample/wayTo.ts";
import type { CheckResult } from "../../core/check/finding.ts";
import { fixesFor } from "../../core/check/fixes/fixes.ts";
import { targetOf } from "../../core/handoff/target.ts";
import { coveringWalks } from "../../core/handoff/tests/cover.ts";
import { reachChange } from "../../core/map/lenses/reach.ts";
import { lensView } from "../../core/map/lenses/table.ts";
import { applyEdit } from "../../core/model/edits/kinds.ts";
import type { PictureFiles } from "../../core/model/pictures.ts";
import type { Project } from "../../core/model/schema.ts";
import { patched } from "./patch.ts";
import { CALLS, type PlainResult, type Reply, Request } from "./protocol.ts";

/** Milliseconds between two reports of progress. */
const REPORT = 200;

/** The project that was checked last, which the next patch is for. */
let last: Project | undefined;

/** Does what is asked off the main thread. Fixes are worked out where they are shown, except for the first of all. */
function answer({ call, args }: Request, progress: (states: number) => void): unknown {
  switch (call) {
    case "check": {
      const [project, files, far] = CALLS.check.args.parse(args);
      last = project;
      return checked(project, { files, far }, progress);
    }
    case "checkNext": {
      const [patch, files, far] = CALLS.checkNext.args.parse(args);
      if (!last) throw new Error("A patch needs a project that was checked before.");
      last = patched(last, patch);
      return checked(last, { files, far }, progress);
    }
    case "wayTo":
      return wayTo(...CALLS.wayTo.args.parse(args));
    case "lens": {
      const [project, choice, given] = CALLS.lens.args.parse(args);
      return lensView(project, choice, choice.lens === "walked" && choice.tests ? { ...given, walks: coveringWalks(project).walks } : given);
    }
    case "reachAfter": {
      const [project, edit, choice] = CALLS.reachAfter.args.parse(args);
      return { says: reachChange(project, applyEdit(project, edit), choice) };
    }
    case "handOff": {
      const [project, targets, checkedBefore] = CALLS.handOff.args.parse(args);
      return targets.flatMap((id) => targetOf(id)?.files(project, checkedBefore) ?? []);
    }
  }
}

function checked(
  project: Project,
  { files, far }: { files: PictureFiles | undefined; far: number | undefined },
  progress: (states: number) => void,
): PlainResult {
  const { findings, accepted, proof } = check(project, { stop: counting(progress), fixes: false, ...(files && { pictures: files }), ...(far && { far }) });
  const worst = findings.find((finding) => !finding.open);
  const fix = worst && fixesFor(project, worst)[0];
  return { findings: findings.map(withoutFixes), accepted: accepted.map(withoutFixes), proof, ...(fix ? { fix } : {}) };
}

function withoutFixes<T extends CheckResult["findings"][number]>(finding: T): Omit<T, "fixes"> {
  const { fixes: _, ...rest } = finding;
  return rest;
}

/** Is asked once for each state, never says stop, and tells how often it was asked. */
function counting(progress: (states: number) => void): () => boolean {
  let states = 0;
  let told = performance.now();
  return () => {
    states += 1;
    if (states % 64 === 0 && performance.now() - told > REPORT) {
      told = performance.now();
      progress(states);
    }
    return false;
  };
}

self.addEventListener("message", ({ data }: MessageEvent<unknown>) => {
  const request = Request.parse(data);
  const { id } = request;
  const tell = (reply: Reply) => self.postMessage(reply);
  try {
    tell({ id, is: "done", value: answer(request, (states) => tell({ id, is: "progress", states })) });
  } catch (error) {
    tell({ id, is: "failed", message: error instanceof Error ? error.message : String(error) });
  }
});
