import { useEffect } from "react";
import { useLocation, useNavigate } from "react-router";
import { STATIONS } from "#core/panel/station";
import { usePrefsSubmit } from "./use-prefs-submit";

/** What the keys do anywhere; told on the page of keys (`house/shortcuts`). */
export function useShortcuts({ openPalette, nearPalette }: { openPalette: () => void; nearPalette: () => void }): void {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const { toggleTheme, toggleUnits } = usePrefsSubmit();
  useEffect(() => {
    const panel = /^\/jobs\/[^/]+\/panels\/[^/]+/.exec(pathname)?.[0];
    const onKey = (e: KeyboardEvent) => {
      if (e.key === "Control" || e.key === "Meta") nearPalette();
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "k") {
        e.preventDefault();
        return openPalette();
      }
      if (!e.altKey || e.ctrlKey || e.metaKey) return;
      const station = STATIONS[Number(e.code.replace("Digit", "")) - 1];
      const actions: Record<string, () => void> = {
        Digit0: () => void navigate("/"),
        KeyN: () => void navigate("/jobs/new"),
        KeyS: () => void navigate("/ask/sand"),
        KeyR: () => void navigate("/ask/run"),
        KeyM: () => void navigate("/ask/mix"),
        KeyG: () => void navigate("/ask/matte"),
        KeyC: () => void navigate("/cards"),
        KeyU: toggleUnits,
        KeyT: toggleTheme,
      };
      const run = station && panel ? () => void navigate(`${panel}/${station}`) : actions[e.code];
      if (!run) return;
      e.preventDefault();
      run();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, pathname, openPalette, nearPalette, toggleTheme, toggleUnits]);
}
