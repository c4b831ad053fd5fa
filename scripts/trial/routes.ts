import { join } from "node:path";
import type { RouteNeeds } from "../../app/access/route-needs";
import { pathToFileURL } from "node:url";

export interface RouteLine {
  path: string;
  reads: boolean;
  writes: boolean;
  needs: RouteNeeds;
}

/** The route table of the built program itself. */
export async function builtRoutes(): Promise<RouteLine[]> {
  const module = (await import(pathToFileURL(join(process.cwd(), "build/server/index.js")).href)) as { routeTable(): RouteLine[] };
  return module.routeTable();
}

/** A path with its parameters filled in. */
export const fill = (path: string, value: (name: string) => string): string =>
  path.replace(/:(\w+)/g, (_all, name: string) => encodeURIComponent(value(name)));
