import type { Finish } from "../models/ways/way";
import type { Verdict } from "./limits";

/** What holds a plan back whatever the film: matte is never sanded or polished, and soft clear not yet. */
export type Held = "matte" | "uncured" | null;

export const heldBy = ({ finish, cured }: { finish: Finish; cured: number }): Held =>
  finish === "matte" ? "matte" : cured < 1 ? "uncured" : null;

/** The verdict on a plan that is held back: never *safe*. Page and stored plan ask this one. */
export const heldVerdict = <V extends Verdict>(verdict: V, held: Held): V | "stop" | "caution" =>
  verdict === "none" ? verdict : held === "matte" ? "stop" : held === "uncured" && verdict === "safe" ? "caution" : verdict;
