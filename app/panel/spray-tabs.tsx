import { StationTabs } from "./station-tabs";

/** Pages of the Spray station. */
export const SprayTabs = ({ base }: { base: string }) => (
  <StationTabs
    label="Spray"
    tabs={[
      { to: `${base}/spray`, label: "Coats" },
      { to: `${base}/spray/window`, label: "Will it run?" },
      { to: `${base}/spray/cure`, label: "Cure" },
      { to: base.replace(/\/panels\/.*$/, "/booth"), label: "Booth view" },
    ]}
  />
);
