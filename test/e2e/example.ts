import { execFileSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { extname, join, resolve } from "node:path";
import { build } from "vite";

/** The example as somebody has it who made it by docs/code.md: its own folder, its module generated, built by Vite. */
export async function built(change: (design: string) => string = (design) => design, base = "/"): Promise<string> {
  const home = mkdtempSync(join(tmpdir(), "etape-bandstand-"));
  cpSync("examples/bandstand", home, { recursive: true });
  symlinkSync(resolve("node_modules"), join(home, "node_modules"));
  const design = join(home, "bandstand.etape.json");
  writeFileSync(design, change(readFileSync(design, "utf8")));
  execFileSync(process.execPath, ["bin/etape.mjs", "gen", design, "--to", "typescript", "--react", "--out", join(home, "src")], { stdio: "pipe" });
  await build({ root: home, base, configFile: false, logLevel: "error", build: { outDir: join(home, "dist") } });
  return join(home, "dist");
}

const TYPES: Record<string, string> = { ".js": "text/javascript", ".css": "text/css", ".html": "text/html" };

/** Serves a built app, every address that is no file by its page; what is served can be exchanged, as a deployment does. */
export class Site {
  folder: string;
  private readonly base: string;
  private readonly server: Server;

  constructor(folder: string, base = "/") {
    this.folder = folder;
    this.base = base;
    this.server = createServer((request, response) => {
      const path = decodeURIComponent((request.url ?? "/").replace(/[?#].*$/s, ""));
      const file = extname(path) === "" ? "index.html" : path.slice(this.base.length);
      if (path === "/before") return response.setHeader("content-type", "text/html").end("<title>before</title><p>before</p>");
      if (path === "/rules.html") return response.setHeader("content-type", "text/html").end("<title>rules</title><p>No dogs.</p>");
      try {
        const text = readFileSync(join(this.folder, file));
        response.setHeader("content-type", TYPES[extname(file)] ?? "text/plain").end(text);
      } catch {
        response.writeHead(404).end();
      }
    });
  }
  async start(): Promise<string> {
    await new Promise<void>((ready) => this.server.listen(0, "127.0.0.1", ready));
    return this.address;
  }
  get address(): string {
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }
  stop() {
    this.server.closeAllConnections();
    this.server.close();
  }
}
