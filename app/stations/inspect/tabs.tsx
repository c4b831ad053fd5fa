import { StationTabs } from "~/kit/panel/station-tabs";

/** Pages of the Inspect station. */
export const InspectTabs = ({ base }: { base: string }) => (
  <StationTabs
    label="Inspect"
    tabs={[
      { to: `${base}/inspect`, label: "Read" },
      { to: `${base}/inspect/map`, label: "Film map" },
      { to: `${base}/inspect/time`, label: "Through time" },
      { to: `${base}/inspect/defects`, label: "Defects" },
      { to: `${base}/inspect/photo`, label: "Count nibs" },
      { to: `${base}/inspect/reflection`, label: "Reflection" },
      { to: `${base}/inspect/gauge`, label: "Gauge" },
    ]}
  />
);
