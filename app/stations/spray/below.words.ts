import type { GritChain } from "#core/models/prep/grit-chain";

/** Whether the papers below the base follow each other, by the rule of the correction ladder. */
export function chainWords({ steps, fault, last }: GritChain, wanted: number): string {
  const papers = steps.map((s) => `P${s.grit}`).join(" → ");
  if (fault?.what === "coarser")
    return `${papers}: P${fault.to} after P${fault.from} goes back to a coarser paper; finish again from there.`;
  if (fault) return `${papers}: P${fault.to} wants ${fault.passes} passes to clear P${fault.from}; one between is quicker, and surer.`;
  const short = last < wanted ? ` This way wants P${wanted} below the base.` : "";
  return `${papers}: each clears the one before.${short}`;
}
