import { SPRAY } from "../models/spray/constants";
import type { CoatState } from "./builds";

/** A shop's own factor on the film laid down and what is left of its doubt. */
export interface ShopFilm {
  factor: number;
  u_log: number;
}
/** Before anything has been learnt. */
export const MODEL_FILM: ShopFilm = { factor: 1, u_log: SPRAY.shopLogSd };

/** Whether a coat adds to the film of the whole panel. */
export const overPanel = (coat: Pick<CoatState, "entry">): boolean => coat.entry.body.zone === "whole";
