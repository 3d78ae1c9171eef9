import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { FINDINGS } from "../../../src/core/check/findings/all.ts";
import { valuedOf } from "../../../src/core/check/system/parameterValues.ts";
import { widthClasses } from "../../../src/core/check/system/widths.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { Node, Shown, State } from "../../../src/core/semantics/types.ts";
import { oracle } from "../../oracle/oracle.ts";
import { amount } from "../../random/amount.ts";
import { seeded } from "../../random/documents.ts";
import { randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";
import { app } from "../../vectors/app.ts";

const DOCUMENTS = amount(1000, 40);
/** Those of them that are checked as well. */
const CHECKED = amount(100, 6);

describe("parameters that have no value", () => {
  const id = { params: [{ name: "id", type: "text", required: true }] };
  const detail = (passed: string | undefined, on = "pass.id=param.id"): Project =>
    app("s", {
      stacks: { s: "list item more" },
      screens: { item: id, more: id },
      facts: [{ id: "f", type: "boolean", initial: false, source: "outside" }],
      legs: [`open list push item${passed === undefined ? "" : ` pass.id=${passed}`}`, `on item push more ${on}`],
    });
  const told = (project: Project) => check(project).findings.map(({ code, subjects }) => [code, ...subjects].join(" "));

  it("a screen behind a leg that passes what never arrives is out of reach, with the reason and the fix where it was lost", () => {
    const broken = detail(undefined);
    const found = check(broken).findings.find(({ code }) => code === "unreachable");
    expect(found?.subjects).toEqual(["more"]);
    expect(found?.certainty).toBe("certain");
    expect(found?.message).toContain('A leg from "item" leads there, but the "id" that it must pass never has a value.');
    const [fix] = found?.fixes ?? [];
    expect(fix?.name).toBe('Pass id = "sample" from "list" to "item"');
    expect(told(fix ? applyEdit(broken, fix) : broken)).not.toContain("unreachable more");
    expect(told(detail("'x'"))).not.toContain("unreachable more");
  });

  it("is known where some legs hand it over and others do not: what needs it fails on the copies without, and nowhere else", () => {
    const project = app("s", {
      stacks: { s: "list item more end" },
      screens: { item: id, more: id, end: { up: "none" } },
      legs: ["open list push item pass.id='x'", "bare list push item", "on item push more pass.id=param.id", "lost item reset end if=!has(param.id)"],
    });
    const found = check(project).findings;
    expect(found.find(({ code }) => code === "dead-end")?.walk).toEqual([
      { do: "leg", leg: "bare" },
      { do: "leg", leg: "lost" },
    ]);
    expect(found.map(({ code }) => code)).not.toContain("unreachable");
    expect(found.filter(({ certainty }) => certainty === "possible")).toEqual([]);
  });

  it("a condition on it never holds, the opposite neither, and that it is not there does", () => {
    const when = (condition: string, passed: string | undefined) => told(detail(passed, `pass.id='x' if=${condition}`));
    for (const condition of ["param.id=='a'", "!(param.id=='a')", "has(param.id)", "param.id=='a'&&fact.f"])
      expect(when(condition, undefined), condition).toContain("unreachable more");
    for (const condition of ["!has(param.id)", "param.id=='a'||!has(param.id)"])
      expect(when(condition, undefined), condition).not.toContain("unreachable more");
    for (const condition of ["param.id=='x'", "!(param.id=='a')", "has(param.id)"]) expect(when(condition, "'x'"), condition).not.toContain("unreachable more");
  });
});

/** A document in which some values are not handed over. */
function lossy(seed: number): Project {
  const random = seeded(seed);
  const project = wholeDocument(seed);
  return {
    ...project,
    legs: project.legs.map((leg) => {
      if (!leg.move || !("pass" in leg.move) || !leg.move.pass || random() < 0.5) return leg;
      const { pass: _, ...move } = leg.move;
      return { ...leg, move: move as typeof leg.move };
    }),
  };
}

const screensIn = (node: Node): Shown[] =>
  node.kind === "shown" ? [node] : (node.kind === "stack" ? node.items : Object.values(node.lanes)).flatMap((one) => screensIn(one as Node));
const allIn = (state: State) => [state.base, ...state.layers.map(({ content }) => content)].flatMap(screensIn);

it(`on ${DOCUMENTS} random documents in which values are lost, no walk finds a value where none can be, or a screen that is out of reach`, () => {
  const wrong: string[] = [];
  let lacking = 0;
  let met = 0;
  for (let seed = 0; seed < DOCUMENTS; seed++) {
    const project = lossy(seed);
    const valued = valuedOf(project);
    const never = new Set(
      project.screens.flatMap(({ id, params }) =>
        params.flatMap(({ name }) => (valued.mayBe(["member", ["name", "param"], name], id) ? [] : [`${id} ${name}`])),
      ),
    );
    lacking += never.size;
    const unreachable = new Set(
      (seed < CHECKED ? check(project, { fixes: false }).findings : []).flatMap(({ code, certainty, subjects, widths }) =>
        code === "unreachable" && certainty === "certain" && (widths?.includes("narrow") ?? true) ? subjects : [],
      ),
    );
    const events = wholeEvents(project).filter((event) => event.do !== "width" && (event.do !== "enter" || event.cold));
    for (let walk = 0; walk < 8; walk++) {
      let state = launch(appOf(project));
      for (const event of randomWalk(project, events, seed * 100 + walk, 40)) {
        state = step(appOf(project), state, event).state;
        for (const { at, args } of allIn(state)) {
          for (const name of Object.keys(args)) {
            met += 1;
            if (never.has(`${at} ${name}`)) wrong.push(`seed ${seed}: ${at} has ${name}`);
          }
        }
        for (const at of [currentScreen(state).at, ...state.layers.map((layer) => layer.at)]) if (unreachable.has(at)) wrong.push(`seed ${seed}: ${at} shows`);
      }
    }
  }
  expect(wrong).toEqual([]);
  expect(lacking).toBeGreaterThan(DOCUMENTS / 2);
  expect(met).toBeGreaterThan(DOCUMENTS * 20);
});

/** The same with nothing that rests on what a value is, but only on whether it is there. */
function withoutValues(project: Project): Project {
  const rests = (text: string | undefined) => text !== undefined && /\b(param|item|field|next|prev|link)\b/.test(text) && !/^!?has\(param\.\w+\)$/.test(text);
  return {
    ...project,
    legs: project.legs.map(({ when, move, ...leg }) => ({
      ...leg,
      ...(when === undefined || rests(when) ? {} : { when }),
      ...(move && { move: "repeat" in move && move.repeat === "stay" ? { ...move, repeat: "rewind" } : move }),
    })),
  };
}

const COMPARED = new Set(FINDINGS.filter(({ code, inSearch }) => (inSearch && code !== "idle-leg") || code === "far").map(({ code }) => code));
const COMPLETE = Number(process.env.VALUED_DOCUMENTS ?? amount(200, 8));

it(`on ${COMPLETE} such documents nothing is missed that a plain search with all arguments finds`, () => {
  const missed: string[] = [];
  let followed = 0;
  for (let seed = 0, done = 0; done < COMPLETE; seed++) {
    const project = withoutValues(lossy(seed));
    const plain = widthClasses(project).map((widths) => ({ widths, lines: oracle(project, widths[0] ?? "narrow", 250, 6, wholeEvents(project)).findings }));
    if (plain.some(({ lines }) => !lines)) continue;
    done += 1;
    if (valuedOf(project).followed.size > 0) followed += 1;
    const found = check(project, { fixes: false }).findings.filter(({ code }) => COMPARED.has(code));
    for (const { widths, lines } of plain) {
      const here = found.filter((one) => one.widths === undefined || widths.some((width) => one.widths?.includes(width)));
      const named = new Set(here.map(({ code, subjects }) => [code, ...subjects].join(" ")));
      for (const line of lines ?? []) if (!named.has(line)) missed.push(`seed ${seed} ${widths}: ${line}`);
    }
  }
  expect(missed).toEqual([]);
  expect(followed).toBeGreaterThan(COMPLETE / 10);
});
