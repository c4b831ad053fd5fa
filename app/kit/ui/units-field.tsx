import { useUnits } from "~/kit/root/use-root";

/** The units this form shows, sent with it: a switch in another window must never change what was typed here. */
export function UnitsField() {
  return <input type="hidden" name="units" value={JSON.stringify(useUnits())} />;
}
