import { useRouteLoaderData } from "react-router";
import type { loader } from "../root";

/** Data of the shell: preferences of this screen, clocks, the shop. */
export function useRoot() {
  const root = useRouteLoaderData<typeof loader>("root");
  if (!root) throw new Error("the shell's data is missing");
  return root;
}
export const usePrefs = () => useRoot().prefs;
export const useUnits = () => useRoot().prefs.units;
