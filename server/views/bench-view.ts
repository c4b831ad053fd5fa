import { productSheet } from "#core/models/product/sheet-schema";
import { USUAL_SHEETS } from "#core/models/product/usual-sheets";
import { houseWay } from "#core/models/ways/house-ways";
import type { HouseWay } from "#core/models/ways/way";
import { canBePractised } from "#core/practice/bench-setting";
import { type BenchId, type Exercise, type ExerciseId, exerciseById, exerciseSheet } from "#core/practice/exercises";
import { type FreeChoice, freeExercise } from "#core/practice/free";
import type { Db } from "../db/open";
import type { ServerContext } from "../context";
import { listClears } from "../repos/product-repo";
import { getShop } from "../repos/shop-repo";
import { listWays } from "../repos/way-repo";

/** What hangs on the bench, what it is sprayed with, and the clear that has to stay on it. */
async function hung(db: Db, id: BenchId, exercise: Exercise, { clear, way }: { clear: string | null; way: HouseWay }) {
  const kind = exercise.matte ? "matte clear" : "clear";
  const clears = await listClears(db);
  const own = (clears.find((p) => p.id === clear) ?? clears.find((p) => p.sheet.kind === kind))?.sheet;
  const sheet = own ?? productSheet.parse((exercise.matte ? USUAL_SHEETS.matte : USUAL_SHEETS.high).sheets[0]);
  return { id, exercise, sheet: exerciseSheet(exercise, sheet), way, floor_m: sheet.floor_m ?? (await getShop(db)).floor_m };
}

/** An exercise with the first clear of its gloss on the shelf, else a usual one, and the hardener that it wants. */
export function benchView({ db }: ServerContext, id: ExerciseId) {
  const exercise = exerciseById(id);
  return hung(db, id, exercise, { clear: null, way: houseWay(exercise.way) });
}
export type BenchView = Awaited<ReturnType<typeof benchView>>;

/** Clears and ways that can be chosen for the bench. */
export async function freeChoices({ db }: Pick<ServerContext, "db">) {
  const [clears, ways] = await Promise.all([listClears(db), listWays(db)]);
  return {
    clears: clears.map(({ id, sheet: { name } }) => ({ id, name })),
    ways: ways.filter((w) => canBePractised(w)).map(({ id, name }) => ({ id, name })),
  };
}

/** The bench as somebody has chosen it; a way that is gone since is the house's own of two coats, a clear the first on the shelf. */
export async function freeBenchView({ db }: Pick<ServerContext, "db">, choice: FreeChoice): Promise<BenchView> {
  const way = (await listWays(db)).find((w) => w.id === choice.way && canBePractised(w, choice.coats)) ?? houseWay("two-full");
  return hung(db, "free", freeExercise(choice), { clear: choice.clear, way });
}
