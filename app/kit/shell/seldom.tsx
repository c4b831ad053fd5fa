import { DemoBar } from "~/kit/first/demo-bar";
import type { RootData } from "~/kit/http/root-data.server";
import { SerialReader } from "~/kit/serial/serial-reader";
import { LowDisk } from "./low-disk";

/** What stands over a page of few shops, or works behind it: the invented shop's bar, a full disk's, instruments on a serial port. */
export function Seldom({ demo, keeping: { nearlyFull }, shop: { lineProfiles } }: Pick<RootData, "demo" | "keeping" | "shop">) {
  return (
    <>
      {demo && <DemoBar />}
      {nearlyFull && <LowDisk {...nearlyFull} />}
      {lineProfiles.length > 0 && <SerialReader profiles={lineProfiles} />}
    </>
  );
}
export { WhoChip } from "./who-chip";
