import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { type FileHandle, handleDisk, servedFile, serverDisk } from "../../src/app/session/file/disk.ts";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** A file that was chosen in the browser. */
function chosen() {
  const file = { text: "one", lastModified: 1, fails: undefined as Error | undefined, asked: 0, closed: 0 };
  const handle: FileHandle = {
    name: "tea.etape.json",
    getFile: async () => {
      if (file.fails) throw file.fails;
      return { text: async () => file.text, lastModified: file.lastModified } as File;
    },
    createWritable: async () => {
      let written = "";
      return {
        write: async (text) => {
          written += text;
        },
        close: async () => {
          file.text = written;
          file.closed += 1;
        },
      };
    },
    requestPermission: async () => {
      file.asked += 1;
      return "granted";
    },
  };
  return { file, disk: handleDisk(handle) };
}

it("a chosen file is read whole, and written whole if it still is what was read", async () => {
  const { file, disk } = chosen();
  const { text, tag } = await disk.read();
  expect([disk.name, text]).toEqual(["tea.etape.json", "one"]);
  const next = await disk.write("two", tag);
  expect([file.text, file.closed]).toEqual(["two", 1]);
  expect(next).toBe((await disk.read()).tag);
  file.text = "of another program";
  expect(await disk.write("three", next ?? "")).toBeUndefined();
  expect([file.text, file.closed]).toEqual(["of another program", 1]);
});

it("what the browser does not allow is said in words, other failures as they are, and it is asked for", async () => {
  const { file, disk } = chosen();
  file.fails = new DOMException("no", "NotAllowedError");
  await expect(disk.read()).rejects.toThrow("the browser has to be allowed to use it again");
  file.fails = new DOMException("gone", "NotFoundError");
  await expect(disk.read()).rejects.toThrow("gone");
  await disk.allow?.();
  expect(file.asked).toBe(1);
});

it("is looked at every second, and what may have changed is told until nobody watches", async () => {
  const { file, disk } = chosen();
  let told = 0;
  const end = disk.watch(() => {
    told += 1;
  });
  await vi.advanceTimersByTimeAsync(0);
  const first = told;
  await vi.advanceTimersByTimeAsync(3_000);
  expect(told).toBe(first);
  file.lastModified = 2;
  await vi.advanceTimersByTimeAsync(1_000);
  expect(told).toBe(first + 1);
  file.fails = new Error("gone");
  await vi.advanceTimersByTimeAsync(1_000);
  expect(told).toBe(first + 2);
  end();
  file.fails = undefined;
  await vi.advanceTimersByTimeAsync(5_000);
  expect(told).toBe(first + 2);
});

it("a served file is written where it still is what was read; another program's is left, and what fails says why", async () => {
  const asked: unknown[] = [];
  const answers = [Response.json({ tag: "2" }), new Response("", { status: 412 }), new Response("the disk is full", { status: 500 })];
  vi.stubGlobal("fetch", async (url: string, init: RequestInit) => {
    asked.push([url, init.method, init.body, init.headers]);
    return answers.shift();
  });
  const disk = serverDisk("tea.etape.json", () => {});
  expect(await disk.write("one", "1")).toBe("2");
  expect(asked).toEqual([["/live/file", "PUT", "one", { "if-match": "1", "content-type": "application/json" }]]);
  expect(await disk.write("two", "2")).toBeUndefined();
  await expect(disk.write("three", "2")).rejects.toThrow(/^the disk is full$/);
});

it("no file is served where the server says so; what goes wrong is no answer", async () => {
  const answers = [
    new Response("", { status: 404 }),
    new Response("", { status: 403 }),
    new Response("the server is tired", { status: 500 }),
    new Response("<html>", { headers: { "content-type": "text/html" } }),
    Response.json({ id: "a", name: "tea", text: "{}", tag: "1" }),
  ];
  vi.stubGlobal("fetch", async () => answers.shift());
  expect([await servedFile(), await servedFile()]).toEqual([undefined, undefined]);
  await expect(servedFile()).rejects.toThrow(/^the server is tired$/);
  await expect(servedFile()).rejects.toThrow(/^<html>$/);
  expect(await servedFile()).toMatchObject({ name: "tea", tag: "1" });
});

it("what the server tells is passed on: changes of the file and of its pictures, and what a running app does", () => {
  const listening = new Map<string, (event: { data: string }) => void>();
  let closed = 0;
  vi.stubGlobal(
    "EventSource",
    class {
      addEventListener = (name: string, listener: (event: { data: string }) => void) => listening.set(name, listener);
      close = () => {
        closed += 1;
      };
    },
  );
  const told: string[] = [];
  const end = serverDisk(
    "tea.etape.json",
    (line) => told.push(line),
    () => told.push("pictures"),
  ).watch(() => told.push("file"));
  for (const name of ["ready", "file", "pictures", "entry"]) listening.get(name)?.({ data: "tap go" });
  expect(told).toEqual(["file", "file", "pictures", "tap go"]);
  end();
  expect(closed).toBe(1);
});
