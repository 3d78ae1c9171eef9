import { since } from "../core/check/compareFindings.ts";
import { coveringWalks } from "../core/handoff/tests/cover.ts";
import type { LensChoice, LensGiven, LensId } from "../core/map/lenses/lens.ts";
import { lensView } from "../core/map/lenses/table.ts";
import { mapSvg } from "../core/map/svg.ts";
import type { Drawing, Room } from "../core/map/types.ts";
import { lookup } from "../core/model/lookup.ts";
import type { Project } from "../core/model/schema.ts";
import { checked } from "./checked.ts";
import { readDesign, Unusable, writeOut } from "./files.ts";
import { followFile } from "./follow.ts";
import { addressesOf, picturesBeside } from "./pictures.ts";

interface DrawOptions {
  out: string;
  as: Drawing;
  room?: string;
  lens?: LensId;
  from?: string;
  backTo?: string;
  value?: string;
  against?: string;
  withTests?: boolean;
  log?: string;
}

/** `etape draw`: the map as an SVG file, as rows, faces or names, through a lens where one is asked for. */
export async function drawCommand(file: string, options: DrawOptions): Promise<number> {
  const { project } = await readDesign(file);
  const room = options.room === undefined ? undefined : roomOf(options.room);
  const lens = options.lens && lensView(project, choiceOf(project, options.lens, options), await givenOf(project, options));
  const addresses = options.as === "faces" ? addressesOf((await picturesBeside(file, project)) ?? new Map()) : {};
  const pictures = (path: string) => (Object.hasOwn(addresses, path) ? addresses[path] : undefined);
  await writeOut(options.out, mapSvg(project, { drawing: options.as, pictures, ...(room ? { room } : {}), ...(lens ? { lens } : {}) }));
  return 0;
}

function roomOf(text: string): Room {
  const [, width = 0, height = 0] = (/^(\d{2,5})x(\d{2,5})$/.exec(text) ?? []).map(Number);
  if (width < 200 || height < 200) throw new Unusable(`--room: found “${text}”, expected pixels as WIDTHxHEIGHT, each 200 or more, such as 1280x700`);
  return { width, height };
}

function choiceOf(project: Project, lens: LensId, { from, backTo, value, against, withTests }: DrawOptions): LensChoice {
  switch (lens) {
    case "reach": {
      const { places, screens } = lookup(project);
      if (from !== undefined && !places.has(from)) throw new Unusable(`--from: there is no place “${from}” in this document`);
      if (backTo !== undefined && !screens.has(backTo)) throw new Unusable(`--back-to: there is no screen “${backTo}” in this document`);
      return { lens, ...(from === undefined ? {} : { from }), ...(backTo === undefined ? {} : { to: backTo }) };
    }
    case "data": {
      if (value === undefined) return { lens };
      const [screen = "", param = ""] = value.split(".");
      if (
        !lookup(project)
          .screens.get(screen)
          ?.params.some(({ name }) => name === param)
      )
        throw new Unusable(`--value: found “${value}”, expected a screen and one of its parameters, such as ${exampleOf(project)}`);
      return { lens, screen, param };
    }
    case "changed":
      if (against === undefined) throw new Unusable("--lens changed needs --against FILE, the older document");
      return { lens, against };
    case "walked":
      return { lens, tests: withTests === true };
    default:
      return { lens };
  }
}

function exampleOf(project: Project): string {
  const one = project.screens.find(({ params }) => params.length > 0);
  return one ? `${one.id}.${one.params[0]?.name}` : "order.orderId";
}

async function givenOf(project: Project, { lens, against, withTests, log }: DrawOptions): Promise<LensGiven> {
  switch (lens) {
    case "findings":
      return { findings: checked(project, { fixes: false }).findings };
    case "walked":
      return withTests ? { walks: coveringWalks(project).walks } : {};
    case "changed": {
      if (against === undefined) return {};
      const { project: older } = await readDesign(against);
      const { came, went } = since(checked(older, { fixes: false }).findings, checked(project, { fixes: false }).findings);
      return { older: { project: older, name: against, came: came.map(({ message }) => message), went: went.map(({ message }) => message) } };
    }
    case "followed": {
      if (log === undefined) throw new Unusable("--lens followed needs --log FILE, what the app logged");
      const { entries, screens, legs, departures } = await followFile(project, log);
      return { log: { entries, screens, legs, departures } };
    }
    default:
      return {};
  }
}
