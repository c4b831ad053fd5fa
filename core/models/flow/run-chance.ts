import { requireNumber } from "../../kernel/guard";
import { normalCdf } from "../../kernel/stats/normal";
import { SPRAY } from "../spray/constants";
import { FLOW } from "./constants";

/** Spread of the model before this shop's own results tune it: log-sd of sag where the film is known. A default of ours. */
export const SAG_LOG_SD = 0.6;
/** Sag against film, in logarithms: near its third power; science notes of the project. */
export const SAG_FILM_POWER = 2.95;
/** Film at an edge or body line over the film beside it, where passes overlap and the gun turns. Default of ours. */
export const EDGE_FILM = 1.25;

/** Log-sd of a foretold sag: the model's own, and what the doubt of the film brings in. @throws RangeError for a negative doubt */
export const sagLogSd = (u_filmLog: number = SPRAY.shopLogSd): number =>
  Math.hypot(SAG_LOG_SD, SAG_FILM_POWER * requireNumber("u_filmLog", u_filmLog, { min: 0 }));

/**
 * Chance that a coat slides into a run, its film not known better than by the model: P(sag > 22 mm), ln sag normal.
 * @param sagLocal_m foretold sag where pattern and edge pile the film up
 * @throws RangeError for a negative sag or doubt @example 22 mm: 0.5
 */
export function runChance(sagLocal_m: number, u_filmLog?: number): number {
  const sag_m = Math.max(requireNumber("sagLocal_m", sagLocal_m, { min: 0 }), 1e-9);
  return normalCdf(-Math.log(FLOW.sagRun_m / sag_m) / sagLogSd(u_filmLog));
}

/** Sag at an edge, from the one on the field: film in the third power. @param edge film there over the film it was worked out with */
export const sagAtEdge = (sagLocal_m: number, edge: number = EDGE_FILM): number => sagLocal_m * Math.max(1, edge) ** 3;

/** Chance that a coat runs at an edge. @param edge film that the sag was worked out with, over that of the field @throws RangeError */
export const edgeRunChance = (sagLocal_m: number, { edge, u_filmLog }: { edge: number; u_filmLog?: number | undefined }): number =>
  runChance(sagAtEdge(sagLocal_m, EDGE_FILM / edge), u_filmLog);

/** Until a shop's own results say how often such a chance comes true, it is told in a word. Limits of ours. */
export const CHANCE_WORDS = { unlikely: 0, may: 0.2, likely: 0.5 } as const;
export type ChanceWord = keyof typeof CHANCE_WORDS;

/** @throws RangeError for no chance */
export function chanceWord(chance: number): ChanceWord {
  requireNumber("chance", chance, { min: 0, max: 1 });
  return chance >= CHANCE_WORDS.likely ? "likely" : chance >= CHANCE_WORDS.may ? "may" : "unlikely";
}
