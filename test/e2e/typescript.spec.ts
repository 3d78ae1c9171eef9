import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build, type Plugin, transformSync } from "esbuild";
import { compile } from "svelte/compiler";
import { writeProject } from "../../src/core/model/write.ts";
import { app } from "../vectors/app.ts";
import { expect, test } from "./test.ts";

/** A list whose rows lead to a page with its own address, and a sheet over that. */
const project = app("home", {
  stacks: { home: "list item", sheet: "note" },
  modals: { over: "sheet" },
  screens: {
    list: { path: "/list" },
    item: { params: [{ name: "id", type: "text", required: true }] },
  },
  legs: ["open list push item pass.id='a'", "more item open over"],
  entrances: [{ id: "shared", name: "Shared", kind: "link", pattern: "/items/{id}", to: "item", warm: "rebuild" }],
});
const PAGE = `<!doctype html><title>App</title><p id="line"></p><p id="args"></p>
<button id="open">open</button><button id="more">more</button>
<script type="module">
import { Navigator } from "/navigation.js";
const nav = new Navigator();
nav.bindHistory();
const draw = () => {
  document.querySelector("#line").textContent = nav.line;
  document.querySelector("#args").textContent = JSON.stringify(nav.screen.params);
};
nav.subscribe(draw);
document.querySelector("#open").onclick = () => nav.legs.open();
document.querySelector("#more").onclick = () => nav.legs.more();
draw();
</script>`;

/** The module as `etape gen` writes it, its types taken off. */
function generated(): string {
  const folder = mkdtempSync(join(tmpdir(), "etape-module-"));
  writeFileSync(join(folder, "app.etape.json"), writeProject(project));
  execFileSync(process.execPath, ["bin/etape.mjs", "gen", join(folder, "app.etape.json"), "--to", "typescript", "--out", folder], { stdio: "pipe" });
  return transformSync(readFileSync(join(folder, "navigation.ts"), "utf8"), { loader: "ts" }).code;
}

let module = "";
test.beforeAll(() => {
  module = generated();
});

test.beforeEach(async ({ page }) => {
  await page.route("http://app.test/**", (route) =>
    route.request().url().endsWith("/navigation.js")
      ? route.fulfill({ contentType: "text/javascript", body: module })
      : route.fulfill({ contentType: "text/html", body: PAGE }),
  );
  await page.route("http://before.test/", (route) => route.fulfill({ contentType: "text/html", body: "<p>before</p>" }));
  await page.goto("http://before.test/");
});

test("Back and Forward of the browser follow the design, and Back at the start leaves", async ({ page }) => {
  await page.goto("http://app.test/");
  const line = page.locator("#line");
  await expect(line).toHaveText("home[list]");
  await page.locator("#open").click();
  await expect(line).toHaveText("home[list,item]");
  expect(page.url()).toBe("http://app.test/items/a");
  await page.goBack();
  await expect(line).toHaveText("home[list]");
  await page.goForward();
  await expect(line).toHaveText("home[list,item]");
  await expect(page.locator("#args")).toHaveText('{"id":"a"}');
  await page.goBack();
  await expect(line).toHaveText("home[list]");
  await page.goBack();
  await expect(page.getByText("before")).toBeVisible();
});

test("a modal is closed by Back, and a reload in the middle stays there", async ({ page }) => {
  await page.goto("http://app.test/");
  await page.locator("#open").click();
  await page.locator("#more").click();
  await expect(page.locator("#line")).toHaveText("home[list,item] + over(sheet[note])");
  await page.reload();
  await expect(page.locator("#line")).toHaveText("home[list,item] + over(sheet[note])");
  await page.goBack();
  await expect(page.locator("#line")).toHaveText("home[list,item]");
  await page.goBack();
  await expect(page.locator("#line")).toHaveText("home[list]");
});

test("a pasted link comes in with its trail beneath", async ({ page }) => {
  await page.goto("http://app.test/items/larch%20%26%20co");
  await expect(page.locator("#line")).toHaveText("home[list,item]");
  await expect(page.locator("#args")).toHaveText('{"id":"larch & co"}');
  await page.goBack();
  await expect(page.locator("#line")).toHaveText("home[list]");
  await page.goBack();
  await expect(page.getByText("before")).toBeVisible();
});

test("two quick taps go one step", async ({ page }) => {
  await page.goto("http://app.test/");
  await page.locator("#open").dblclick();
  await expect(page.locator("#line")).toHaveText("home[list,item]");
  await page.goBack();
  await expect(page.locator("#line")).toHaveText("home[list]");
});

/** The recipes of docs/code.md, each as the page that it makes. */
const guide = readFileSync("docs/code.md", "utf8");
const recipe = (language: string) => new RegExp(`^\`\`\`${language}\\n([\\s\\S]*?)^\`\`\``, "m").exec(guide)?.[1] ?? "";

/** A recipe's entry as one script, with the generated module in it. */
async function bundled(source: string, plugins: Plugin[] = []): Promise<string> {
  const own: Plugin = {
    name: "navigation",
    setup: (to) => {
      to.onResolve({ filter: /navigation\.js$/ }, () => ({ path: "navigation", namespace: "made" }));
      to.onLoad({ filter: /.*/, namespace: "made" }, () => ({ contents: module, loader: "js" }));
    },
  };
  const { outputFiles } = await build({
    stdin: { contents: source, resolveDir: process.cwd(), loader: "js" },
    bundle: true,
    format: "esm",
    write: false,
    logLevel: "error",
    conditions: ["browser"],
    define: { __VUE_OPTIONS_API__: "true", __VUE_PROD_DEVTOOLS__: "false", __VUE_PROD_HYDRATION_MISMATCH_DETAILS__: "false" },
    plugins: [own, ...plugins],
  });
  return outputFiles[0]?.text ?? "";
}

const svelte: Plugin = {
  name: "svelte",
  setup: (to) => {
    to.onResolve({ filter: /App\.svelte$/ }, () => ({ path: "App.svelte", namespace: "recipe" }));
    to.onLoad({ filter: /.*/, namespace: "recipe" }, () => ({
      contents: compile(recipe("svelte"), { generate: "client", filename: "App.svelte" }).js.code,
      loader: "js",
      resolveDir: process.cwd(),
    }));
  },
};
const RECIPES: Record<string, () => Promise<string>> = {
  "a plain page": async () => recipe("html"),
  Vue: async () => `<main></main><script type="module">${await bundled(recipe("js"))}</script>`,
  Svelte: async () => {
    const start = 'import { mount } from "svelte"; import App from "./App.svelte"; mount(App, { target: document.querySelector("main") });';
    return `<main></main><script type="module">${await bundled(start, [svelte])}</script>`;
  },
};

for (const [name, made] of Object.entries(RECIPES))
  test(`the recipe for ${name} draws what shows, and goes back by its own button and by the browser`, async ({ page }) => {
    const body = await made();
    await page.route("http://recipe.test/**", (route) =>
      route.request().url().endsWith("/navigation.js")
        ? route.fulfill({ contentType: "text/javascript", body: module })
        : route.fulfill({ contentType: "text/html", body }),
    );
    await page.goto("http://recipe.test/items/larch");
    const title = page.getByRole("heading", { level: 1 });
    await expect(title).toHaveText("item");
    await page.getByRole("button", { name: "Back" }).click();
    await expect(title).toHaveText("list");
    await page.goto("http://recipe.test/items/larch");
    await expect(title).toHaveText("item");
    await page.goBack();
    await expect(title).toHaveText("list");
  });
