import { readFileSync, readdirSync } from "node:fs";
import { builtinModules } from "node:module";
import { type Plugin, defineConfig } from "vite";
import routes from "./app/routes";
import router from "./react-router.config";

/**
 * The shop's program for the device itself, in one file: the same pages, commands and repositories as on the server, over rows that the device has
 * kept, for when the server does not answer. Built after the rest: it names the same files of script and style as the server's pages do.
 */
const ROOT = import.meta.dirname;
const CLIENT = `${ROOT}/build/client/assets`;

/** What this stands in the place of, by the file that it stands for. */
const INSTEAD: Record<string, string> = {
  "server/running.ts": "running.ts",
  "app/kit/http/body.server.ts": "body.ts",
};
/** Rooms of the server's machine that are not here at all. */
const NOT_HERE = /\/server\/(lan|storage)\//;
/** What is installed on the server and does something here too. */
const WORKS_HERE = new Set(["kysely", "lru-cache", "p-limit", "papaparse", "qrcode", "ics"]);
const SHIMS: Record<string, string> = {
  crypto: "node-crypto.ts",
  async_hooks: "node-async-hooks.ts",
  path: "node-path.ts",
};

const installed = Object.keys((JSON.parse(readFileSync(`${ROOT}/package.json`, "utf8")) as { dependencies: object }).dependencies);
const ABSENT = "\0absent:";

/** Whatever a module of the server's machine exports, as something that says it is not on this device when it is called. */
async function absent(name: string): Promise<string> {
  const names = name.startsWith("/")
    ? [...readFileSync(name, "utf8").matchAll(/^export (?:async )?(?:const|function|class) (\w+)/gm)].map((m) => m[1]!)
    : Object.keys((await import(name)) as object).filter((n) => n !== "default" && /^[A-Za-z_$][\w$]*$/.test(n));
  const no = `const no = (n) => Object.assign(function () { throw new Error(${JSON.stringify(name.replace(ROOT, ""))} + " " + n + " is not on this device"); }, {});`;
  return [no, ...names.map((n) => `export const ${n} = no(${JSON.stringify(n)});`), `export default no("itself");`].join("\n");
}

interface Route {
  id?: string | undefined;
  file: string;
  path?: string | undefined;
  index?: boolean | undefined;
  caseSensitive?: boolean | undefined;
  children?: Route[] | undefined;
}
interface Placed {
  id: string;
  parentId: string | undefined;
  file: string;
  path: string | undefined;
  index: boolean | undefined;
}
const idOf = (r: Route) => r.id ?? r.file.replace(/\.\w+$/, "");
const flat = (list: readonly Route[], parentId: string): Placed[] =>
  list.flatMap((r) => [{ id: idOf(r), parentId, file: r.file, path: r.path, index: r.index }, ...flat(r.children ?? [], idOf(r))]);

/** The routes with all that the server knows of them, and the files that the built client has. */
function serverBuild(): string {
  const list: Placed[] = [{ id: "root", parentId: undefined, file: "root.tsx", path: "", index: undefined }, ...flat(routes, "root")];
  const manifest = readdirSync(CLIENT).find((f) => /^manifest-.*\.js$/.test(f));
  if (!manifest) throw new Error("the client is not built");
  const assets = readFileSync(`${CLIENT}/${manifest}`, "utf8")
    .replace(/^window\.__reactRouterManifest=/, "")
    .replace(/;\s*$/, "");
  return [
    `import { UNSAFE_withComponentProps as withProps, UNSAFE_withErrorBoundaryProps as withError } from "react-router";`,
    // As the router's own build does it: what a page is made of comes to it as props.
    `const page = (m) => ({ ...m, ...(m.default && { default: withProps(m.default) }), ...(m.ErrorBoundary && { ErrorBoundary: withError(m.ErrorBoundary) }) });`,
    `import * as entryServer from "${ROOT}/device/entry.render.tsx";`,
    ...list.map((r, i) => `import * as route${i} from "${ROOT}/app/${r.file}";`),
    `export const assets = ${assets};`,
    `export const assetsBuildDirectory = "build/client";`,
    `export const basename = "/";`,
    `export const future = ${JSON.stringify(router.future)};`,
    `export const ssr = true; export const isSpaMode = false; export const prerender = [];`,
    `export const routeDiscovery = ${JSON.stringify({ ...router.routeDiscovery })};`,
    `export const publicPath = "/"; export const allowedActionOrigins = false;`,
    `export const entry = { module: entryServer };`,
    `export const routes = {`,
    ...list.map(
      (r, i) =>
        `${JSON.stringify(r.id)}: { ${Object.entries({ id: r.id, parentId: r.parentId, path: r.path, index: r.index })
          .map(([k, v]) => `${k}: ${v === undefined ? "undefined" : JSON.stringify(v)}`)
          .join(", ")}, caseSensitive: undefined, module: page(route${i}) },`,
    ),
    `};`,
  ].join("\n");
}

/** A built file's address, as a module. */
const addressOf = (name: RegExp): string => `export default "/assets/${readdirSync(CLIENT).find((f) => name.test(f))!}";`;

/** What opens a page where the server does not answer: the service worker names it. */
const COLD = "virtual:cold";
const BUILD = "virtual:react-router/server-build";
const onDevice: Plugin = {
  name: "on the device",
  enforce: "pre",
  async resolveId(source, importer, options) {
    if (source === BUILD) return `\0${BUILD}`;
    if (source === COLD) return `\0${COLD}`;
    if (source.endsWith("app.css?url")) return "\0styles";
    const bare = source.replace(/^node:/, "");
    if (source === "libsql") return `${ROOT}/device/shims/libsql.ts`;
    if (builtinModules.includes(bare))
      return bare in SHIMS ? `${ROOT}/device/shims/${SHIMS[bare]!}` : bare === "buffer" ? null : `${ABSENT}node:${bare}`;
    if (source === "react-dom/server") return this.resolve("react-dom/server.browser", importer, options);
    const router = { "react-router": "index", "react-router/dom": "dom-export" }[source];
    if (router) return this.resolve(`/node_modules/react-router/dist/production/${router}.mjs`, importer, options);
    if (installed.includes(source) && !WORKS_HERE.has(source)) return `${ABSENT}${source}`;
    const found = await this.resolve(source, importer, { ...options, skipSelf: true });
    if (found && NOT_HERE.test(found.id)) return ABSENT + found.id;
    const instead = found && INSTEAD[found.id.replace(`${ROOT}/`, "")];
    return instead && !importer?.includes("/device/instead/") ? `${ROOT}/device/instead/${instead}` : found;
  },
  load(id) {
    if (id === `\0${BUILD}`) return serverBuild();
    if (id === "\0styles") return addressOf(/^app-.*\.css$/);
    if (id === `\0${COLD}`) return addressOf(/^cold-[\w-]{10}\.js$/);
    return id.startsWith(ABSENT) ? absent(id.slice(ABSENT.length)) : null;
  },
};

const PARTS = {
  device: { input: "./device/worker.ts", file: "assets/[name]-[hash:10].js" },
  cold: { input: "./device/cold.ts", file: "assets/[name]-[hash:10].js" },
  "service-worker": { input: "./device/service-worker.ts", file: "[name].js" },
} as const;
const part = process.env.DEVICE_PART as keyof typeof PARTS;
const { input, file } = PARTS[part];

export default defineConfig({
  plugins: [onDevice],
  logLevel: "error",
  define: { "import.meta.env.SSR": "true", "process.env.NODE_ENV": '"production"', "process.env": "({})" },
  resolve: { tsconfigPaths: true },
  worker: { format: "es" },
  publicDir: false,
  build: {
    outDir: "build/client",
    emptyOutDir: false,
    assetsInlineLimit: 0,
    target: "es2022",
    rollupOptions: {
      input: { [part]: input },
      output: { format: "iife", entryFileNames: file, codeSplitting: false },
    },
  },
});
