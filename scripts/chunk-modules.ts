/** What of a module says where it belongs. */
export interface Module {
  isEntry: boolean;
  imports: readonly string[];
  loadsLater: readonly string[];
  bytes: number;
  /** It only hands on what others export: who imports it needs what it names, not all that it hands on. */
  isBarrel: boolean;
}
export type GetModule = (id: string) => Module | null;

interface Info {
  isEntry: boolean;
  importedIds: readonly string[];
  dynamicallyImportedIds: readonly string[];
  code: string | null;
}
const HANDED_ON =
  /(export|import)\s*(\*(\s*as\s+\w+)?|\{[^}]*\})\s*from\s*["'][^"']+["'];?|export\s*\{[^}]*\}\s*;?|\/\*[\s\S]*?\*\/|\/\/.*/g;
/** Under which names a module hands on what others export: the module of each, as it is written there. */
export function handedOnBy(code: string): Map<string, string> {
  const of = new Map<string, string>();
  for (const [, names, source] of code.matchAll(/export\s*\{([^}]*)\}\s*from\s*["']([^"']+)["']/g))
    for (const name of names!.split(","))
      of.set(
        name
          .trim()
          .split(/\s+as\s+/)
          .at(-1)!,
        source!,
      );
  return of;
}

/** What a module asks of another by name. */
export const namesAsked = (code: string, source: string): string[] =>
  [...code.matchAll(/import\s*\{([^}]*)\}\s*from\s*["']([^"']+)["']/g)].flatMap(([, names, from]) =>
    from === source ? names!.split(",").flatMap((name) => name.trim().split(/\s+as\s+/)[0] || []) : [],
  );

/** Libraries of which pages use a few functions each. Of all others what one file hands on is needed by who imports it. */
const PARTLY_USED = /node_modules\/(d3-|lucide-react|date-fns)/;
const isTakenWhole = (id: string) => id.includes("node_modules/") && !PARTLY_USED.test(id);
/** What a bundler knows of a module. @param left script of it that pages use, minified */
export function moduleOf(info: Info | null, id = "", left = info?.code ?? ""): Module | null {
  if (!info) return null;
  const code = info.code ?? "";
  const rest = code.replace(HANDED_ON, "");
  return {
    isEntry: info.isEntry,
    imports: info.importedIds,
    loadsLater: info.dynamicallyImportedIds,
    bytes: left.length,
    isBarrel: code !== "" && rest.trim() === "" && !isTakenWhole(id),
  };
}

interface Route {
  file: string;
  children?: Route[] | undefined;
}
/** Every page: the files of the routes that its address names, from the outermost in. */
export const routePages = (routes: readonly Route[], above: readonly string[] = []): string[][] =>
  routes.flatMap((r) => (r.children ? routePages(r.children, [...above, r.file]) : [[...above, r.file]]));

/**
 * Modules that a page is made of: what starts every page, and all that stands for a file of its routes (the file, and what the router makes of it).
 * The same whatever order the modules were read in.
 * @param ids of all modules
 * @param folder that the files are in, ending in a stroke
 */
export function pageModules(pages: readonly (readonly string[])[], ids: readonly string[], folder: string): string[][] {
  const of = new Map<string, string[]>();
  for (const id of [...ids].sort()) {
    const file = id.replace(/\?.*/, "");
    of.set(file, [...(of.get(file) ?? []), id]);
  }
  return pages.map((files) => ["entry.client.tsx", "root.tsx", ...files].flatMap((file) => of.get(folder + file) ?? []));
}
