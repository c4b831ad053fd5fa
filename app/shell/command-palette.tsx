import { Command } from "cmdk";
import { useLocation, useNavigate } from "react-router";
import { STATIONS, STATION_NAMES } from "#core/ledger/station";
import { useRoot } from "~/lib/use-root";
import { usePrefsSubmit } from "./use-prefs-submit";

/** Every place, job and switch by name (Ctrl K). */
export function CommandPalette({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const { jobs } = useRoot();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const { toggleTheme, toggleUnits } = usePrefsSubmit();
  const panel = /^\/jobs\/[^/]+\/panels\/[^/]+/.exec(pathname)?.[0];
  const item = (label: string, run: () => void) => (
    <Command.Item
      key={label}
      value={label}
      onSelect={() => {
        onOpenChange(false);
        run();
      }}
      className="flex min-h-11 cursor-pointer items-center rounded-press px-3 data-[selected=true]:bg-glow-wash"
    >
      {label}
    </Command.Item>
  );
  const go = (label: string, to: string) => item(label, () => void navigate(to));
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
        {panel && go("Will it run? (this panel)", `${panel}/spray/window`)}
        {panel && go("Cure (this panel)", `${panel}/spray/cure`)}
        {panel && go("Mix (this panel)", `${panel}/plan/mix`)}
        {panel && go("Gloss (this panel)", `${panel}/plan/gloss`)}
        {panel && STATIONS.map((s) => go(`${STATION_NAMES[s]} (this panel)`, `${panel}/${s}`))}
        {go("Floor", "/")}
        {go("New job", "/jobs/new")}
        {go("Can I sand this?", "/ask/sand")}
        {go("Will it run?", "/ask/run")}
        {go("How much do I mix?", "/ask/mix")}
        {go("Which matte mix?", "/ask/matte")}
        {go("All jobs", "/jobs")}
        {go("Shelf", "/shelf")}
        {go("Cards", "/cards")}
        {go("New card", "/cards/new/edit")}
        {go("New can", "/shelf/cans/new")}
        {go("House", "/house")}
        {go("Keyboard shortcuts", "/keys")}
        {item("Switch units", toggleUnits)}
        {item("Switch theme", toggleTheme)}
        {jobs.map((j) => go(`${j.vehicle}, ${j.colourName}`, `/jobs/${j.id}`))}
      </Command.List>
    </Command.Dialog>
  );
}
