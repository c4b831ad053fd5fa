import { StationTabs } from "~/kit/panel/station-tabs";

const jobOf = (base: string) => /^\/jobs\/([^/]+)/.exec(base)?.[1] ?? "";

/** Pages of the Spray station. */
export const SprayTabs = ({ base }: { base: string }) => (
  <StationTabs
    label="Spray"
    tabs={[
      { to: `${base}/spray/below`, label: "Below" },
      { to: `${base}/spray/mend`, label: "Mend" },
      { to: `${base}/spray/ready`, label: "Ready?" },
      { to: `${base}/spray`, label: "Coats" },
      { to: `${base}/spray/gun`, label: "Gun" },
      { to: `${base}/spray/coat-plan`, label: "Coat plan" },
      { to: `${base}/spray/window`, label: "Will it run?" },
      { to: `${base}/spray/cure`, label: "Cure" },
      { to: `/booth-plan?job=${jobOf(base)}`, label: "Booth plan" },
      { to: `/jobs/${jobOf(base)}/booth`, label: "Booth view" },
    ]}
  />
);
