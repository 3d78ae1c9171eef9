import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, renameSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { buildSync } from "esbuild";
import { describe, expect, it, vi } from "vitest";
import { createStore } from "zustand";
import type { DocumentState } from "../../src/app/session/document.ts";
import { Binding, type BindingState } from "../../src/app/session/file/binding.ts";
import type { Disk } from "../../src/app/session/file/disk.ts";
import { addScreen, emptyProject, newScreen } from "../../src/core/model/edits/add.ts";
import { applyEdit } from "../../src/core/model/edits/kinds.ts";
import { readProject } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { writeProject } from "../../src/core/model/write.ts";
import { FileOnDisk } from "../../src/server/disk.ts";
import { liveFile } from "../../src/server/live.ts";
import { application } from "../../src/server/main.ts";
import { seeded } from "../random/documents.ts";

/** Milliseconds that something may take on a machine that is busy with other things; nothing is measured by it. */
const WAIT = 300_000;

const folder = () => mkdtempSync(join(tmpdir(), "etape-live-"));
const begun = emptyProject("Tea");

function fileWith(project: Project): string {
  const path = join(folder(), "tea.etape.json");
  writeFileSync(path, writeProject(project));
  return path;
}

function projectIn(path: string): Project {
  const read = readProject(readFileSync(path, "utf8"));
  if (!read.ok) throw new Error(`the file is not whole: ${JSON.stringify(read.problems)}`);
  return read.project;
}

const named = (project: Project, name: string) => applyEdit(project, addScreen(newScreen(name, name)));

/** A document as a window has it, kept in step with a file. */
function windowOn(path: string, project = projectIn(path)) {
  const file = new FileOnDisk(path);
  const disk: Disk = { name: "tea.etape.json", read: () => file.read(), write: (text, tag) => file.write(text, tag), watch: (changed) => file.listen(changed) };
  const document = createStore<DocumentState>((set, get) => ({
    project,
    status: "ready",
    saving: false,
    error: undefined,
    undoName: undefined,
    redoName: undefined,
    apply: (edit) => set({ project: applyEdit(get().project, edit), undoName: edit.name }),
    undo: () => undefined,
    redo: () => undefined,
    again: () => undefined,
    unsaved: undefined,
  }));
  const states: BindingState[] = [];
  const binding = new Binding(
    document,
    disk,
    project,
    () => undefined,
    (state) => states.push(state),
  );
  return { document, binding, states, add: (name: string) => document.getState().apply(addScreen(newScreen(name, name))) };
}

describe("a document that is kept in step with a file", () => {
  it("is written after an edit, and takes in what changes in the file as one edit, however it is written", async () => {
    const path = fileWith(begun);
    const { document, binding, add } = windowOn(path);
    add("tea");
    await vi.waitFor(() => expect(projectIn(path).screens.map(({ id }) => id)).toContain("tea"), WAIT);
    const byEditor = named(projectIn(path), "milk");
    writeFileSync(`${path}.new`, writeProject(byEditor));
    renameSync(`${path}.new`, path);
    await vi.waitFor(() => expect(document.getState().project.screens.map(({ id }) => id)).toContain("milk"), WAIT);
    expect(document.getState().undoName).toBe("Read what changed in tea.etape.json");
    await binding.close();
    expect(projectIn(path)).toEqual(document.getState().project);
  });

  it("merges what both changed, and asks where both changed the same and differently", async () => {
    const path = fileWith(begun);
    const here = windowOn(path);
    await vi.waitFor(() => expect(here.binding.state.status).toBe("saved"), WAIT);
    const [screen] = begun.screens;
    writeFileSync(path, writeProject(named({ ...begun, screens: [{ ...(screen as Project["screens"][number]), name: "Theirs" }] }, "milk")));
    here.document.setState({ project: { ...begun, screens: [{ ...(screen as Project["screens"][number]), name: "Ours" }] } });
    await vi.waitFor(() => expect(here.binding.state.differing?.conflicts).toHaveLength(1), WAIT);
    await vi.waitFor(() => expect(projectIn(path).screens.map(({ name }) => name)).toEqual(["Ours", "milk"]), WAIT);
    here.binding.takeTheirs();
    await here.binding.close();
    expect(projectIn(path).screens.map(({ name }) => name)).toEqual(["Theirs", "milk"]);
  });

  it("leaves a file alone that is no project, and goes on when it is one again", async () => {
    const path = fileWith(begun);
    const { binding, add, document } = windowOn(path);
    await vi.waitFor(() => expect(binding.state.status).toBe("saved"), WAIT);
    writeFileSync(path, "<<<<<<< ours");
    await vi.waitFor(() => expect(binding.state.status).toBe("unreadable"), WAIT);
    add("tea");
    await new Promise((done) => setTimeout(done, 400));
    expect(readFileSync(path, "utf8")).toBe("<<<<<<< ours");
    writeFileSync(path, writeProject(named(begun, "milk")));
    await vi.waitFor(
      () =>
        expect(
          projectIn(path)
            .screens.map(({ id }) => id)
            .sort(),
        ).toEqual(["home", "milk", "tea"]),
      5000,
    );
    await binding.close();
    expect(document.getState().project.screens).toHaveLength(3);
  });

  it("loses nothing of 200 edits that two windows and an editor make in any order", async () => {
    const path = fileWith(begun);
    const [one, two] = [windowOn(path), windowOn(path)];
    const random = seeded(20);
    const made: string[] = [];
    for (let i = 0; i < 200; i++) {
      const who = Math.floor(random() * 3);
      const name = `${["one", "two", "editor"][who]}${i}`;
      made.push(name);
      if (who === 2) writeFileSync(path, writeProject(named(projectIn(path), name)));
      else (who === 0 ? one : two).add(name);
      if (random() < 0.5) await new Promise((done) => setTimeout(done, random() * 30));
    }
    const all = (project: Project) => project.screens.map(({ id }) => id).sort();
    const wanted = ["home", ...made].sort();
    await vi.waitFor(
      () => expect([projectIn(path), one.document.getState().project, two.document.getState().project].map(all)).toEqual([wanted, wanted, wanted]),
      {
        timeout: WAIT,
        interval: 100,
      },
    );
    await Promise.all([one.binding.close(), two.binding.close()]);
    expect(readdirSync(resolve(path, ".."))).toEqual(["tea.etape.json"]);
  }, 600_000);
});

describe("the file on disk", () => {
  it("is whole whenever the program that writes it is ended", async () => {
    const at = folder();
    const path = join(at, "tea.etape.json");
    const bundle = join(at, "write.mjs");
    buildSync({
      stdin: {
        contents: `import { FileOnDisk } from "./src/server/disk.ts"; const file = new FileOnDisk(${JSON.stringify(path)});
          let { tag } = await file.read(); process.stdout.write("begun\\n");
          for (let i = 0; i < 100; i++) { const text = JSON.stringify({ i, body: "x".repeat(400000), end: i }); tag = await file.write(text, tag); process.stdout.write(i + "\\n"); }`,
        resolveDir: resolve("."),
      },
      bundle: true,
      platform: "node",
      format: "esm",
      outfile: bundle,
    });
    const random = seeded(3);
    for (let time = 0; time < 6; time++) {
      writeFileSync(path, JSON.stringify({ i: -1, body: "", end: -1 }));
      const until = Math.floor(random() * 90);
      await new Promise<void>((done, failed) => {
        const writer: ChildProcess = spawn(process.execPath, [bundle], { stdio: ["ignore", "pipe", "inherit"] });
        writer.stdout?.on("data", (data: Buffer) => {
          const last = Number(data.toString().trim().split("\n").at(-1));
          if (last >= until) writer.kill("SIGKILL");
        });
        writer.on("exit", (status, signal) => (signal === "SIGKILL" ? done() : failed(new Error(`ended with ${status}`))));
      });
      const { i, end, body } = JSON.parse(readFileSync(path, "utf8"));
      expect(i).toBe(end);
      expect(i).toBeGreaterThanOrEqual(until);
      expect(body).toHaveLength(400_000);
    }
  }, 600_000);

  it("is written where a link leads to, with the rights that it has", async () => {
    const path = fileWith(begun);
    const link = join(folder(), "link.etape.json");
    symlinkSync(path, link);
    const file = new FileOnDisk(link);
    const { tag } = await file.read();
    expect(await file.write("new", tag)).toBeDefined();
    expect(readFileSync(path, "utf8")).toBe("new");
    expect(await file.write("newer", tag)).toBeUndefined();
  });
});

describe("the server of one file", () => {
  const path = fileWith(begun);
  const live = liveFile(new FileOnDisk(path), "secret-token");
  const app = application(folder(), () => [], live);
  const ask = (url: string, headers: Record<string, string> = {}, init: RequestInit = {}) =>
    app.request(url, { ...init, headers: { host: "127.0.0.1:5173", ...headers } });
  const cookie = { cookie: "etape-open=secret-token" };

  it("lets nobody in without the token, from another page, or by another name", async () => {
    expect((await ask("/live/file")).status).toBe(403);
    expect((await ask("/live/file", { cookie: "etape-open=other" })).status).toBe(403);
    expect((await ask("/live/file", { ...cookie, origin: "http://elsewhere.example" })).status).toBe(403);
    expect((await ask("/live/file", { ...cookie, "sec-fetch-site": "cross-site" })).status).toBe(403);
    expect((await ask("/live/file", { ...cookie, host: "elsewhere.example" })).status).toBe(403);
    expect((await ask("/", { host: "elsewhere.example:5173" })).status).toBe(403);
    expect((await ask("/open?token=other")).status).toBe(403);
    expect((await ask("/follow?token=other", {}, { method: "POST", body: "{}" })).status).toBe(403);
    expect((await ask("/follow?token=secret-token", { origin: "http://elsewhere.example" }, { method: "POST", body: "{}" })).status).toBe(403);
  });

  it("gives the page its cookie, the file, and a refusal where the file is something else by now", async () => {
    const opened = await ask(live.path);
    expect([opened.status, opened.headers.get("location"), opened.headers.get("set-cookie")]).toEqual([
      302,
      live.page,
      expect.stringMatching(/etape-open=secret-token;.*HttpOnly.*SameSite=Strict/i),
    ]);
    const { text, tag, name } = (await (await ask("/live/file", cookie)).json()) as Record<string, string>;
    expect([text, name]).toEqual([readFileSync(path, "utf8"), "tea.etape.json"]);
    const put = (body: string, match: string) => ask("/live/file", { ...cookie, "if-match": match }, { method: "PUT", body });
    expect((await put("x", "other")).status).toBe(412);
    expect((await put(writeProject(named(begun, "tea")), tag ?? "")).status).toBe(200);
    expect(projectIn(path).screens).toHaveLength(2);
  });

  it("gives and takes the pictures beside the file, to the page alone and from nowhere else on the disk", async () => {
    const beside = join(dirname(path), "tea.pictures");
    const secret = join(dirname(path), "secret.png");
    writeFileSync(secret, "secret");
    const list = async () => (await (await ask("/live/pictures", cookie)).json()) as Array<{ file: string; tag: string }>;
    const put = (file: string, body: BodyInit) => ask(`/live/pictures/${file}`, cookie, { method: "PUT", body });
    expect(await list()).toEqual([]);
    expect((await put("home.png", "a picture")).status).toBe(200);
    expect((await put("wide/home.png", "a wide one")).status).toBe(200);
    expect((await list()).map(({ file }) => file).sort()).toEqual(["home.png", "wide/home.png"]);
    const got = await ask("/live/pictures/home.png", cookie);
    expect([await got.text(), got.headers.get("content-type"), got.headers.get("x-content-type-options")]).toEqual([
      "a picture",
      "application/octet-stream",
      "nosniff",
    ]);
    expect((await ask("/live/pictures/home.png")).status).toBe(403);
    expect((await ask("/live/pictures")).status).toBe(403);
    symlinkSync(secret, join(beside, "link.png"));
    for (const out of ["..%2Fsecret.png", "%2e%2e%2fsecret.png", "link.png", "wide/%2e%2e/%2e%2e/secret.png", "c%3A%5Cx.png", "none.png", ""]) {
      const answer = await ask(`/live/pictures/${out}`, cookie);
      expect(await answer.text(), out).not.toContain("secret");
    }
    for (const out of ["..%2Fevil.png", "a%5Cb.png", "%00.png", "a//b.png"]) expect((await put(out, "x")).status, out).toBe(400);
    expect(existsSync(join(dirname(path), "evil.png"))).toBe(false);
    expect((await put("large.png", "x".repeat(4 * 2 ** 20 + 1))).status).toBe(413);
    const [before] = await list();
    writeFileSync(join(beside, "home.png"), "another picture");
    expect((await list())[0]?.tag).not.toBe(before?.tag);
    expect(readdirSync(beside).filter((name) => name.startsWith("."))).toEqual([]);
  });

  it("takes what an app on this machine tells, and passes it on to the page", async () => {
    const told = await ask(
      "/follow?token=secret-token",
      { origin: "http://localhost:3000" },
      { method: "POST", body: '{"shows":"home"}\n\n{"shows":"tea"}\n' },
    );
    expect([await told.json(), told.headers.get("access-control-allow-origin")]).toEqual([{ taken: 2 }, "http://localhost:3000"]);
    const changes = await ask("/live/changes", cookie);
    const reader = (changes.body as ReadableStream<Uint8Array>).getReader();
    let seen = "";
    while (!seen.includes("ready")) seen += new TextDecoder().decode((await reader.read()).value);
    expect(seen).toContain('event: entry\ndata: {"shows":"tea"}');
    await reader.cancel();
  });
});
