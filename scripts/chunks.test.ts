import { type Module, handedOnBy, moduleOf, namesAsked, pageModules, routePages } from "./chunk-modules";
import { chunkPlan } from "./chunks";
import { leftOf } from "./left-of";

/** A small program: what each module imports, and loads later. */
const program: Record<string, { imports?: string[]; later?: string[]; bytes?: number; barrel?: boolean }> = {
  one: { imports: ["frame", "film", "barrel"], later: ["desk"] },
  two: { imports: ["frame", "film", "gloss"] },
  three: { imports: ["frame"] },
  frame: { imports: ["units"], bytes: 90_000 },
  units: { bytes: 4000 },
  film: { imports: ["units", "normal"], bytes: 120_000 },
  normal: { bytes: 300 },
  gloss: { imports: ["normal"], bytes: 80_000 },
  barrel: { imports: ["gloss"], barrel: true },
  desk: { imports: ["film", "gloss"] },
};
const module = (id: string): Module | null => {
  const { imports = [], later = [], bytes = 1000, barrel = false } = program[id] ?? {};
  return program[id] ? { isEntry: false, imports, loadsLater: later, bytes, isBarrel: barrel } : null;
};
const weigh = (members: readonly string[]) => members.reduce((sum, id) => sum + module(id)!.bytes, 0);
const plan = () => chunkPlan([["one"], ["two"], ["three"]], module, weigh);

test("what every page needs is one file; what some need is no burden to the others; pages and what is loaded later are files of their own", () => {
  const files = plan();
  expect(files.get("frame")).toBe(files.get("units"));
  expect(files.get("film")).not.toBe(files.get("frame"));
  expect(files.get("film")).not.toBe(files.get("gloss")); // page one would carry it for nothing: a barrel is no need
  expect(files.get("normal")).toBe(files.get("film"));
  for (const alone of ["one", "two", "three", "desk"]) expect(files.has(alone)).toBe(false);
});

test("no file needs one that comes after it, so none need each other in a circle", () => {
  const files = plan();
  for (const [id, n] of files) for (const next of module(id)!.imports) expect(files.get(next) ?? -1).toBeLessThanOrEqual(n);
});

test("a page of which each module goes with other pages asks for few files nevertheless, and another that may load much more does not hide it", () => {
  const parts = Array.from({ length: 40 }, (_, n) => `part ${n}`);
  const others = parts.map((part, n) => [part, parts[(n + 1) % 40]!, parts[(n + 7) % 40]!]);
  const laters = Array.from({ length: 70 }, (_, n) => `later ${n}`);
  const known = new Map<string, Module>(
    [...parts, ...laters, "page", "hub", ...others.map((_, n) => `other ${n}`)].map((id) => {
      const imports = id === "page" ? parts : id.startsWith("other") ? others[Number(id.split(" ")[1])]! : [];
      return [id, { isEntry: false, imports, loadsLater: id === "hub" ? laters : [], bytes: 900_000, isBarrel: false }];
    }),
  );
  const pages = [["page"], ["hub"], ...others.map((_, n) => [`other ${n}`])];
  const files = chunkPlan(
    pages,
    (id) => known.get(id) ?? null,
    (members) => members.length * 1500,
  );
  const asked = new Set(parts.map((id) => files.get(id)));
  expect(files.size).toBe(40);
  expect(asked.size).toBeGreaterThan(1);
  expect(asked.size).toBeLessThanOrEqual(35);
});

test("what is asked of a library by name is the module that it is written in", () => {
  const library = handedOnBy(
    'export { default as Check, default as Tick } from "./check.mjs";\nexport {bell} from \'./bell.mjs\'; export * from "./all";',
  );
  expect([...library]).toEqual([
    ["Check", "./check.mjs"],
    ["Tick", "./check.mjs"],
    ["bell", "./bell.mjs"],
  ]);
  const asked = namesAsked('import { Check as C,\n bell } from "icons"; import { Other } from "else"; import Whole from "icons";', "icons");
  expect(asked).toEqual(["Check", "bell"]);
});

test("a module that only hands on is told from one that does something; every page is the routes above it", () => {
  const of = (code: string) => moduleOf({ isEntry: false, importedIds: [], dynamicallyImportedIds: [], code })!.isBarrel;
  expect(of('/* all */ export * from "./a";\nimport * as b from "./b";\nexport { b, c } ;\nexport { d } from "./d"; // d')).toBe(true);
  expect(of('export * from "./a"; start();')).toBe(false);
  expect(routePages([{ file: "a" }, { file: "b", children: [{ file: "c" }, { file: "d", children: [{ file: "e" }] }] }])).toEqual([
    ["a"],
    ["b", "c"],
    ["b", "d", "e"],
  ]);
});

test("a page is all modules of its routes, whatever order they were read in", () => {
  const ids = ["/w/app/a.route.tsx?client", "/w/app/root.tsx", "/w/app/a.route.tsx", "/w/app/b/a.route.tsx", "/w/app/entry.client.tsx"];
  const made = [["/w/app/entry.client.tsx", "/w/app/root.tsx", "/w/app/a.route.tsx", "/w/app/a.route.tsx?client"]];
  expect(pageModules([["a.route.tsx"]], ids, "/w/app/")).toEqual(made);
  expect(pageModules([["a.route.tsx"]], [...ids].reverse(), "/w/app/")).toEqual(made);
});

test("what no page uses of a module does not count: it is left out before modules are weighed", async () => {
  const files: Record<string, string> = {
    page: 'import { used } from "./lib";\nconsole.log(used(1));',
    lib: 'import { far } from "./away";\nexport const used = (n) => far(n) + 1;\nexport const idle = () => "nobody asks for this";',
  };
  const read = (id: string) => (id in files ? { code: files[id]!, moduleSideEffects: null } : null);
  const left = await leftOf(["page"], read, (source) => Promise.resolve({ id: source.replace("./", "") }));
  expect([...left.keys()].sort()).toEqual(["lib", "page"]);
  expect(left.get("lib")).toContain("used");
  expect(left.get("lib")).not.toContain("nobody");
});
