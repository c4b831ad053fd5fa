import { type BodyInputOf, type EntryKind, LEDGER_BODIES } from "../../record/bodies";
import type { LedgerEntry } from "../../record/entry";
import type { Phase } from "../../record/kinds";
import type { Point } from "../../kernel/geometry/geometry";
import { productSheet } from "../../models/product/sheet-schema";

/** For tests: a clear's sheet with nothing unusual in it. */
export const TEST_SHEET = productSheet.parse({
  name: "Clear T",
  kind: "clear",
  ratio: "2:1",
  volumeSolids: 0.48,
  speed: "medium",
  coats: 2,
  filmPerCoatMin_m: 25e-6,
  filmPerCoatMax_m: 30e-6,
  flashMin_s: 600,
  flashMax_s: 2700,
  potLife_s: 5400,
  sandAfter_s: 57600,
  floor_m: null,
});

/** For tests: a usual gun. */
export const TEST_GUN: BodyInputOf<"coat">["settings"] = {
  fluidRate_m3_s: 230e-6 / 60,
  fluidFrom: "measured",
  turns: null,
  pressure_Pa: 1.93e5,
  distance_m: 0.175,
  overlap: 0.5,
  handSpeed_m_s: 0.34,
  fan_m: null,
};

/** For tests: one film as it is typed, µm. */
export const typedFilm = (film_um: number) => ({ thickness_m: film_um * 1e-6, entered: String(film_um), unit: "µm" });
/** For tests: three readings about a film, µm. */
export const threeFilms = (film_um: number) => [film_um, film_um + 1, film_um - 1].map(typedFilm);

/** For tests: a ledger that grows entry by entry, each some minutes after the last, with bodies checked as the server checks them. */
export function testLedger({ places, minutesApart = 1 }: { places?: readonly Point[]; minutesApart?: number } = {}) {
  const entries: LedgerEntry[] = [];
  let at_ms = 0;
  const add = <K extends EntryKind>(
    kind: K,
    body: BodyInputOf<K>,
    { after_min = minutesApart, supersedes = null as string | null } = {},
  ): string => {
    at_ms += after_min * 60_000;
    const id = `e${entries.length}`;
    const common = {
      id,
      panelId: "p",
      at_ms,
      recordedAt_ms: at_ms,
      seq: entries.length + 1,
      by: "painter A",
      simulated: false,
      supersedes,
    };
    entries.push({ ...common, kind, body: LEDGER_BODIES[kind].parse(body) } as LedgerEntry);
    return id;
  };
  /** Three readings a spot about each film, µm. */
  const read = (phase: Phase, films_um: readonly number[]) =>
    films_um.map((f, i) =>
      add("reading", {
        phase,
        spot: String(i + 1),
        at: { x_m: places?.[i]?.[0] ?? 0, y_m: places?.[i]?.[1] ?? 0 },
        gauge: "typed",
        readings: threeFilms(f),
      }),
    );
  const coat = (number: number, settings: Partial<typeof TEST_GUN> = {}, reducer = 0) =>
    add("coat", { number, role: "full wet", reducer, wetReading_m: null, settings: { ...TEST_GUN, ...settings } });
  return { entries, add, read, coat };
}

/** For tests: a panel read before, coated twice, read after with so much clear everywhere, then marked. */
export function coatedLedger({
  places,
  under_um,
  clear_um,
  defects = [],
}: {
  places: readonly Point[];
  under_um: readonly number[];
  clear_um: number;
  defects?: readonly BodyInputOf<"defect">[];
}) {
  const l = testLedger({ places });
  l.read("before", under_um);
  l.coat(1);
  l.coat(2);
  l.read(
    "after",
    under_um.map((b) => b + clear_um),
  );
  for (const d of defects) l.add("defect", d);
  return l;
}
