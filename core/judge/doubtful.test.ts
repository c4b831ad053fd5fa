import fc from "fast-check";
import { accountPanel } from "./account";
import { blockedBy, blockedVerdict } from "./blocked-by";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { TEST_SHEET, coatedLedger } from "#core/panel/testing/test-ledger";

const um = 1e-6;
const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
const places = suggestSpots(shape.outline, 6);
const DOOR = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
const UNDER = [92, 90, 94, 91, 93, 90];

/** A door read below 60 µm of clear and over it, three readings a spot, one reading more where a slip was made. */
function door({ clear_um = 60, slip }: { clear_um?: number; slip?: { spot: number; phase: "before" | "after"; film_um: number } } = {}) {
  const ledger = coatedLedger({ places, under_um: UNDER, clear_um });
  if (slip) {
    const [x_m, y_m] = places[slip.spot - 1]!;
    const at = { x_m, y_m };
    const readings = [{ thickness_m: slip.film_um * um, entered: String(slip.film_um), unit: "µm" as const }];
    ledger.add("reading", { phase: slip.phase, spot: String(slip.spot), at, gauge: "test gauge", readings });
  }
  return accountPanel(DOOR, TEST_SHEET, ledger.entries);
}

test("one figure that cannot belong to its spot is asked about, by its spot, and nothing on it is called safe", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 6 }),
      fc.constantFrom("before" as const, "after" as const),
      fc.integer({ min: 40, max: 400 }),
      (spot, phase, off_um) => {
        const state = door({ slip: { spot, phase, film_um: UNDER[spot - 1]! + (phase === "after" ? 60 : 0) + off_um } });
        expect(state.doubtful.map((d) => [d.why, d.spot])).toEqual([["apart", String(spot)]]);
        const held = blockedBy({ finish: "flat", cured: 1, account: state, faults: [] });
        expect(blockedVerdict("safe", held)).toBe("caution");
      },
    ),
    { numRuns: 20 },
  );
});

test("usual films are not asked about; less over the clear than below it, or none at all, is (once: −24 ± 20 µm, just shown)", () => {
  expect(door().doubtful).toEqual([]);
  expect(door({ clear_um: 4 }).doubtful).toEqual([]);
  expect(door({ clear_um: -24 }).doubtful.map((d) => d.why)).toEqual(["below", "below", "below", "below", "below", "below"]);
});
