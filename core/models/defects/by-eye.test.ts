import { MOST_RUN_HEIGHT_M } from "#core/panel/derive-panel";
import { OFTEN, heightsByEye, usualSize } from "./by-eye";
import { DEFECT_IDS, isFold } from "./kinds";

test("every height by eye may be logged of its kind, and rises from one to the next", () => {
  for (const kind of DEFECT_IDS) {
    const heights = heightsByEye(kind).map((h) => h.height_m);
    expect(heights).toEqual([...heights].sort((a, b) => a - b));
    if (isFold(kind)) for (const h of heights) expect(h).toBeLessThanOrEqual(MOST_RUN_HEIGHT_M);
  }
  expect(heightsByEye("blush")).toEqual([]);
});

test("a usual size is at least as long as wide, and every fold and inclusion has one", () => {
  for (const kind of DEFECT_IDS) {
    const size = usualSize(kind);
    if (size) expect(size.length_m).toBeGreaterThanOrEqual(size.width_m);
    if (isFold(kind)) expect(size).not.toBeNull();
  }
  expect(OFTEN.every((k) => DEFECT_IDS.includes(k))).toBe(true);
});
