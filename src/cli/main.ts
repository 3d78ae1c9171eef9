import { Command, CommanderError, InvalidArgumentError, Option } from "commander";
import { version } from "../../package.json";
import { FAR } from "../core/check/options.ts";
import { TARGETS } from "../core/handoff/target.ts";
import { LENSES } from "../core/map/lenses/names.ts";
import { DRAWINGS } from "../core/map/types.ts";
import { checkCommand } from "./check.ts";
import { diffCommand } from "./diff.ts";
import { drawCommand } from "./draw.ts";
import { Unusable } from "./files.ts";
import { followCommand } from "./follow.ts";
import { formatCommand } from "./format.ts";
import { genCommand } from "./gen.ts";
import { IMPORTS, importCommand } from "./import.ts";
import { linesCommand } from "./lines.ts";
import { mergeCommand } from "./merge.ts";
import { openCommand } from "./open.ts";
import { packCommand, unpackCommand } from "./pictures.ts";
import { serveCommand } from "./serve.ts";
import { stepCommand } from "./step.ts";
import { walkCommand } from "./walk.ts";

/** A number of taps as it is typed. */
function tapsOf(typed: string): number {
  if (!/^[1-9]\d{0,3}$/.test(typed)) throw new InvalidArgumentError("A whole number of taps is expected, from 1 on.");
  return Number(typed);
}

/** Runs the command line; gives the exit status: 0 as asked, 1 as a command says, 2 unusable input or usage. */
export async function main(args: string[]): Promise<number> {
  let status = 0;
  const done = (code: number) => {
    status = code;
  };
  const program = new Command("etape")
    .description("Checks, walks and hands off an app's navigation.")
    .version(version, "-V, --version", "prints the version")
    .exitOverride()
    .showHelpAfterError("(etape --help lists the commands)");
  program
    .command("check")
    .description("reports what is wrong, with a walk for each fault")
    .argument("<file>", "a project document, or quick lines (.lines); - reads standard input")
    .addOption(new Option("--format <format>").choices(["text", "json", "sarif", "junit"]).default("text"))
    .addOption(
      new Option("--fail-on <severity>", "exit 1 where there is a finding of at least this severity")
        .choices(["blocker", "warning", "note"])
        .default("blocker"),
    )
    .option("--allow-open", "do not fail for what is only not built yet")
    .addOption(new Option("--far <taps>", "taps from launch beyond which a screen is far").argParser(tapsOf).default(FAR))
    .option("--trace", "say on standard error what the checker looks at, how closely, and what it leaves unsure")
    .option("--dot <file>", "write the states that were looked at as a graph, for Graphviz")
    .action(async (file, options) => done(await checkCommand(file, options)));
  program
    .command("step")
    .description("replays events from launch")
    .argument("<file>", "a project document, or quick lines (.lines)")
    .requiredOption("--events <file>", "events as JSON (a list, or one a line); - reads standard input")
    .addOption(new Option("--format <format>").choices(["json", "lines"]).default("json"))
    .action(async (file, options) => done(await stepCommand(file, options)));
  program
    .command("draw")
    .description("draws the map as SVG")
    .argument("<file>", "a project document, or quick lines (.lines); - reads standard input")
    .requiredOption("--out <file>", "where to write it; - writes standard output")
    .addOption(new Option("--as <drawing>", "cards with their elements, small pictures, or a name for each screen").choices(DRAWINGS).default("rows"))
    .option("--room <size>", "pixels that faces and names are laid for, as WIDTHxHEIGHT", "1280x700")
    .addOption(new Option("--lens <lens>", "what to colour the map by").choices(LENSES.map(({ id }) => id)))
    .option("--from <place>", "with reach: count from this tab or screen, not from launch")
    .option("--back-to <screen>", "with reach: count the taps back to this screen")
    .option("--value <value>", "with data: the value to follow, as SCREEN.PARAMETER")
    .option("--against <file>", "with changed: the older document")
    .option("--log <file>", "with followed: what the running app logged")
    .option("--with-tests", "with walked: count the generated tests as well")
    .addHelpText("after", "\nExample: etape draw app.etape.json --as names --lens reach --out map.svg")
    .action(async (file, options) => done(await drawCommand(file, options)));
  program
    .command("lines")
    .description("tells a project as quick lines")
    .argument("<file>", "a project document, or quick lines (.lines); - reads standard input")
    .option("--out <file>", "where to write them; - writes standard output", "-")
    .addHelpText("after", "\nExample: etape lines app.etape.json > app.lines\n         etape import app.lines --from lines --out app.etape.json")
    .action(async (file, options) => done(await linesCommand(file, options)));
  program
    .command("gen")
    .description("writes a hand-off: 0 written, 1 blockers make it meaningless, or what lies there is not of this design (--check)")
    .argument("<file>", "a project document, or quick lines (.lines); - reads standard input")
    .addOption(new Option("--to <target>").choices([...TARGETS.map((target) => target.id), "all"]).makeOptionMandatory())
    .requiredOption("--out <folder>", "where to write it")
    .option("--check", "only say whether what lies there is of this design")
    .option("--package <name>", "with kotlin: the package; with swift: the enum that is the namespace")
    .option("--react", "with typescript: a small file for React apps as well")
    .action(async (file, options) => done(await genCommand(file, options)));
  program
    .command("import")
    .description("makes a project document from something else")
    .argument("<file>", "what to read; - reads standard input")
    .addOption(new Option("--from <kind>").choices(IMPORTS).makeOptionMandatory())
    .requiredOption("--out <file>", "where to write the document; - writes standard output")
    .action(async (file, options) => done(await importCommand(file, options)));
  program
    .command("pack")
    .description("puts a document and its pictures (NAME.pictures/ beside it) into one file: 0 all of them, 1 one is not there")
    .argument("<file>", "a project document")
    .requiredOption("--out <file>", "where to write it")
    .addHelpText("after", "\nExample: etape pack app.etape.json --out app.etape.zip")
    .action(async (file, options) => done(await packCommand(file, options)));
  program
    .command("unpack")
    .description("takes a document and its pictures out of one file; the pictures go into NAME.pictures/ beside it")
    .argument("<file>", "NAME.etape.zip, as it is packed or exported")
    .requiredOption("--out <file>", "where to write the document")
    .addHelpText("after", "\nExample: etape unpack app.etape.zip --out app.etape.json")
    .action(async (file, options) => done(await unpackCommand(file, options)));
  program
    .command("diff")
    .description("what changed between two documents, and which findings came and went: 0 nothing, 1 something")
    .argument("<old>", "a project document, or quick lines (.lines)")
    .argument("<new>", "a project document, or quick lines (.lines)")
    .addOption(new Option("--format <format>").choices(["text", "json", "markdown"]).default("text"))
    .action(async (older, newer, options) => done(await diffCommand(older, newer, options)));
  program
    .command("merge")
    .description("merges two documents that began as the same one: 0 merged, 1 where both changed something differently")
    .argument("<base>", "the document that both began as; empty where there was none")
    .argument("<ours>", "our document, which stays where both differ")
    .argument("<theirs>", "their document")
    .option("--out <file>", "where to write what they make; - writes standard output", "-")
    .addHelpText("after", "\nExample: etape merge base.etape.json ours.etape.json theirs.etape.json --out app.etape.json")
    .action(async (base, ours, theirs, options) => done(await mergeCommand(base, ours, theirs, options)));
  program
    .command("follow")
    .description("holds what a running app did against its design: 0 it follows it, 1 it departs from it")
    .argument("<file>", "a project document, or quick lines (.lines); - reads standard input")
    .requiredOption("--log <file>", "what the app logged: JSON, one object a line, or OTLP/JSON; - reads standard input")
    .addOption(new Option("--format <format>").choices(["text", "json", "junit"]).default("text"))
    .option("--keep <run>", "keep the walk of this run in the document, in place of a report")
    .option("--until <line>", "with --keep: no further than this line of the log")
    .option("--out <file>", "with --keep: where to write the document; - writes standard output", "-")
    .addHelpText("after", "\nExample: etape follow app.etape.json --log session.jsonl")
    .action(async (file, options) => done(await followCommand(file, options)));
  program
    .command("format")
    .description("writes a document in its canonical form")
    .argument("<file>", "a project document; - reads standard input and writes standard output")
    .option("--check", "only say whether it is canonical: 0 it is, 1 it is not")
    .action(async (file, options) => done(await formatCommand(file, options)));
  program
    .command("walk")
    .description("replays the walks kept in a document: 0 all pass, 1 one does not")
    .argument("<file>", "a project document, or quick lines (.lines); - reads standard input")
    .addOption(new Option("--format <format>").choices(["text", "json", "junit"]).default("text"))
    .action(async (file, options) => done(await walkCommand(file, options)));
  program
    .command("serve")
    .description("serves the application, and prototypes to a phone")
    .option("--port <number>", "the port; a free one where it is taken", "5173")
    .option("--lan", "to all machines in the network, not to this one alone")
    .action(async (options) => serveCommand(options));
  program
    .command("open")
    .description("opens a project document in the application: what is changed there is written to the file, and what changes in the file comes in")
    .argument("<file>", "a project document")
    .option("--port <number>", "the port; a free one where it is taken", "5173")
    .addHelpText("after", "\nExample: etape open app.etape.json")
    .action(async (file, options) => openCommand(file, options));
  for (const command of program.commands) command.exitOverride();
  try {
    await program.parseAsync(args, { from: "user" });
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (!(error instanceof Unusable)) throw error;
    process.stderr.write(error.message.endsWith("\n") ? error.message : `${error.message}\n`);
    return 2;
  }
  return status;
}
