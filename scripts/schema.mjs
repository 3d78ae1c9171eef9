// npm run schema: writes schema/etape-1.schema.json anew from the Zod schema.
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensurePackages, root } from "./setup.mjs";

ensurePackages();
const { bundle } = await import("./bundle.mjs");
const file = join(root, "dist", "schema", "write.mjs");
await bundle("src/core/model/write.ts", file);
const { projectJsonSchema } = await import(pathToFileURL(file).href);
writeFileSync(join(root, "schema", "etape-1.schema.json"), `${JSON.stringify(projectJsonSchema(), null, 2)}\n`);
