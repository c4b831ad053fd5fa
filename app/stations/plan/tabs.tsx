import { StationTabs } from "~/kit/panel/station-tabs";

/** Pages of the Plan station: the coats, the mix, the gloss, the panel beside. */
export const PlanTabs = ({ base }: { base: string }) => (
  <StationTabs
    label="Plan"
    tabs={[
      { to: `${base}/plan`, label: "Coats" },
      { to: `${base}/plan/mix`, label: "Mix" },
      { to: `${base}/plan/gloss`, label: "Gloss" },
      { to: `${base}/plan/neighbour`, label: "Neighbour" },
    ]}
  />
);
