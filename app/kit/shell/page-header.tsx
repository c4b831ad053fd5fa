import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { usePrefs } from "~/kit/root/use-root";
import { usePrefsSubmit } from "./use-prefs-submit";
import { Toggle } from "~/kit/ui/toggle";

/** Name of the page at the left, something in the middle, the units switch at the right: the same on every page. */
export function PageHeader({ title, note, children }: { title: string; note?: React.ReactNode; children?: React.ReactNode }) {
  return (
    <header className="flex min-h-[76px] flex-wrap items-center justify-between gap-x-8 gap-y-2 border-b border-hair px-4 py-2 sm:px-6">
      <div className="min-w-0">
        <h1 className="text-[21px] leading-tight font-semibold tracking-tight">{title}</h1>
        {note && <p className="text-[13px] text-ink2">{note}</p>}
      </div>
      {children}
      <UnitsSwitch />
    </header>
  );
}

export function UnitsSwitch() {
  const { units } = usePrefs();
  const { setUnits } = usePrefsSubmit();
  return (
    <div className="no-print">
      <Toggle
        label="Units"
        value={units.film === "µm" ? "metric" : "imperial"}
        onChange={(v) => setUnits(v === "metric" ? METRIC : IMPERIAL)}
        options={[
          { value: "metric", name: "µm °C bar" },
          { value: "imperial", name: "mil °F psi" },
        ]}
      />
    </div>
  );
}
