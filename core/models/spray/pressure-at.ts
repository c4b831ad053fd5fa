import { requireNumber } from "../../kernel/guard";

/** Where a pressure was read: at the gun with its trigger pulled, at the hose or inlet. */
export const PRESSURE_AT = { gun: "at the gun", hose: "at the hose" } as const;
export type PressureAt = keyof typeof PRESSURE_AT;

/** Of the pressure at the hose so much is left at a gun's cap, about: 50–60 psi against 26–31. Common practice, one gun. */
export const HOSE_SHARE = 0.52;

/** Pressure at the gun from the one that was read. @throws RangeError */
export const pressureAtGun = (read_Pa: number, at: PressureAt): number =>
  requireNumber("pressure_Pa", read_Pa, { above: 0 }) * (at === "hose" ? HOSE_SHARE : 1);

/** The one that would be read there. @throws RangeError */
export const pressureRead = (gun_Pa: number, at: PressureAt): number =>
  requireNumber("pressure_Pa", gun_Pa, { above: 0 }) / (at === "hose" ? HOSE_SHARE : 1);
