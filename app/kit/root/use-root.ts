import { createContext, useContext } from "react";
import { useRouteLoaderData } from "react-router";
import type { RootData } from "~/kit/http/root-data.server";

/** Data of the shell: preferences of this screen, clocks, the shop. */
export function useRoot(): RootData {
  const root = useRouteLoaderData<RootData>("root");
  if (!root) throw new Error("the shell's data is missing");
  return root;
}
export const usePrefs = () => useRoot().prefs;
export const useUnits = () => useRoot().prefs.units;

/** Entries that whoever is signed in may neither put right nor take out: their presses stand at no page. */
export const OthersEntries = createContext<readonly string[]>([]);
export const useIsOthers = (entryId: string): boolean => useContext(OthersEntries).includes(entryId);
