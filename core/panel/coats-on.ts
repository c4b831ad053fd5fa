import type { Side } from "../record/kinds";
import type { PanelBrief } from "./brief";
import type { CoatState } from "./builds";
import type { PanelFacts } from "./derive-panel";

/** The coats that are on a face, oldest first. */
export const coatsOf = ({ coats, backCoats }: Pick<PanelFacts, "coats" | "backCoats">, side: Side): readonly CoatState[] =>
  side === "front" ? coats : backCoats;

const ONE: readonly Side[] = ["front"];
const BOTH: readonly Side[] = ["back", "front"];
/** The faces of a part that are sprayed, in their order: of two the back comes first. */
export const facesOf = ({ sides }: Pick<PanelBrief, "sides">): readonly Side[] => (sides === 2 ? BOTH : ONE);

/** Coats on both faces. */
export const coatsOn = ({ coats, backCoats }: Pick<PanelFacts, "coats" | "backCoats">): number => coats.length + backCoats.length;

/** The newest of some coats; null: there are none. */
export const newestOf = <C extends CoatState>(coats: readonly C[]): C | null =>
  coats.reduce<C | null>((a, c) => (a && a.entry.seq > c.entry.seq ? a : c), null);

/** The newest coat of either face. */
export const newestCoat = ({ coats, backCoats }: Pick<PanelFacts, "coats" | "backCoats">): CoatState | null =>
  newestOf([...backCoats.slice(-1), ...coats.slice(-1)]);

/** The face that the next coat goes on: the back of a part with two faces until it has its coats. */
export const nextSide = (
  state: Pick<PanelFacts, "backCoats">,
  { sides, coatsPlanned }: Pick<PanelBrief, "sides" | "coatsPlanned">,
): Side => (sides === 2 && state.backCoats.length < coatsPlanned ? "back" : "front");

/** All the coats that are planned are on, on both faces where there are two. */
export const isAllOn = (state: Pick<PanelFacts, "coats" | "backCoats">, brief: Pick<PanelBrief, "sides" | "coatsPlanned">): boolean =>
  state.coats.length >= brief.coatsPlanned && nextSide(state, brief) === "front";
