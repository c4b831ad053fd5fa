// `node scripts/screenshots.mjs [name …]`: pictures of the main views from demo data, into docs/screenshots. Needs a build and Chromium.
// OUT=folder, SIZE=820x1180, THEME=night for looking at other sizes without touching the committed pictures.
import { spawn, spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { bin, ensureChromium, root } from "./setup.mjs";

const [width, height] = (process.env.SIZE ?? "1280x800").split("x").map(Number);
const out = process.env.OUT ?? join(root, "docs", "screenshots");
const theme = process.env.THEME;
mkdirSync(out, { recursive: true });
const env = { ...process.env, YAKAMOZ_DATA: mkdtempSync(join(tmpdir(), "yakamoz-shots-")), PORT: "4871", NODE_ENV: "production" };
spawnSync(process.execPath, [bin("tsx"), "demo/load.ts"], { cwd: root, env, stdio: "inherit" });
const server = spawn(process.execPath, ["server.mjs"], { cwd: root, env, stdio: ["ignore", "pipe", "inherit"] });
await new Promise((resolve) => server.stdout.once("data", resolve));
const browser = await chromium.launch({
  executablePath: ensureChromium(),
  args: ["--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--disable-background-networking", "--font-render-hinting=none"],
});
const base = `http://127.0.0.1:${env.PORT}`;
const page = await browser.newPage({ viewport: { width, height }, baseURL: base, reducedMotion: "reduce" });
page.on("console", (m) => ["error", "warning"].includes(m.type()) && console.log(`console ${m.type()}: ${m.text()}`));
page.on("pageerror", (e) => console.log(`page error: ${e.message}`));

let onNetwork = null;
const panel = async (vehicle, name, station) => {
  await page.goto("/");
  const href = await page
    .locator("li", { hasText: vehicle })
    .getByRole("link", { name: new RegExp(name) })
    .first()
    .getAttribute("href");
  await page.goto(href.replace(/[^/]+$/, station));
  await page.locator("html[data-live]").waitFor({ state: "attached" });
};
const vehicleOf = async (vehicle, page_) => {
  await panel(vehicle, "Rear door", "course");
  await page.goto(`${new URL(page.url()).pathname.replace(/panels\/.*$/, "vehicle")}${page_}`);
  await page.locator("html[data-live]").waitFor({ state: "attached" });
};
const VIEWS = {
  /** Of a shop on its network, played on loopback, with an owner, a painter and a code that waits. */
  people: async () => {
    const folder = mkdtempSync(join(tmpdir(), "yakamoz-shots-lan-"));
    const own = { ...env, YAKAMOZ_DATA: folder, PORT: "4872", HOST: "127.0.0.1" };
    spawnSync(process.execPath, [bin("tsx"), "demo/load.ts"], { cwd: root, env: own, stdio: "inherit" });
    onNetwork = spawn(process.execPath, ["server.mjs", "--lan"], { cwd: root, env: own, stdio: ["ignore", "pipe", "inherit"] });
    await new Promise((resolve) => onNetwork.stdout.once("data", resolve));
    await page.goto("http://localhost:4872/");
    await page.getByLabel("Passcode").fill("harbour-9-clear");
    await page.getByRole("button", { name: "I am the owner" }).click();
    await page.getByRole("button", { name: "Pair a device" }).click();
    await page.getByTestId("code").waitFor();
    await page.getByLabel("Name", { exact: true }).fill("Painter A");
    await page.getByLabel("PIN").fill("4071");
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await page.getByText("Painter A, painter").waitFor();
    await page.reload(); // without the message
  },
  /** With the server gone: the last of all. */
  waiting: async () => {
    await panel("Lodos", "Front door", "spray");
    await page.waitForFunction(() => navigator.serviceWorker.controller?.state === "activated", null, { timeout: 60_000 });
    await page.waitForTimeout(3000);
    server.kill("SIGKILL");
    await page.getByRole("button", { name: "Log coat 2" }).click();
    await page.getByTestId("away").filter({ hasText: "1 entry" }).waitFor({ timeout: 30_000 });
    await page.getByLabel("Mixed, ml").fill("300");
    await page.getByRole("button", { name: "Start pot clock" }).click();
    await page.getByTestId("away").filter({ hasText: "2 entries" }).waitFor({ timeout: 30_000 });
    await page.getByRole("link", { name: "Look at them" }).click();
    await page.getByRole("list", { name: "Not yet with the shop" }).waitFor();
  },
  floor: () => page.goto("/"),
  "practice-list": () => page.goto("/practice"),
  choose: async () => {
    await page.goto("/practice/choose");
    await page
      .getByRole("button", { name: /^Hang it/ })
      .or(page.locator("form"))
      .first()
      .waitFor();
  },
  /** A hard panel that somebody else sprayed, to be judged. */
  hidden: async () => {
    await page.goto("/practice/run-down");
    await page.waitForTimeout(8000); // it is sprayed, and goes hard
  },
  pattern: async () => {
    await page.goto("/practice/pattern");
    await page.getByRole("button", { name: /^Turn the cap/ }).click();
    await page.waitForTimeout(300);
  },
  /** A coat under way, by keys: five rows, the last not at its end. */
  practice: async () => {
    await page.goto("/practice/door-edge");
    await page.getByRole("button", { name: "Spray coat 1" }).focus();
    await page.keyboard.press("Enter");
    for (const [row, ms] of [4100, 4000, 5100, 4000, 2400].entries()) {
      await page.keyboard.down(" ");
      await page.keyboard.down(row % 2 === 0 ? "ArrowRight" : "ArrowLeft");
      await page.waitForTimeout(ms);
      if (row === 4) return;
      await page.keyboard.up(row % 2 === 0 ? "ArrowRight" : "ArrowLeft");
      await page.keyboard.up(" ");
      await page.keyboard.press("ArrowDown");
      await page.keyboard.press("ArrowDown");
    }
  },
  "practice-told": async () => {
    await VIEWS.practice();
    await page.keyboard.up("ArrowRight");
    await page.keyboard.up(" ");
    await page.getByRole("button", { name: "The coat is on" }).click();
    await page.getByRole("button", { name: "Look it over" }).click();
    await page.getByTestId("advice").waitFor({ timeout: 60000 });
  },
  course: () => panel("Lodos", "Front door", "course"),
  plan: () => panel("Meltem", "Rear quarter", "plan"),
  spray: () => panel("Lodos", "Front door", "spray"),
  inspect: () => panel("Lodos", "Bonnet", "inspect"),
  "film-map": async () => {
    await panel("Meltem", "Rear quarter", "inspect");
    await page.getByRole("link", { name: "Film map" }).click();
    await page
      .locator("[data-testid=settle]")
      .filter({ hasText: /safe|readings/ })
      .waitFor({ timeout: 15000 });
  },
  "film-risk": async () => {
    await VIEWS["film-map"]();
    await page.getByRole("radio", { name: "Risk below the minimum" }).click();
    await page.waitForTimeout(400);
  },
  "film-doubt": async () => {
    await VIEWS["film-map"]();
    await page.getByRole("radio", { name: /Doubt/ }).click();
    await page.waitForTimeout(400);
  },
  defects: () => panel("Imbat", "Side panel", "inspect/defects"),
  "defects-area": () => panel("Meltem", "Boot lid", "inspect/defects"),
  learnt: async () => {
    await page.goto("/house");
    await page.getByRole("heading", { name: "Learnt from this shop" }).evaluate((e) => e.scrollIntoView());
  },
  nibs: async () => {
    await panel("Imbat", "Side panel", "inspect/photo");
    await page.getByRole("button", { name: "Use the stand-in camera" }).click();
    await page.getByRole("button", { name: "Count the nibs" }).click();
    await page.getByTestId("nib-sentence").filter({ hasText: "marked" }).waitFor({ timeout: 60000 });
  },
  reflection: async () => {
    await panel("Imbat", "Side panel", "inspect/reflection");
    for (const of of ["own", "neighbour"]) {
      await page
        .getByTestId(`reflection-${of}`)
        .getByRole("button", { name: /Stand-in camera/ })
        .click();
      await page.getByTestId(`reflection-${of}`).getByText("mrad").waitFor({ timeout: 30000 });
    }
  },
  "next-time": () => panel("Lodos", "Bonnet", "hand-over/next-time"),
  causes: () => panel("Imbat", "Side panel", "correct/causes"),
  "causes-run": () => panel("Meltem", "Rear quarter", "correct/causes"),
  options: async () => {
    await panel("Meltem", "Rear quarter", "correct/options");
    await page.getByTestId("option-sentence").waitFor({ timeout: 15000 });
  },
  "film-time": () => panel("Lodos", "Bonnet", "inspect/time"),
  "film-time-boot": () => panel("Meltem", "Boot lid", "inspect/time"),
  gauge: () => panel("Lodos", "Bonnet", "inspect/gauge"),
  correct: () => panel("Meltem", "Rear quarter", "correct"),
  "correct-work": () => panel("Meltem", "Boot lid", "correct"),
  zones: async () => {
    await panel("Meltem", "Rear quarter", "correct");
    await page.getByTestId("verdict").filter({ hasNotText: "What is the least" }).waitFor({ timeout: 20000 });
    await page.getByRole("heading", { name: "Zones" }).evaluate((e) => e.scrollIntoView());
  },
  work: async () => {
    await panel("Meltem", "Boot lid", "correct");
    await page.getByRole("link", { name: "Work in the booth view" }).click();
    await page.getByRole("button", { name: "Start" }).click();
    await page.getByTestId("work-from-here").filter({ hasText: "still to come off" }).waitFor({ timeout: 20000 });
    await page.getByText("The step.s clock runs").waitFor({ state: "detached", timeout: 15000 });
  },
  "hand-over": () => panel("Lodos", "Bonnet", "hand-over"),
  "ask-sand": async () => {
    await page.goto("/ask/sand");
    const before = [92, 90, 94, 91, 93, 90];
    const after = [151, 146, 154, 149, 150, 143];
    for (let i = 0; i < 6; i++) {
      await page.getByLabel(`Spot ${i + 1}, before clear`).fill(String(before[i]));
      await page.getByLabel(`Spot ${i + 1}, after clear`).fill(String(after[i]));
    }
  },
  inferred: () => panel("Imbat", "Side panel", "inspect"),
  "new-job": () => page.goto("/jobs/new"),
  shelf: () => page.goto("/shelf"),
  product: () => page.goto("/shelf/new"),
  mix: async () => {
    await page.goto("/");
    await panel("Lodos", "Front door", "plan/mix");
    await page.getByRole("button", { name: "Open the pour guide" }).click();
    await page.getByRole("button", { name: "Tare with the pot on" }).click();
    await page.getByRole("button", { name: "Pour", exact: true }).click();
    await page.waitForTimeout(900);
    await page.getByRole("button", { name: "Stop", exact: true }).click();
    await page.waitForTimeout(900);
    if (process.env.FULL !== "1") await page.getByTestId("pour-guide").scrollIntoViewIfNeeded();
  },
  "mix-top": () => panel("Lodos", "Front door", "plan/mix"),
  window: async () => {
    await panel("Lodos", "Front door", "spray/window");
    await page.locator("[data-testid=flow-sentence]").waitFor();
    await page.waitForTimeout(3000);
  },
  vehicle: () => vehicleOf("Lodos", ""),
  "wet-edge": async () => {
    await vehicleOf("Lodos", "");
    await page.getByRole("button", { name: "All of it" }).click();
    await page.getByRole("button", { name: /^Add 10 parts/ }).click();
    await page.getByText("10 parts added").waitFor();
    await page.getByRole("link", { name: /Wet edge/ }).click();
    await page.getByRole("button", { name: "Take the best order" }).click({ timeout: 60_000 });
    await page.getByRole("button", { name: "This is the best order" }).waitFor();
    await page.waitForTimeout(4000);
  },
  dial: async () => {
    await panel("Lodos", "Front door", "spray/dial");
    await page.locator("[data-testid=dial-sentence][data-busy=false]").waitFor({ timeout: 20_000 });
    for (let i = 0; i < 4; i++) await page.getByRole("button", { name: "Gauge, trigger pulled: less" }).click();
    await page.getByRole("heading", { name: /^Coat/ }).waitFor({ timeout: 20_000 });
    await page.getByTestId("dial-figures").waitFor();
  },
  path: async () => {
    await panel("Lodos", "Rear door", "spray/path");
    await page.locator("[data-testid=path-sentence][data-busy=false]").waitFor({ timeout: 20_000 });
    await page.waitForTimeout(400);
  },
  "path-best": async () => {
    await panel("Lodos", "Rear door", "spray/path");
    await page.getByRole("button", { name: "Find the best path" }).click();
    await page
      .getByTestId("best-path")
      .filter({ hasText: /tried|better/ })
      .waitFor({ timeout: 30_000 });
    await page.locator("[data-testid=path-sentence][data-busy=false]").waitFor({ timeout: 20_000 });
    await page.waitForTimeout(800);
  },
  booth: async () => {
    await panel("Lodos", "Front door", "spray");
    await page.getByRole("navigation", { name: "Spray" }).getByText("More").click();
    await page.getByRole("link", { name: "Booth view" }).click();
    await page.getByTestId("booth-next").waitFor();
  },
  below: () => panel("Lodos", "Rear door", "spray/below"),
  ready: () => panel("Lodos", "Front door", "spray/ready"),
  "coat-plan": () => panel("Lodos", "Rear door", "spray/coat-plan"),
  gun: () => panel("Lodos", "Front door", "spray/gun"),
  "booth-plan": async () => {
    await page.goto("/booth-plan");
    await page.getByTestId("booth-sentence").filter({ hasText: "from the start" }).waitFor();
  },
  "ask-run": () => page.goto("/ask/run"),
  cure: async () => {
    await panel("Lodos", "Front door", "spray/cure");
    await page.getByRole("radio", { name: "bake it" }).click();
  },
  "ask-mix": () => page.goto("/ask/mix"),
  cards: async () => {
    await page.goto("/cards");
    for (const n of ["4", "7"]) await page.getByLabel(`Compare card ${n}`).check();
  },
  matte: () => panel("Poyraz", "Cowl", "plan/gloss"),
  "card-edit": () => page.goto("/cards/new/edit"),
  can: () => page.goto("/shelf/cans/new"),
  house: () => page.goto("/house"),
  ways: () => page.goto("/house/ways"),
  way: async () => {
    await page.goto("/house/ways/second-heavier");
    await page.locator("html[data-live]").waitFor({ state: "attached" });
    await page.getByLabel("Hand speed, %").nth(1).fill("80");
    await page.getByText("as typed").waitFor({ timeout: 20000 });
  },
  pots: async () => {
    await panel("Lodos", "Front door", "course");
    await page.getByRole("link", { name: "Pots", exact: true }).click();
    await page.getByTestId("pot").first().waitFor();
  },
  mend: () => panel("Lodos", "Front door", "spray/mend?card=dirtInBase"),
  flow: async () => {
    await panel("Meltem", "Boot lid", "correct/flow");
    await page.locator("[data-testid=flow-sentence]:not([data-verdict=waiting])").waitFor({ timeout: 20000 });
  },
};
/** Committed, two of them in Night too; the rest are for looking. */
const MAIN = [
  "floor",
  "plan",
  "practice",
  "matte",
  "spray",
  "path",
  "wet-edge",
  "window",
  "booth-plan",
  "booth",
  "inspect",
  "film-map",
  "people",
  "options",
  "correct",
  "course",
  "work",
  "hand-over",
  "waiting",
];
const shot = async (name, file) => {
  await VIEWS[name]();
  await page.waitForLoadState("load");
  if (name === "correct" || name === "ask-sand")
    await page.locator("[data-testid=verdict]:not([data-verdict=waiting])").waitFor({ timeout: 20000 });
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(out, `${file}.png`), fullPage: process.env.FULL === "1" });
};
const wanted = process.argv.slice(2);
const setTheme = (t) => page.request.post("/do/prefs", { data: { theme: t } });
try {
  if (wanted.length) {
    if (theme) await setTheme(theme);
    for (const name of wanted) await shot(name, name);
  } else {
    await setTheme("booth");
    for (const name of MAIN) await shot(name, name);
  }
} finally {
  await browser.close();
  server.kill("SIGTERM");
  onNetwork?.kill("SIGTERM");
}
