import { useMemo, useState } from "react";
import { standingText } from "../../../core/check/standingText.ts";
import { type SuggestedRule, suggestedRules } from "../../../core/insight/rules/suggest.ts";
import { addRule, changeRule, freshRuleId, removeRule } from "../../../core/model/edits/rules.ts";
import { RULE_KINDS, ruleSentence } from "../../../core/model/ruleWords.ts";
import type { Project, Rule } from "../../../core/model/schema.ts";
import { usePlay } from "../../session/actions/usePlay.ts";
import { useDocument, useFindings } from "../../session/hooks.ts";
import type { PlainFinding, PlainResult } from "../../worker/protocol.ts";
import { type Draft, draftOf, emptyDraft, ruleOf } from "./draft.ts";
import { RuleEditor } from "./RuleEditor.tsx";

type Standing = NonNullable<PlainResult["proof"]["rules"]>[number];

/** The team's own rules: each a sentence, with how it stands; the one that is written open. */
export function RulesPanel() {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const result = useFindings((f) => f.result);
  const waiting = useFindings((f) => f.running || f.of !== project);
  // Which rule is open; what is written of it stands in the document, except for what is not a whole rule yet.
  const [opened, setOpened] = useState<string>();
  const [unfinished, setUnfinished] = useState<Draft>();
  // A rule that is new stays where it was begun, also once it is whole and in the document.
  const [fresh, setFresh] = useState(0);
  const rules = project.rules ?? [];
  const inDocument = rules.find(({ id }) => id === opened);
  const draft = unfinished ?? (inDocument && draftOf(project, inDocument));
  const close = () => {
    setOpened(undefined);
    setUnfinished(undefined);
  };
  const standings = new Map((result?.proof.rules ?? []).map((one) => [one.rule, one]));
  const held = rules.filter(({ id }) => standings.get(id)?.standing === "proved").length;
  const suggestions = useMemo(() => suggestedRules(project), [project]);

  const change = (next: Draft) => {
    const rule = ruleOf(project, next);
    setUnfinished(rule ? undefined : next);
    if (!rule) return;
    if (inDocument) return apply(changeRule(rule));
    const id = freshRuleId(project, rule.name);
    apply(addRule({ ...rule, id }));
    setOpened(id);
  };
  const remove = () => {
    close();
    if (inDocument) apply(removeRule(project, inDocument.id));
  };
  const open = (rule: Rule) => {
    setFresh(0);
    setOpened(rule.id);
    setUnfinished(undefined);
  };
  const begin = (kind: Rule["kind"]) => {
    setFresh((count) => count + 1);
    setOpened(undefined);
    setUnfinished(emptyDraft(kind));
  };
  const editor = draft && <RuleEditor key={fresh > 0 ? fresh : draft.id} project={project} draft={draft} onChange={change} onDone={close} onDelete={remove} />;
  return (
    <section aria-label="Rules" className="flex min-h-0 flex-col border-t-2 border-ink/60 bg-sheet">
      <header className="flex shrink-0 flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hairline px-4 py-2">
        <h2 className="caption m-0 text-[13px]">Rules</h2>
        <p className="m-0 text-[12px] text-ink-2">
          {rules.length === 0 ? "What you promise of this app, proved at every edit." : `${held} of ${rules.length} hold${waiting ? ", checking…" : ""}`}
        </p>
        <div className="ml-auto flex items-center gap-1" role="group" aria-label="Add a rule">
          <span className="text-[12px] text-ink-2">Add:</span>
          {(Object.keys(RULE_KINDS) as Rule["kind"][]).map((kind) => (
            <button
              key={kind}
              type="button"
              title={RULE_KINDS[kind].says}
              onClick={() => begin(kind)}
              className="min-h-6 border border-hairline bg-paper px-2 text-[12px] hover:border-ink"
            >
              {RULE_KINDS[kind].title}
            </button>
          ))}
        </div>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <ul className="m-0 list-none p-0">
          {rules.map((rule) =>
            fresh > 0 && opened === rule.id ? null : opened === rule.id ? (
              <li key={rule.id}>
                {editor}
                <Standing standing={standings.get(rule.id)} waiting={waiting} finding={brokenOf(result, rule.id)} />
              </li>
            ) : (
              <RuleRow
                key={rule.id}
                project={project}
                rule={rule}
                standing={standings.get(rule.id)}
                waiting={waiting}
                finding={brokenOf(result, rule.id)}
                onOpen={() => open(rule)}
              />
            ),
          )}
        </ul>
        {fresh > 0 && draft && (
          <>
            {editor}
            {inDocument && <Standing standing={standings.get(inDocument.id)} waiting={waiting} finding={brokenOf(result, inDocument.id)} />}
          </>
        )}
        {rules.length === 0 && draft === undefined && <Kinds onAdd={begin} />}
        <Suggestions
          list={suggestions}
          project={project}
          onAdd={({ rule }) => {
            const id = freshRuleId(project, rule.name);
            apply(addRule({ ...rule, id }));
          }}
        />
      </div>
    </section>
  );
}

/** The finding that a rule is broken. */
function brokenOf(result: PlainResult | undefined, id: string): PlainFinding | undefined {
  return result?.findings.find(({ code, subjects }) => code === "broken-rule" && subjects[0] === id);
}

interface RowProps {
  project: Project;
  rule: Rule;
  standing: Standing | undefined;
  waiting: boolean;
  finding: PlainFinding | undefined;
  onOpen: () => void;
}

function RuleRow({ project, rule, standing, waiting, finding, onOpen }: RowProps) {
  return (
    <li data-rule={rule.id} className="border-b border-hairline">
      <button type="button" onClick={onOpen} className="block min-h-6 w-full px-4 pt-1.5 text-left hover:bg-band" title="Change this rule">
        <span className="text-[13px] font-semibold">{rule.name}</span>{" "}
        <span className="text-[12.5px] text-ink-2">{ruleSentence(project, rule).replace(/"([^"]*)"/g, "“$1”")}</span>
      </button>
      <Standing standing={standing} waiting={waiting} finding={finding} />
    </li>
  );
}

const GROUND: Record<Standing["standing"], string> = {
  proved: "bg-proved",
  checked: "border border-proved",
  broken: "bg-urgent",
  empty: "bg-warm",
  unsettled: "border border-urgent",
};

/** How a rule stands, with the walk that breaks it. */
function Standing({ standing, waiting, finding }: { standing: Standing | undefined; waiting: boolean; finding: PlainFinding | undefined }) {
  const play = usePlay();
  const dim = waiting || standing?.standing === "unsettled" ? "opacity-60" : "";
  return (
    <p data-standing={standing?.standing} className={`m-0 flex items-baseline gap-2 px-4 pb-1.5 text-[12.5px] ${dim}`}>
      <span className={`h-2 w-2 shrink-0 rounded-full ${standing ? GROUND[standing.standing] : "bg-hairline"}`} />
      <span className={`min-w-0 flex-1 ${standing?.standing === "proved" ? "text-proved" : ""}`}>
        {standing ? shortened(standingText(standing)) : "Being checked…"}
      </span>
      {finding?.walk && (
        <button type="button" className="min-h-6 shrink-0 font-semibold text-accent hover:underline" onClick={() => play(finding)}>
          Walk it
        </button>
      )}
    </p>
  );
}

/** What is said of a rule without its name, which stands above it. */
function shortened(text: string): string {
  const short = text.replace(/^The rule ".*?" (is broken: |says nothing: )?/, "");
  const said = short === text ? text : short.charAt(0).toUpperCase() + short.slice(1);
  return said.replace(/"([^"]*)"/g, "“$1”");
}

/** What the kinds of rules are for, where there is none yet. */
function Kinds({ onAdd }: { onAdd: (kind: Rule["kind"]) => void }) {
  return (
    <ul className="m-0 grid list-none grid-cols-2 gap-x-6 gap-y-1 px-4 py-3">
      {(Object.keys(RULE_KINDS) as Rule["kind"][]).map((kind) => (
        <li key={kind}>
          <button type="button" onClick={() => onAdd(kind)} className="min-h-6 text-left text-[12.5px] hover:underline">
            <span className="font-semibold text-accent">{RULE_KINDS[kind].title}</span> {RULE_KINDS[kind].says}
          </button>
        </li>
      ))}
    </ul>
  );
}

interface SuggestionsProps {
  list: readonly SuggestedRule[];
  project: Project;
  onAdd: (one: SuggestedRule) => void;
}

/** Rules that the design gives reason for, as questions. */
function Suggestions({ list, project, onAdd }: SuggestionsProps) {
  if (list.length === 0) return null;
  return (
    <section aria-label="Suggestions" className="px-4 pb-3">
      <h3 className="caption m-0 pt-2 pb-1">From your design</h3>
      <ul className="m-0 list-none p-0">
        {list.map((one) => (
          <li key={one.why} className="flex items-baseline gap-3 py-0.5 text-[12.5px]">
            <span className="min-w-0 flex-1" title={ruleSentence(project, one.rule)}>
              {one.why}
            </span>
            <button type="button" className="min-h-6 shrink-0 font-semibold text-accent hover:underline" onClick={() => onAdd(one)}>
              Yes, add it
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
