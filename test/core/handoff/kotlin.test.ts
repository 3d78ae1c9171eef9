import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { kotlinModule, kotlinRuntime } from "../../../src/core/handoff/kotlin/module.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { planData, planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { allEvents, randomDocument } from "../../random/documents.ts";
import { randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";
import { VECTORS } from "../../vectors/all.ts";
import { app } from "../../vectors/app.ts";
import { eventOf, type Vector } from "../../vectors/vector.ts";

const installed = spawnSync("kotlinc", ["-version"]).error === undefined;
if (!installed) process.stderr.write("Kotlin is not installed: the generated Kotlin is neither compiled nor run. (apt-get install kotlin)\n");

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;

/** A walk as the engine takes it. */
function byTheEngine(says: string, project: Project, events: readonly NavEvent[]): Vector {
  let state = launch(appOf(project));
  const first = stateLine(planOf(project), state);
  const steps = events.map((event): [NavEvent, string] => {
    const result = step(appOf(project), state, event);
    state = result.state;
    return [event, result.outcome === "moved" ? stateLine(planOf(project), state) : result.outcome === "refused" ? `refused ${result.why}` : result.outcome];
  });
  return { says, app: project, launch: first, steps };
}

/** Random events, most of them possible, in random documents in which everything of the model occurs. */
const RANDOM = Array.from({ length: 40 }, (_, seed) => {
  const project = seed % 4 === 0 ? randomDocument(seed, { broken: true, guarded: true, unknown: true }) : wholeDocument(seed);
  const walk = randomWalk(project, seed % 4 === 0 ? allEvents(project) : wholeEvents(project), seed, 60);
  return byTheEngine(`random ${seed}`, project, walk);
});

/** Every vector, the walks of the demo and random ones as the engine takes them. */
const CASES: Array<Pick<Vector, "app" | "launch" | "steps" | "says">> = [
  ...Object.values(VECTORS).flat(),
  ...demo.walks.map((walk) => byTheEngine(walk.name, demo, walk.events)),
  ...RANDOM,
];

/** One program that walks whatever cases it reads, one a line: a plan as JSON, and events. */
const PROGRAM = {
  "Runtime.kt": kotlinRuntime,
  "Main.kt": `
import java.io.File

fun eventOf(it: Data): Event = when (it["do"]) {
    "leg" -> Event.UseLeg(it["leg"] as String, it["item"], it["fields"] as Args?)
    "tab" -> Event.Tab(it["to"] as String)
    "pick" -> Event.Pick(it["to"] as String)
    "lead" -> Event.Lead
    "back" -> Event.Back
    "launch" -> Event.Launch
    "close" -> Event.Close(it["via"] as String)
    "enter" -> Event.Enter(it["entrance"] as String, it["args"] as Args? ?: mapOf(), it["cold"] == true)
    "fact" -> Event.SetFact(it["fact"] as String, it["value"] ?: "")
    else -> Event.Width(it["to"] as String)
}

fun main(files: Array<String>) {
    for (line in File(files[0]).readLines()) {
        val case = readPlan(listOf(line))
        val engine = Engine(case["plan"] as Data)
        var state = engine.launch()
        val out = mutableListOf(engine.line(state))
        for (event in case["events"] as List<Data>) {
            val result = engine.step(state, eventOf(event))
            state = result.state
            out.add(when (result.outcome) { "moved" -> engine.line(state); "refused" -> "refused " + result.why; else -> result.outcome })
        }
        println(out.joinToString("\\t"))
    }
}
`,
};

function compiled(files: Record<string, string>): { jar: string; says: string; status: number | null } {
  const folder = mkdtempSync(join(tmpdir(), "etape-kotlin-"));
  for (const [name, text] of Object.entries(files)) writeFileSync(join(folder, name), text);
  const jar = join(folder, "out.jar");
  const { status, stderr } = spawnSync("kotlinc", [...Object.keys(files), "-include-runtime", "-nowarn", "-d", jar], { cwd: folder, encoding: "utf8" });
  return { jar, status, says: stderr };
}

describe.skipIf(!installed)("the generated Kotlin", { timeout: 400_000 }, () => {
  it("moves as the engine does on every vector, on the walks of the demo and on random events", () => {
    const { jar, status, says } = compiled(PROGRAM);
    expect(status, says).toBe(0);
    const cases = `${jar}.cases`;
    const text = CASES.map(({ app: project, steps }) => JSON.stringify({ plan: planData(project), events: steps.map(([short]) => eventOf(short)) }));
    writeFileSync(cases, text.join("\n"));
    const lines = execFileSync("java", ["-cp", jar, "MainKt", cases], { encoding: "utf8" }).trimEnd().split("\n");
    expect(lines).toHaveLength(CASES.length);
    CASES.forEach(({ launch: first, steps, says: sentence }, i) => {
      expect(lines[i]?.split("\t"), sentence).toEqual([first, ...steps.map(([, expected]) => expected.replace(/^ignored .*/, "ignored"))]);
    });
  });

  it("compiles whatever the names, and refuses a call without an argument", () => {
    const words = app("when", {
      stacks: { when: "fun val" },
      screens: {
        fun: { name: '*/ $x "quoted"\n', params: [{ name: "object", type: "state", required: true }] },
        val: { code: "class", params: [{ name: "in", type: "integer", required: false }] },
      },
      types: [{ id: "state", name: "$State", fields: [{ name: "is", type: "text" }], samples: [{ is: "$is \\ é" }] }],
      legs: ["return val push fun", "throw fun push val"],
    });
    const use = (call: string) => ({ "Words.kt": kotlinModule(words), "Use.kt": `fun use(): Event = ${call}\n` });
    const right = compiled(use('Legs.`return`(FunArguments(`object` = StateRow(`is` = "x")))'));
    expect(right.status, right.says).toBe(0);
    const wrong = compiled(use("Legs.`return`(FunArguments())"));
    expect(wrong.status).not.toBe(0);
    expect(wrong.says).toContain("object");
  });
});
