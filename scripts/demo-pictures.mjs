// Draws the pictures of the demo Oddglove, in light and dark, and writes their areas into its document: each stands where its control was drawn.
// Run by hand when the demo changes: node scripts/demo-pictures.mjs
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { ensureChromium, root } from "./setup.mjs";

const document = join(root, "demo", "oddglove.etape.json");
const folder = join(root, "demo", "oddglove.pictures");
const font = `file://${join(root, "node_modules/@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-wght-normal.woff2")}`;

const LIGHT = { ground: "#f3efe4", card: "#fffdf7", ink: "#23303a", soft: "#6d7a7f", line: "#d9d1bd", accent: "#a8412f", wash: "#ecd9cf", on: "#fffaf2" };
const DARK = { ground: "#161d21", card: "#20292e", ink: "#eee8da", soft: "#98a3a5", line: "#36424a", accent: "#e08a6d", wash: "#3a2b28", on: "#1c1512" };

/** Small drawings of the things on the shelf; each in a box of 100 × 100. */
const THINGS = {
  glove: '<path d="M34 88V58L22 46c-5-6 3-12 8-7l6 6V22c0-7 9-7 9 0v14V16c0-7 10-7 10 0v20-15c0-7 9-7 9 0v18-9c0-6 8-6 8 0v28c0 8-4 12-4 20v10z"/>',
  umbrella:
    '<path d="M50 14C26 14 12 34 12 52c6-6 14-6 19 0 5-6 14-6 19 0 5-6 14-6 19 0 5-6 13-6 19 0 0-18-14-38-38-38zM47 52h6v28c0 12-18 12-18 1h6c0 4 6 4 6-1z"/>',
  key: '<path d="M32 34a18 18 0 1 1 0 .1zM47 47l34 34 5-5-6-6 5-5-6-6 3-3-24-24z" fill-rule="evenodd"/>',
};
const thing = (name, size, colour) => `<svg width="${size}" height="${size}" viewBox="0 0 100 100" style="fill:${colour};flex:none">${THINGS[name]}</svg>`;

const style = (c) => `
  @font-face { font-family: Face; src: url("${font}"); font-weight: 100 900; }
  * { box-sizing: border-box; } body { margin: 0; font: 400 17px/1.35 Face, sans-serif; color: ${c.ink}; background: ${c.ground}; }
  .page { width: 100vw; height: 100vh; display: flex; flex-direction: column; overflow: hidden; }
  .bar { display: flex; align-items: center; gap: 10px; height: 96px; padding: 40px 14px 0; background: ${c.card}; border-bottom: 1px solid ${c.line}; flex: none; }
  .bar h1 { flex: 1; margin: 0; font-size: 19px; font-weight: 720; } .sign { width: 44px; height: 44px; display: grid; place-items: center; font-size: 22px; color: ${c.accent}; }
  .body { flex: 1; padding: 18px; display: flex; flex-direction: column; gap: 14px; min-height: 0; }
  .card { background: ${c.card}; border: 1px solid ${c.line}; border-radius: 12px; }
  .row { display: flex; align-items: center; gap: 14px; padding: 12px 14px; height: 84px; border-bottom: 1px solid ${c.line}; } .row:last-child { border: 0; }
  .row b { display: block; font-weight: 650; } small { color: ${c.soft}; font-size: 14.5px; }
  .main { height: 54px; border-radius: 12px; background: ${c.accent}; color: ${c.on}; display: grid; place-items: center; font-weight: 700; font-size: 18px; flex: none; }
  .field { height: 54px; border: 1.5px solid ${c.line}; border-radius: 10px; background: ${c.card}; display: flex; align-items: center; padding: 0 14px; color: ${c.soft}; flex: none; }
  .link { color: ${c.accent}; font-weight: 600; height: 40px; display: flex; align-items: center; align-self: flex-start; }
  .switch { display: flex; align-items: center; justify-content: space-between; height: 56px; padding: 0 14px; flex: none; }
  .knob { width: 52px; height: 30px; border-radius: 15px; background: ${c.line}; position: relative; } .knob::after { content: ""; position: absolute; left: 3px; top: 3px; width: 24px; height: 24px; border-radius: 12px; background: ${c.card}; }
  .tabs { display: flex; height: 78px; background: ${c.card}; border-top: 1px solid ${c.line}; flex: none; } .tabs div { flex: 1; display: grid; place-items: center; font-size: 14px; color: ${c.soft}; padding-bottom: 14px; font-weight: 600; }
  .tabs .here { color: ${c.accent}; box-shadow: inset 0 3px ${c.accent}; }
  .photo { height: 300px; display: grid; place-items: center; background: ${c.wash}; border-radius: 12px; flex: none; }
  .side { width: 200px; background: ${c.card}; border-right: 1px solid ${c.line}; padding: 20px 10px; } .side div { height: 44px; display: flex; align-items: center; padding: 0 12px; border-radius: 8px; font-weight: 600; color: ${c.soft}; } .side .here { background: ${c.wash}; color: ${c.accent}; }`;

const at = (control, html, kind = "div", more = "") => `<${kind} data-control="${control}" ${more}>${html}</${kind}>`;
const bar = (title, lead, right = "") =>
  `<div class="bar">${lead ? at("lead", lead === "menu" ? "☰" : "‹", "div", 'class="sign"') : '<span style="width:8px"></span>'}<h1>${title}</h1>${right}</div>`;
const tabs = (here) =>
  `<div class="tabs">${["finds", "report", "claims"].map((id) => at(`tab:${id}`, { finds: "Finds", report: "Report", claims: "Claims" }[id], "div", id === here ? 'class="here"' : "")).join("")}</div>`;
const page = (...parts) => `<div class="page">${parts.join("")}</div>`;
const row = (c, name, title, sub, control) =>
  at(control, `${thing(name, 52, c.accent)}<span><b>${title}</b><small>${sub}</small></span>`, "div", 'class="row"');
const finds = (c) =>
  `<div class="card">${row(c, "glove", "One red glove", "tram 4 · Thursday", "findList")}${row(c, "umbrella", "Tartan umbrella", "library · Friday", "findList")}${row(c, "key", "Small brass key", "market hall · Saturday", "findList")}</div>`;

/** The screens: how large, and what is drawn. */
const SCREENS = {
  welcome: [
    390,
    844,
    (c) =>
      page(
        `<div class="body" style="justify-content:center;padding:40px 28px;gap:30px">${at("aShelfOfLostThings", `<div style="display:flex;justify-content:space-around;border-bottom:8px solid ${c.soft};padding-bottom:2px">${thing("glove", 96, c.accent)}${thing("umbrella", 96, c.ink)}${thing("key", 84, c.soft)}</div>`)}<div><h1 style="font-size:34px;margin:0 0 10px;font-weight:780">Oddglove</h1><p style="margin:0;color:${c.soft}">What was lost in Marrowby waits on our shelf. Look for it, tell us of it, and come by to take it home.</p></div>${at("begin", "Begin", "div", 'class="main"')}</div>`,
      ),
  ],
  finds2: [
    390,
    844,
    (c) =>
      page(
        bar("Finds", "menu", at("filter", "⚟", "div", 'class="sign"')),
        `<div class="body">${at("search", "What are you looking for?", "div", 'class="field"')}${finds(c)}</div>`,
        tabs("finds"),
      ),
  ],
  find: [
    390,
    844,
    (c) =>
      page(
        bar("One red glove", "back"),
        `<div class="body">${at("photo", thing("glove", 190, c.accent), "div", 'class="photo"')}${at("whatItIs", "Found and kept for three months", "small")}<b style="font-size:20px;font-weight:720">Left hand, wool, a darned thumb</b>${at("itIsMine", "It is mine", "div", 'class="main"')}${at("whereItWasFound", "Where it was found", "div", 'class="link"')}<div style="display:flex;justify-content:space-between;margin-top:auto">${at("earlier", "‹ Earlier", "div", 'class="link"')}${at("later", "Later ›", "div", 'class="link"')}</div></div>`,
        tabs("finds"),
      ),
  ],
  counterMap: [
    390,
    844,
    (c) =>
      page(
        bar("Counter map", "back"),
        `<div class="body">${at("mapOfTheMarketHall", `<svg width="354" height="420" viewBox="0 0 354 420" fill="none" stroke="${c.soft}" stroke-width="3"><rect x="14" y="14" width="326" height="392" rx="10"/><path d="M14 130h140M210 130h130M14 270h90M170 270h170M120 270v136"/><circle cx="252" cy="200" r="15" fill="${c.accent}" stroke="none"/></svg>`)}<small>The red dot is our counter, by the fish stall.</small></div>`,
        tabs("finds"),
      ),
  ],
  report2: [
    390,
    844,
    (c) =>
      page(
        bar("Report a loss", "menu"),
        `<div class="body"><p style="margin:4px 0;color:${c.soft}">Tell us what it looks like; we look through the shelf once a day.</p>${at("what", "What you lost", "div", 'class="field"')}${at("tell", '<span>Tell me of new finds</span><span class="knob"></span>', "div", 'class="switch card"')}${at("sendTheReport", "Send the report", "div", 'class="main"')}</div>`,
        tabs("report"),
      ),
  ],
  sent: [
    390,
    844,
    (c) =>
      page(
        bar("Sent", undefined),
        `<div class="body" style="align-items:center;justify-content:center;text-align:center">${thing("umbrella", 130, c.accent)}<b style="font-size:24px">We are looking</b><p style="margin:0;color:${c.soft}">You hear from us when something like it comes in.</p>${at("backToTheFinds", "Back to the finds", "div", 'class="main" style="align-self:stretch"')}</div>`,
        tabs("report"),
      ),
  ],
  claims2: [
    390,
    844,
    (c) =>
      page(
        bar("My claims", "menu"),
        `<div class="body"><div class="card">${row(c, "umbrella", "Tartan umbrella", "ready to collect", "claimList")}${row(c, "glove", "One red glove", "being looked at", "claimList")}</div></div>`,
        tabs("claims"),
      ),
  ],
  claim: [
    390,
    844,
    (c) =>
      page(
        bar("Tartan umbrella", "back"),
        `<div class="body"><div class="card" style="padding:22px;display:flex;gap:18px;align-items:center">${thing("umbrella", 84, c.accent)}${at("state", "<b>Ready to collect</b><br><small>Bring this number: 41 07</small>")}</div>${at("withdrawIt", "Withdraw it", "div", 'class="link"')}</div>`,
        tabs("claims"),
      ),
  ],
  openingHours: [
    390,
    640,
    (c) =>
      `<div class="body" style="background:${c.ground};height:100vh"><div class="card" style="padding:8px 18px">${[
        ["Tuesday", "9 to 17"],
        ["Wednesday", "9 to 17"],
        ["Thursday", "9 to 19"],
        ["Friday", "9 to 17"],
        ["Saturday", "10 to 14"],
      ]
        .map(([d, h]) => `<p style="display:flex;justify-content:space-between;margin:14px 0"><b>${d}</b><span>${h}</span></p>`)
        .join("")}</div>${at("hours", "Closed on market holidays", "small")}</div>`,
    "body",
  ],
  settings: [
    390,
    844,
    () =>
      page(
        bar("Settings", "menu"),
        `<div class="body">${at("alerts", "New finds like mine are told to me as they come in.", "div", 'class="card" style="padding:18px"')}${at("stopTellingMe", "Stop telling me", "div", 'class="main"')}</div>`,
      ),
  ],
  filter2: [
    340,
    260,
    (c) =>
      `<div style="background:${c.card};height:100vh;padding:20px;display:flex;flex-direction:column;gap:12px"><div style="display:flex;align-items:center"><b style="flex:1;font-size:20px">Show</b>${at("close", "×", "div", 'class="sign" style="font-size:28px"')}</div>${at("onlyThisWeek", '<span>Only this week</span><span class="knob"></span>', "div", 'class="switch"')}${at("showThem", "Show them", "div", 'class="main"')}</div>`,
  ],
  proveIt: [
    390,
    470,
    (c) =>
      `<div style="background:${c.card};height:100vh;padding:20px;display:flex;flex-direction:column;gap:16px"><div style="display:flex;align-items:center"><b style="flex:1;font-size:20px">Is it yours?</b>${at("close", "×", "div", 'class="sign" style="font-size:28px"')}</div><p style="margin:0;color:${c.soft}">Say something that only its owner knows: a mark, a stain, what is in the pocket.</p>${at("proof", "A darned thumb…", "div", 'class="field"')}${at("send", "Send", "div", 'class="main"')}</div>`,
  ],
};
/** The first screen as it looks in a wide window, with the menu beside it. */
const WIDE = {
  finds2: [
    1040,
    720,
    (c) =>
      `<div style="display:flex;height:100vh"><div class="side">${at("pick:desk", "Desk", "div", 'class="here"')}${at("pick:openingHours", "Opening hours")}${at("pick:settings", "Settings")}</div><div class="page" style="width:840px">${bar("Finds", undefined, at("filter", "⚟", "div", 'class="sign"'))}<div class="body">${at("search", "What are you looking for?", "div", 'class="field"')}${finds(c)}</div>${tabs("finds")}</div></div>`,
  ],
};
const SCALE = 1.5;

const project = JSON.parse(readFileSync(document, "utf8"));
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({ executablePath: ensureChromium(), args: ["--no-sandbox", "--disable-background-networking"] });
const sheet = await browser.newPage({ deviceScaleFactor: SCALE });
async function draw(id, [width, height, html, holds = "screen"], { dark, wide }) {
  await sheet.setViewportSize({ width, height });
  // A page of a file may read the font, which is a file too.
  const path = join(folder, "page.html");
  writeFileSync(path, `<!doctype html><meta charset="utf-8"><style>${style(dark ? DARK : LIGHT)}</style><body>${html(dark ? DARK : LIGHT)}</body>`);
  await sheet.goto(`file://${path}`);
  await sheet.evaluate(() => document.fonts.ready);
  const boxes = await sheet.$$eval("[data-control]", (all) => all.map((e) => ({ control: e.dataset.control, box: e.getBoundingClientRect().toJSON() })));
  const edge = (n, most) => Math.max(0, Math.min(most, Math.round(n * SCALE)));
  const areas = boxes.map(({ control, box: { left, top, right, bottom } }) => {
    const [x, y] = [edge(left, width * SCALE), edge(top, height * SCALE)];
    return { at: [x, y, edge(right, width * SCALE) - x, edge(bottom, height * SCALE) - y], control };
  });
  const file = `${[id.replace(/2$/, ""), ...(wide ? ["wide"] : []), ...(dark ? ["dark"] : [])].join("-")}.png`;
  await sheet.screenshot({ path: join(folder, file) });
  rmSync(path);
  return { file, size: [width * SCALE, height * SCALE], ...(wide ? { for: "wide" } : {}), ...(dark ? { dark: true } : {}), holds, areas };
}
for (const screen of project.screens) {
  const drawn = SCREENS[screen.id];
  if (!drawn) throw new Error(`There is no drawing of the screen ${screen.id}.`);
  screen.pictures = [await draw(screen.id, drawn, { dark: false }), await draw(screen.id, drawn, { dark: true })];
  if (WIDE[screen.id]) for (const dark of [false, true]) screen.pictures.push(await draw(screen.id, WIDE[screen.id], { dark, wide: true }));
}
await browser.close();
writeFileSync(document, `${JSON.stringify(project, null, 2)}\n`);
