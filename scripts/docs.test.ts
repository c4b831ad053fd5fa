import { existsSync, readFileSync, readdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { SOURCES } from "#core/kernel/sources";
import { FLOW_CUPS } from "#core/models/product/flow-cup";
import { HOUSE_WAYS } from "#core/models/ways/house-ways";
import { SHORTCUTS } from "~/house/shortcuts";

const read = (file: string) => readFileSync(file, "utf8");
const PAGES = ["README.md", "docs/handbook.md", "docs/models.md", "docs/formats.md", "docs/security.md"];
const linksOf = (text: string) => [...text.matchAll(/\]\(([^)#\s]+)(?:#[^)]*)?\)/g)].map((m) => m[1]!).filter((l) => !/^https?:/.test(l));

test.each(PAGES)("every link of %s leads somewhere", (page) => {
  const missing = linksOf(read(page)).filter((l) => !existsSync(join(dirname(page), l)));
  expect(missing).toEqual([]);
});
test("pictures: under 20, each linked from the README", () => {
  const pictures = readdirSync("docs/screenshots");
  expect(pictures.length).toBeLessThan(20);
  const linked = new Set(linksOf(read("README.md")));
  expect(pictures.filter((p) => !linked.has(`docs/screenshots/${p}`))).toEqual([]);
});
test("the README names every command of the package that a reader may run, and the two of a fresh clone", () => {
  const { scripts } = JSON.parse(read("package.json")) as { scripts: Record<string, string> };
  const readme = read("README.md");
  for (const name of ["demo", "dev", "unit", "e2e", "bench", "backup", "restore", "trial"]) {
    expect(scripts[name]).toBeDefined();
    expect(readme).toContain(`npm run ${name}`);
  }
  expect(readme).toContain("npm test");
});
test("the formats page documents every device address, topic and column that the program has", () => {
  const formats = read("docs/formats.md");
  for (const word of [
    "/do/devices/scale",
    "/do/events",
    "application/x-ndjson",
    "yakamoz-shelf",
    "Topic `film`",
    "Topic `optics`",
    "Topic `flow`",
  ])
    expect(formats).toContain(word);
});
test("every published source says where it comes from; cups and house ways cite one", () => {
  for (const s of Object.values(SOURCES)) expect(s.text.length).toBeGreaterThan(10);
  for (const c of Object.values(FLOW_CUPS)) expect(SOURCES[c.source].kind).toBe("published");
  for (const w of HOUSE_WAYS) expect(SOURCES[w.source].kind).toBe("practice");
});
test("no two shortcuts share their keys", () => {
  expect(new Set(SHORTCUTS.map((s) => s.keys)).size).toBe(SHORTCUTS.length);
});
test("pinned versions only, so that a fresh clone installs what was tested", () => {
  const { dependencies, devDependencies } = JSON.parse(read("package.json")) as Record<string, Record<string, string>>;
  const loose = Object.entries({ ...dependencies, ...devDependencies }).filter(([, v]) => !/^\d+\.\d+\.\d+$/.test(v));
  expect(loose).toEqual([]);
});

test("every place that the architecture names to be guessed is there, and exports what it says", () => {
  const rows = [...readFileSync("docs/architecture.md", "utf8").matchAll(/^\| .+\? \| `([^`]+)` \| `([^`]+)` \|$/gm)];
  expect(rows.length).toBeGreaterThanOrEqual(20);
  for (const [, file, name] of rows)
    expect(readFileSync(file!, "utf8")).toMatch(new RegExp(`export (async )?(const|function|class|interface|type) ${name!}\\b`));
});
