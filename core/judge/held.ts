import type { Finish } from "../models/ways/way";
import type { Verdict } from "./limits";

/** What holds a plan back whatever the film: matte is never sanded or polished, soft clear not yet, and not while an entry is left out of the account. */
export type Held = "matte" | "uncured" | "inTheWay" | null;

export const heldBy = ({ finish, cured, inTheWay }: { finish: Finish; cured: number; inTheWay: readonly unknown[] }): Held =>
  finish === "matte" ? "matte" : cured < 1 ? "uncured" : inTheWay.length > 0 ? "inTheWay" : null;

/** The verdict on a plan that is held back: never *safe*. Page and stored plan ask this one. */
export const heldVerdict = <V extends Verdict>(verdict: V, held: Held): V | "stop" | "caution" =>
  verdict === "none" ? verdict : held === "matte" ? "stop" : held !== null && verdict === "safe" ? "caution" : verdict;
