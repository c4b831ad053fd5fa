import { useRoot } from "~/kit/root/use-root";

/** Whether simulated devices are on in this shop. */
export const useStandIns = (): boolean => useRoot().shop.standIns;

/** Presses of simulated devices: there only where the shop has switched them on. */
export const StandIn = ({ children }: { children: React.ReactNode }) => (useStandIns() ? children : null);
