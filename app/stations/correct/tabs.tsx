import { StationTabs } from "~/kit/panel/station-tabs";

/** Pages of the Correct station. */
export const CorrectTabs = ({ base }: { base: string }) => (
  <StationTabs
    label="Correct"
    tabs={[
      { to: `${base}/correct/causes`, label: "Causes" },
      { to: `${base}/correct/options`, label: "Options" },
      { to: `${base}/correct`, label: "Plan and work" },
      { to: `${base}/correct/flow`, label: "Flow coat" },
    ]}
  />
);
