import { useEffect } from "react";
import { useLocation, useNavigate } from "react-router";
import { STATIONS } from "#core/panel/station";
import { usePrefsSubmit } from "./use-prefs-submit";

/** Shown on the shortcuts page; the handler below reads the same table. */
export const SHORTCUTS = [
  { keys: "Ctrl K", does: "Go to any place or job" },
  { keys: "Alt 1 … 5", does: "Plan, Spray, Inspect, Correct, Hand over of the open panel" },
  { keys: "Alt 0", does: "The Floor" },
  { keys: "Alt N", does: "New job" },
  { keys: "Alt S", does: "Can I sand this?" },
  { keys: "Alt R", does: "Will it run?" },
  { keys: "Alt M", does: "How much do I mix?" },
  { keys: "Alt G", does: "Which matte mix?" },
  { keys: "Alt C", does: "Cards" },
  { keys: "Alt U", does: "Switch between metric and imperial" },
  { keys: "Alt T", does: "Switch between Booth and Night" },
  { keys: "Enter", does: "In a reading: save it and go on to the next" },
  { keys: "Arrow keys", does: "On the panel drawing: move the mark, Enter places it" },
] as const;

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
