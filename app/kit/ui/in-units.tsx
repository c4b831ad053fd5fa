import { useUnits } from "~/kit/root/use-root";
import { inUnits } from "#core/kernel/units/in-units";

/** A sentence with its figures in this screen's units. */
export const InUnits = ({ children }: { children: string }) => inUnits(children, useUnits());
