import type { PictureFiles } from "../../model/pictures.ts";
import type { Project } from "../../model/schema.ts";
import type { Finding } from "../finding.ts";
import { ambiguous } from "./ambiguous.ts";
import { backOnly } from "./backOnly.ts";
import { brokenRule } from "./brokenRule.ts";
import { brokenTarget } from "./brokenTarget.ts";
import { carryMismatch } from "./carryMismatch.ts";
import { deadEnd } from "./deadEnd.ts";
import { emptyRule } from "./emptyRule.ts";
import { far } from "./far.ts";
import { idleElement } from "./idleElement.ts";
import { idleLead } from "./idleLead.ts";
import { idleLeg } from "./idleLeg.ts";
import type { FindingKind } from "./kind.ts";
import { leavesBySurprise } from "./leavesBySurprise.ts";
import { linkArguments } from "./linkArguments.ts";
import { linkClash } from "./linkClash.ts";
import { lostArea } from "./lostArea.ts";
import { lostResult } from "./lostResult.ts";
import { missingArgument } from "./missingArgument.ts";
import { missingPicture } from "./missingPicture.ts";
import { noMenuControl } from "./noMenuControl.ts";
import { noOutside } from "./noOutside.ts";
import { noOwner } from "./noOwner.ts";
import { noStart } from "./noStart.ts";
import { noWayUp } from "./noWayUp.ts";
import { oneOutcome } from "./oneOutcome.ts";
import { pagesPush } from "./pagesPush.ts";
import { pastTheEnd } from "./pastTheEnd.ts";
import { piledCopies } from "./piledCopies.ts";
import { redirectLoop } from "./redirectLoop.ts";
import { refusedMove } from "./refusedMove.ts";
import { returnsToFinished } from "./returnsToFinished.ts";
import { sameName } from "./sameName.ts";
import { selfLeg } from "./selfLeg.ts";
import { silent } from "./silent.ts";
import { stuckModal } from "./stuckModal.ts";
import { tabCount } from "./tabCount.ts";
import { trap } from "./trap.ts";
import { unreachable } from "./unreachable.ts";
import { unusedElement } from "./unusedElement.ts";
import { unusedFact } from "./unusedFact.ts";
import { unusedParameter } from "./unusedParameter.ts";
import { upArguments } from "./upArguments.ts";
import { upCycle } from "./upCycle.ts";
import { wrongType } from "./wrongType.ts";

/** Every kind of finding, in the order in which they are listed. One file each: to add one, write the file and its line here. */
export const FINDINGS: readonly FindingKind[] = [
  deadEnd,
  stuckModal,
  trap,
  unreachable,
  redirectLoop,
  refusedMove,
  backOnly,
  piledCopies,
  returnsToFinished,
  leavesBySurprise,
  silent,
  idleLeg,
  lostResult,
  brokenRule,
  emptyRule,
  idleLead,
  far,
  noOwner,
  brokenTarget,
  noStart,
  missingArgument,
  wrongType,
  ambiguous,
  upCycle,
  upArguments,
  linkClash,
  linkArguments,
  noWayUp,
  idleElement,
  carryMismatch,
  missingPicture,
  lostArea,
  tabCount,
  noMenuControl,
  pagesPush,
  pastTheEnd,
  noOutside,
  oneOutcome,
  sameName,
  selfLeg,
  unusedParameter,
  unusedFact,
  unusedElement,
];

const byCode = new Map(FINDINGS.map((kind) => [kind.code, kind]));

/** The kind of findings with a code. */
export function kindOf(code: string): FindingKind | undefined {
  return byCode.get(code);
}

/** All findings that can be read off the document; one for each code and list of subjects. */
export function documentFindings(project: Project, hubs: ReadonlySet<string>, files?: PictureFiles): Finding[] {
  return FINDINGS.flatMap(({ code, severity, inDocument }) => {
    const seen = new Set<string>();
    return (inDocument?.(project, hubs, files) ?? [])
      .filter(({ subjects }) => !seen.has(subjects.join("\n")) && seen.add(subjects.join("\n")))
      .map((found): Finding => ({ code, severity, ...found, certainty: "certain", fixes: [] }));
  });
}
