import type { Finish } from "../models/ways/terms";
import type { HoldingFault } from "../panel/fault-holds";
import type { Verdict } from "./limits";

/**
 * What holds a work back whatever the film: matte is never sanded or polished, soft clear not yet, not while an entry is left out of the account or
 * readings cannot be right together, and not over a fault that has to be seen to first.
 */
export type BlockedBy = { by: "matte" | "uncured" | "inTheWay" | "doubtful" } | { by: "fault"; fault: HoldingFault };

export const blockedByFaults = (faults: readonly HoldingFault[]): readonly BlockedBy[] => faults.map((fault) => ({ by: "fault", fault }));

/** All that holds a work back. @param faults those that do where it is done */
export const blockedBy = ({
  finish,
  cured,
  account: { inTheWay, doubtful },
  faults,
}: {
  finish: Finish;
  cured: number;
  account: { inTheWay: readonly unknown[]; doubtful: readonly unknown[] };
  faults: readonly HoldingFault[];
}): readonly BlockedBy[] => [
  ...(finish === "matte" ? [{ by: "matte" as const }] : []),
  ...blockedByFaults(faults),
  ...(cured < 1 ? [{ by: "uncured" as const }] : []),
  ...(inTheWay.length > 0 ? [{ by: "inTheWay" as const }] : []),
  ...(doubtful.length > 0 ? [{ by: "doubtful" as const }] : []),
];

/** Whether it is one that says no, rather than not yet or look again. */
export const stops = (held: BlockedBy): boolean => held.by === "matte" || (held.by === "fault" && held.fault.level === "stop");

/** The verdict on a work that is held back: never *safe*. Every page and the stored plan ask this one. */
export const blockedVerdict = <V extends Verdict>(verdict: V, held: readonly BlockedBy[]): V | "stop" | "caution" =>
  verdict === "none" ? verdict : held.some(stops) ? "stop" : held.length > 0 && verdict === "safe" ? "caution" : verdict;
