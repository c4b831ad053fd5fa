import { Command } from "cmdk";
import { useLocation, useNavigate } from "react-router";
import { useRoot } from "~/kit/root/use-root";
import { saidLately } from "~/kit/ui/said";
import { usePrefsSubmit } from "./use-prefs-submit";

/** Every page of a panel, with other words that a painter may look for. */
const PANEL_PAGES: readonly (readonly [name: string, path: string, words?: readonly string[]])[] = [
  ["Plan", "plan", ["brief", "litres", "coats"]],
  ["Change it", "change", ["edit", "rename", "product", "tilt", "copy"]],
  ["Mix", "plan/mix", ["ratio", "hardener", "reducer", "pot"]],
  ["Gloss", "plan/gloss", ["matte", "meter"]],
  ["Spray", "spray", ["coat", "log"]],
  ["Below the clear", "spray/below", ["primer", "base", "prep"]],
  ["Ready?", "spray/ready", ["climate", "check list", "dew point"]],
  ["Gun", "spray/gun", ["needle", "fan", "cup", "hand speed"]],
  ["Neighbour", "plan/neighbour", ["beside", "match", "texture"]],
  ["Coat plan", "spray/coat-plan", ["house way"]],
  ["Will it run?", "spray/window", ["flow", "peel"]],
  ["Cure", "spray/cure", ["bake", "oven", "dry"]],
  ["Inspect", "inspect", ["readings", "film", "thickness"]],
  ["Film map", "inspect/map", ["risk", "remove"]],
  ["Through time", "inspect/time", ["history"]],
  ["Defects", "inspect/defects", ["faults", "run", "nib", "crater"]],
  ["Count nibs", "inspect/photo", ["dust", "photograph"]],
  ["Reflection", "inspect/reflection", ["texture", "orange peel"]],
  ["Gauge", "inspect/gauge", ["foil", "zero"]],
  ["Correct", "correct", ["sand", "polish", "plan"]],
  ["Causes", "correct/causes", ["why"]],
  ["Options", "correct/options", ["least", "cost"]],
  ["Hand over", "hand-over", ["report", "ledger", "print"]],
  ["Next time", "hand-over/next-time", ["learn"]],
];

/** Every place, job and switch by name (Ctrl K). */
export function CommandPalette({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const { jobs } = useRoot();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const { toggleTheme, toggleUnits } = usePrefsSubmit();
  const panel = /^\/jobs\/[^/]+\/panels\/[^/]+/.exec(pathname)?.[0];
  const item = (label: string, run: () => void, keywords: readonly string[] = [], id = label) => (
    <Command.Item
      key={id}
      value={id}
      keywords={[...keywords]}
      onSelect={() => {
        onOpenChange(false);
        run();
      }}
      className="flex min-h-11 cursor-pointer items-center rounded-press px-3 data-[selected=true]:bg-glow-wash"
    >
      {label}
    </Command.Item>
  );
  const go = (label: string, to: string, keywords?: readonly string[]) => item(label, () => void navigate(to), keywords);
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpenChange}
      label="Go to"
      overlayClassName="fixed inset-0 z-40 bg-black/45"
      contentClassName="fixed left-1/2 top-[12vh] z-50 w-[min(560px,94vw)] -translate-x-1/2 rounded-press border border-hair bg-paper p-3 text-ink"
    >
      <Command.Input placeholder="Job, place or switch" className="field" />
      <Command.List className="mt-2 max-h-[50vh] overflow-y-auto">
        <Command.Empty className="p-3 text-ink2">Nothing by that name.</Command.Empty>
        {saidLately().map((s, n) => item(`Undo: ${s.message}`, s.undo, ["said", "lately"], `Undo: ${s.message} (${n + 1})`))}
        {panel && PANEL_PAGES.map(([name, path, words]) => go(`${name} (this panel)`, `${panel}/${path}`, words))}
        {go("Shop floor", "/")}
        {go("Booth plan", "/booth-plan", ["day", "schedule"])}
        {go("New product", "/shelf/new", ["sheet", "clear"])}
        {go("New job", "/jobs/new")}
        {go("Can I sand this?", "/ask/sand")}
        {go("Will it run?", "/ask/run")}
        {go("How much do I mix?", "/ask/mix")}
        {go("Which matte mix?", "/ask/matte")}
        {go("All jobs", "/jobs")}
        {go("Shelf", "/shelf")}
        {go("Cards", "/cards")}
        {go("New card", "/cards/new/edit")}
        {go("Practice", "/practice")}
        {go("New can", "/shelf/cans/new")}
        {go("House", "/house")}
        {go("Keyboard shortcuts", "/keys")}
        {go("Words and what they mean", "/words", ["glossary", "term", "help"])}
        {item("Switch units", toggleUnits)}
        {item("Switch theme", toggleTheme)}
        {jobs.map((j) => go(`${j.vehicle}, ${j.colourName}`, `/jobs/${j.id}`))}
        {jobs.flatMap((j) => j.panels.map((p) => go(`${p.name}, ${j.vehicle}`, `/jobs/${j.id}/panels/${p.id}`)))}
      </Command.List>
    </Command.Dialog>
  );
}
