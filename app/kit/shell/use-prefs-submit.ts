import { useCallback } from "react";
import { useFetcher } from "react-router";
import { IMPERIAL, METRIC, type UnitPreferences } from "#core/kernel/units/quantities";
import { usePrefs } from "~/kit/root/use-root";

/** Changes this screen's preferences; the server answers with a cookie, so a reload keeps them. */
export function usePrefsSubmit() {
  const prefs = usePrefs();
  const { submit } = useFetcher({ key: "prefs" });
  const send = useCallback(
    (change: Partial<typeof prefs>) =>
      void submit(JSON.stringify(change), { method: "post", action: "/do/prefs", encType: "application/json" }),
    [submit],
  );
  const metric = prefs.units.film === "µm";
  const setUnits = useCallback((units: UnitPreferences) => send({ units }), [send]);
  return {
    send,
    setUnits,
    toggleUnits: useCallback(() => setUnits(metric ? IMPERIAL : METRIC), [setUnits, metric]),
    toggleTheme: useCallback(() => send({ theme: prefs.theme === "night" ? "booth" : "night" }), [send, prefs.theme]),
  };
}
