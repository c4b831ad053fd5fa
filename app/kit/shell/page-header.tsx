import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { usePrefs } from "~/kit/root/use-root";
import { usePrefsSubmit } from "./use-prefs-submit";
import { Toggle } from "~/kit/ui/toggle";

/**
 * Name of the page at the left, something in the middle, the units switch at the right: the same on every page, one line high. Where there is no room
 * for the switch it is under House, and one word away in "Go to".
 * @param narrow what stands in the middle takes the switch's room on a tablet
 */
export function PageHeader({
  title,
  note,
  narrow = false,
  children,
}: {
  title: string;
  note?: React.ReactNode;
  narrow?: boolean;
  children?: React.ReactNode;
}) {
  return (
    <header className="flex min-h-[60px] items-center justify-between gap-x-3 border-b border-hair px-4 py-0.5 sm:min-h-16 sm:gap-x-6 sm:px-6">
      <div className="min-w-0">
        <h1 className="text-[17px] leading-tight font-semibold tracking-tight sm:text-[21px]">{title}</h1>
        {note && <p className="text-[13px] text-ink2 max-sm:hidden">{note}</p>}
      </div>
      {children}
      <div className={narrow ? "max-lg:hidden" : "max-sm:hidden"}>
        <UnitsSwitch />
      </div>
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
