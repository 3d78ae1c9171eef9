import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beforeAll, describe, expect, it } from "vitest";
import { readLog } from "../../../src/core/following/read.ts";
import { followLog } from "../../../src/core/following/tally.ts";
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

const bandstand = readProject(readFileSync("examples/bandstand/bandstand.etape.json", "utf8"));
if (!bandstand.ok) throw new Error("the example can be read");
const design = bandstand.project;

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

/** Names that are words of Kotlin, and worse. */
const WORDS = app("when", {
  stacks: { when: "fun val string", list: "object" },
  tabs: { class: "when list" },
  screens: {
    fun: {
      name: '*/ $x "quoted"\n',
      params: [{ name: "object", type: "state", required: true }],
      elements: [{ id: "object", kind: "field", label: "Object" }],
    },
    val: {
      code: "class",
      params: [{ name: "in", type: "integer", required: false }],
      elements: [{ id: "rows", kind: "list", label: "Rows", of: "state" }],
    },
    string: { params: [{ name: "row", type: "date", required: true }] },
  },
  facts: [
    { id: "is", type: "choice", values: ["a b", "a-b", "1"], initial: "1", source: "outside" },
    { id: "as", type: "boolean", initial: false, source: "app", persists: true },
  ],
  types: [
    {
      id: "state",
      name: "$State",
      fields: [
        { name: "is", type: "text" },
        { name: "of", type: "state" },
      ],
      samples: [{ is: "$is \\ é" }],
    },
  ],
  legs: ["return val:on(rows) push fun pass.object=item", "throw fun:submit(go) push string pass.row=field.object", "do val push val pass.in=1"],
  entrances: [{ id: "try", name: "Try", kind: "link", pattern: "/try/{in}", to: "val", warm: "rebuild" }],
});
const use = (call: string) => ({ "Use.kt": `package park.words\nfun use(): Any = ${call}\n` });

/** A program that goes through the example and tells what it finds. */
const TOLD = `
package bandstand
fun main() {
    val logged = mutableListOf<String>()
    val nav = Navigator(Rows(gig = { listOf(GigRow("g1", "Larks", "Wex"), GigRow("g9", "Own", "Wex")) }), mapOf("member" to true, "tried" to true, "gone" to 1.0), { logged.add(it) }, "k1")
    val heard = mutableListOf<String>()
    val stop = nav.listen { heard.add(nav.line) }
    println(nav.facts)
    nav.send(Legs.chooseTown())
    nav.send(Legs.townPicked(TownRow("Wex")))
    println(nav.screen)
    nav.send(Legs.toGig(GigRow("g 1/ä", "Larks", "Wex")))
    println(nav.address)
    val kept = nav.toJson()
    stop()
    val other = Navigator()
    println(other.restore("{broken"))
    println(other.restore(kept.replace("plan", "plane")))
    println(other.restore(kept))
    println(other.line + " " + other.screen + " " + (other.toJson() == kept))
    println(other.open("https://park.example/g/x%20y?q#z")?.outcome + " " + other.screen + " " + other.open("/nothing")?.outcome)
    println(other.send(Legs.rules()).url + " " + other.send(Tabs.me).outcome + " " + other.send(Legs.rules()).url + " " + other.why(Legs.paid()))
    println(other.stored.toString() + " " + heard.size + " " + nav.due)
    println(viewOf(object : Views<String> {
${design.screens.map(({ id }) => `        override fun ${id}(screen: Screen.${id.charAt(0).toUpperCase()}${id.slice(1)}) = "${id}"`).join("\n")}
    }, nav.screen))
    nav.send(Event.UseLeg("toSignIn", null, mapOf("email" to "secret")))
    nav.restore(kept)
    logged.forEach { println(it) }
}
`;

/** All that must compile, compiled once: each in a package of its own. */
const ALL = {
  ...PROGRAM,
  "Words.kt": kotlinModule(WORDS, "park.words"),
  ...use(
    'listOf(Legs.`return`(StateRow(`is` = "x", of = null)), Legs.`throw`("x"), Ways.`try`(3), Tabs.`when`, Picks, Navigator(object : Guards { override fun `is`() = IsFact.A_B }).screen)',
  ),
  "Navigation.kt": kotlinModule(design, "bandstand"),
  "Told.kt": TOLD,
};

/** @param beside what was compiled before and is used */
function compiled(files: Record<string, string>, beside?: string): { jar: string; says: string; status: number | null } {
  const folder = mkdtempSync(join(tmpdir(), "etape-kotlin-"));
  for (const [name, text] of Object.entries(files)) writeFileSync(join(folder, name), text);
  const jar = join(folder, "out.jar");
  const library = beside === undefined ? ["-include-runtime"] : ["-cp", beside];
  // The compiler is done before it would pay to optimise it.
  const env = { ...process.env, JAVA_OPTS: "-XX:TieredStopAtLevel=1 -XX:+UseSerialGC" };
  const { status, stderr } = spawnSync("kotlinc", [...Object.keys(files), ...library, "-nowarn", "-d", jar], { cwd: folder, encoding: "utf8", env });
  return { jar, status, says: stderr };
}

describe.skipIf(!installed)("the generated Kotlin", () => {
  let jar = "";
  beforeAll(() => {
    const made = compiled(ALL);
    expect(made.status, made.says).toBe(0);
    jar = made.jar;
  });

  it("moves as the engine does on every vector, on the walks of the demo and on random events", () => {
    const cases = `${jar}.cases`;
    const text = CASES.map(({ app: project, steps }) => JSON.stringify({ plan: planData(project), events: steps.map(([short]) => eventOf(short)) }));
    writeFileSync(cases, text.join("\n"));
    const lines = execFileSync("java", ["-cp", jar, "MainKt", cases], { encoding: "utf8" }).trimEnd().split("\n");
    expect(lines).toHaveLength(CASES.length);
    CASES.forEach(({ launch: first, steps, says: sentence }, i) => {
      expect(lines[i]?.split("\t"), sentence).toEqual([first, ...steps.map(([, expected]) => expected.replace(/^ignored .*/, "ignored"))]);
    });
  });

  it("compiles whatever the names, and refuses a call without its row, a wrong field and a table of views with one missing", () => {
    const wrong = compiled(
      use('listOf(Legs.`return`(), Legs.`throw`(1), Ways.`try`("x"), Tabs.list2, object : Views<Int> { override fun string(screen: Screen.String2) = 1 })'),
      jar,
    );
    expect(wrong.status).not.toBe(0);
    for (const says of [
      "no value passed for parameter 'row'",
      "integer literal does not conform to the expected type String",
      "but Int was expected",
      "list2",
      "is not abstract",
    ])
      expect(wrong.says).toContain(says);
  });

  it("keeps, gives back, hands back, tells: facts, a state as text, addresses, what is due, urls", () => {
    const printed = execFileSync("java", ["-cp", jar, "bandstand.ToldKt"], { encoding: "utf8" }).trimEnd().split("\n");
    const { log, problems } = readLog(printed.slice(11).join("\n"));
    expect(problems).toEqual([]);
    expect(log.map(({ entry }) => [entry.run, entry.event?.do, entry.restored, entry.shows])).toEqual([
      ["k1", "launch", undefined, "gigs"],
      ["k1", "leg", undefined, "town"],
      ["k1", "leg", undefined, "gigs"],
      ["k1", "leg", undefined, "gig"],
      ["k1", "leg", undefined, "gig"],
      ["k1", undefined, true, "gig"],
    ]);
    expect(printed.join("\n")).not.toContain("secret");
    expect(followLog(design, log).departures).toEqual([]);
    expect(printed.slice(0, 11)).toEqual([
      "Facts(tried=false, member=true)",
      "Gigs(town=Wex)",
      "/gigs/g%201%2F%C3%A4",
      "false",
      "false",
      "true",
      "tabs{*gigsTab[gigs,gig]} Gig(gigId=g 1/ä) true",
      "moved Gig(gigId=x y) null",
      "null moved /rules.html no-such-control",
      "{member=true} 3 []",
      "gig",
    ]);
  });
});
