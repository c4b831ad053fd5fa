import type { CoatWait } from "#core/models/ways/wait-after";
import { waitWords } from "./wait-words";

const wait: CoatWait = {
  sand: false,
  least_s: 600,
  by: "sheet",
  best_s: 2700,
  latest_s: 86_400,
  late: "scuff",
  sheet: { least_s: 600, most_s: 2700 },
  runsBefore_s: 60,
  locks_s: undefined,
  setsFirst: false,
};

test("a wait in words: the window, what sooner would do, and what closes it", () => {
  expect(waitWords(wait)).toEqual({ main: "10 min to 45 min", note: "sooner than 1 min it may run" });
  expect(waitWords({ ...wait, runsBefore_s: 0 }).note).toBe("sooner traps solvent");
  expect(waitWords({ ...wait, runsBefore_s: 780 }).note).toBe("sooner traps solvent; until 13 min it may run");
  expect(waitWords({ ...wait, by: "grip" }).note).toBe("until then the grip coat pulls strings");
  expect(waitWords({ ...wait, runsBefore_s: null }).note).toContain("spray it thinner");
  expect(waitWords({ ...wait, sand: true, least_s: 57_600 })).toEqual({ main: "16 h 00", note: "cure, sand flat, clean, then go on" });
  expect(waitWords({ ...wait, by: "run", least_s: 900, runsBefore_s: 900 })).toEqual({
    main: "15 min to 45 min",
    note: "sooner it may run, though the sheet allows 10 min",
  });
  expect(waitWords({ ...wait, by: "way", least_s: 1800 }).note).toBe("longer than the sheet's 10 min, by this way");
  expect(waitWords({ ...wait, late: "grip", best_s: 720, latest_s: 720 })).toEqual({
    main: "10 min to 12 min",
    note: "sooner than 1 min it may run; then the grip coat has set: heavy peel",
  });
  expect(waitWords({ ...wait, best_s: 600, setsFirst: true, locks_s: 180 })).toEqual({
    main: "from 10 min",
    note: "sooner than 1 min it may run; the grip coat has set after 3 min, before the sheet lets the next one on: lay it wetter, or expect peel",
  });
  expect(waitWords({ ...wait, runsBefore_s: undefined }).note).toBe("sooner traps solvent");
});
