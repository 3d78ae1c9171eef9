import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { kotlinModule, kotlinRuntime } from "../../../src/core/handoff/kotlin/module.ts";
import { kotlin, kotlinPlan } from "../../../src/core/handoff/kotlin/plan.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { allEvents, pick, randomDocument, seeded } from "../../random/documents.ts";
import { VECTORS } from "../../vectors/all.ts";
import { app } from "../../vectors/app.ts";
import { eventOf, type Vector } from "../../vectors/vector.ts";

const installed = spawnSync("kotlinc", ["-version"]).error === undefined;
if (!installed) process.stderr.write("Kotlin is not installed: the generated Kotlin is neither compiled nor run. (apt-get install kotlin)\n");

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;

/** An event as Kotlin. */
function eventCode(event: NavEvent): string {
  switch (event.do) {
    case "leg":
      return `Event.UseLeg(${kotlin(event.leg)}, ${kotlin(event.item ?? null)}, ${event.fields ? kotlin(event.fields) : "null"})`;
    case "tab":
      return `Event.Tab(${kotlin(event.to)})`;
    case "pick":
      return `Event.Pick(${kotlin(event.to)})`;
    case "lead":
      return "Event.Lead";
    case "back":
      return "Event.Back";
    case "launch":
      return "Event.Launch";
    case "close":
      return `Event.Close(${kotlin(event.via)})`;
    case "enter":
      return `Event.Enter(${kotlin(event.entrance)}, ${kotlin(event.args ?? {})}, ${event.cold === true})`;
    case "fact":
      return `Event.SetFact(${kotlin(event.fact)}, ${kotlin(event.value)})`;
    case "width":
      return `Event.Width(${kotlin(event.to)})`;
  }
}

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

/** Random events in random documents. */
const RANDOM = Array.from({ length: 25 }, (_, seed) => {
  const project = randomDocument(seed, { broken: seed % 3 === 0, guarded: seed % 2 === 0, unknown: true });
  const random = seeded(seed);
  const events = allEvents(project);
  return byTheEngine(
    `random ${seed}`,
    project,
    Array.from({ length: 60 }, () => pick(random, events)),
  );
});

/** Every vector, the walks of the demo and random ones as the engine takes them. */
const CASES: Array<Pick<Vector, "app" | "launch" | "steps" | "says">> = [
  ...Object.values(VECTORS).flat(),
  ...demo.walks.map((walk) => byTheEngine(walk.name, demo, walk.events)),
  ...RANDOM,
];

/** One program that walks every vector: the runtime once, and a plan for each. */
function program(): Record<string, string> {
  const files: Record<string, string> = { "Runtime.kt": kotlinRuntime };
  CASES.forEach(({ app: project, steps }, i) => {
    const events = steps.map(([short]) => eventCode(eventOf(short)));
    files[`Case${i}.kt`] = `${kotlinPlan(project, `plan${i}`)}\nfun walk${i}() = walk(plan${i}, listOf(${events.join(", ")}))\n`;
  });
  const chunks = Array.from({ length: Math.ceil(CASES.length / 50) }, (_, c) => CASES.map((_, i) => i).slice(c * 50, c * 50 + 50));
  files["Main.kt"] = `
fun walk(plan: Data, events: List<Event>) {
    val engine = Engine(plan)
    var state = engine.launch()
    val out = mutableListOf(engine.line(state))
    for (event in events) {
        val result = engine.step(state, event)
        state = result.state
        out.add(when (result.outcome) { "moved" -> engine.line(state); "refused" -> "refused " + result.why; else -> result.outcome })
    }
    println(out.joinToString("\\t"))
}
${chunks.map((part, c) => `fun part${c}() {\n${part.map((i) => `    walk${i}()`).join("\n")}\n}`).join("\n")}
fun main() {
${chunks.map((_, c) => `    part${c}()`).join("\n")}
}
`;
  return files;
}

function compiled(files: Record<string, string>): { jar: string; says: string; status: number | null } {
  const folder = mkdtempSync(join(tmpdir(), "etape-kotlin-"));
  for (const [name, text] of Object.entries(files)) writeFileSync(join(folder, name), text);
  const jar = join(folder, "out.jar");
  const { status, stderr } = spawnSync("kotlinc", [...Object.keys(files), "-include-runtime", "-nowarn", "-d", jar], { cwd: folder, encoding: "utf8" });
  return { jar, status, says: stderr };
}

describe.skipIf(!installed)("the generated Kotlin", { timeout: 400_000 }, () => {
  it("moves as the engine does on every vector, on the walks of the demo and on random events", () => {
    const { jar, status, says } = compiled(program());
    expect(status, says).toBe(0);
    const lines = execFileSync("java", ["-cp", jar, "MainKt"], { encoding: "utf8" }).trimEnd().split("\n");
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
