import { StationTabs } from "~/kit/panel/station-tabs";
import { useMay } from "~/kit/root/use-may";

/** Pages of the Correct station; those that weigh money are for who sees it. */
export function CorrectTabs({ base }: { base: string }) {
  const weighs = useMay("costs");
  return (
    <StationTabs
      label="Correct"
      tabs={[
        { to: `${base}/correct/causes`, label: "Causes" },
        ...(weighs ? [{ to: `${base}/correct/options`, label: "Options" }] : []),
        { to: `${base}/correct`, label: "Plan and work" },
        ...(weighs ? [{ to: `${base}/correct/flow`, label: "Flow coat" }] : []),
      ]}
    />
  );
}
