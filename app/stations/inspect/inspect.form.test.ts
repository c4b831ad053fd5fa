import { METRIC } from "#core/kernel/units/quantities";
import { gaugeCheckForm } from "./inspect.form";

const typed = { gauge: "Gauge 2", foil: "150", uFoil: "1", zero: "0 1 0", onFoil: "150 151 150" };
const said = (own: Partial<typeof typed>) => {
  const { error } = gaugeCheckForm(METRIC).safeParse({ ...typed, ...own });
  return error?.issues.map((i) => `${i.path.join()}: ${i.message}`) ?? [];
};

test("a reading of the set-up that lies far from the others is named at its field, before it is kept", () => {
  expect(said({})).toEqual([]);
  expect(said({ onFoil: "15 150 150" })).toEqual(["onFoil: 15 lies far from the others: read it again"]);
  expect(said({ zero: "0 40 1" })).toEqual(["zero: 40 lies far from the others: read it again"]);
  expect(said({ onFoil: "130 170" })).toEqual(["onFoil: They lie far apart: read it again"]);
  expect(said({ onFoil: "158 157 158" })).toEqual([]); // off together: that is what the check is for
});
