import { SUBSTRATE_TEXTURE } from "#core/models/flow/constants";
import { LOGS_LEAST, learnFilm, learnRuns, learnTexture } from "#core/models/flow/shop-calibration";
import { type FlowCoat, type FlowConditions, type ShopFactors, simulateCoats } from "#core/models/flow/simulate-coats";
import { waveNumbers } from "#core/models/flow/wave-numbers";
import { normals, seededRandom } from "#core/kernel/stats/random";

const TRUE: ShopFactors = { film: 0.85, levelling: 1.6, noise: 1.25 };
const NODES = waveNumbers(8);
const LOGS = 200;

/** Panels of an invented shop with known factors: film and texture are read with noise, a run is seen by chance. */
function shopLogs(count: number, seed: number) {
  const random = seededRandom(seed);
  const normal = normals(random);
  const between = (a: number, b: number) => a + (b - a) * random();
  return Array.from({ length: count }, () => {
    const conditions: FlowConditions = {
      air_K: 273.15 + between(17, 30),
      speed: (["fast", "medium", "slow"] as const)[Math.floor(3 * random())]!,
      volumeSolids: 0.475,
      reducer: 0,
      airSpeed_m_s: 0.3,
      tilt_rad: Math.PI / 2,
      edge: 1,
      below: SUBSTRATE_TEXTURE.basecoat,
    };
    const coat: FlowCoat = {
      gun: {
        fluidRate_m3_s: between(190, 280) * (1e-6 / 60),
        pressure_Pa: 193053,
        distance_m: between(0.13, 0.22),
        overlap: 0.5,
        handSpeed_m_s: between(0.16, 0.4),
      },
      flash_s: between(180, 720),
    };
    const coats = [coat, coat];
    const truth = simulateCoats(conditions, coats, { shop: TRUE, nodes: NODES });
    return {
      conditions,
      coats,
      measured_m: truth.dry_m * Math.exp(0.08 * normal()),
      ran: random() < 1 / (1 + (truth.sagLocal_m / 0.022) ** (-1 / 0.35)),
      rated: Math.min(5, Math.max(1, Math.round(truth.texture + 0.5 * normal()))),
    };
  });
}
type Log = ReturnType<typeof shopLogs>[number];
const predict = (l: Log, shop: ShopFactors) => simulateCoats(l.conditions, l.coats, { shop, nodes: NODES });

test(`${LOGS} logs of a shop with known factors give c_h back within 5 %, c_a within 15 %, and c_F near`, () => {
  const logs = shopLogs(LOGS, 3);
  const plain: ShopFactors = { film: 1, levelling: 1, noise: 1 };
  const film = learnFilm(logs.map((l) => ({ measured_m: l.measured_m, predicted_m: predict(l, plain).dry_m })));
  expect(Math.abs(film.factor / TRUE.film - 1)).toBeLessThan(0.05);
  let levelling = 1;
  for (let round = 0; round < 3; round++) {
    const now = { ...plain, film: film.factor, levelling };
    levelling = learnRuns(logs.map((l) => ({ sag_m: predict(l, now).sagLocal_m / levelling, ran: l.ran }))).factor;
  }
  expect(Math.abs(Math.log(levelling / TRUE.levelling))).toBeLessThan(0.3);
  const noise = learnTexture(
    logs.map((l) => ({ rated: l.rated, predicted: predict(l, { film: film.factor, levelling, noise: 1 }).texture })),
  );
  expect(Math.abs(noise.factor / TRUE.noise - 1)).toBeLessThan(0.15);
  expect([film.enough, noise.enough]).toEqual([true, true]);
});

test("five logs say that it is not enough yet, and change nothing", () => {
  const five = shopLogs(5, 4);
  expect(learnFilm(five.map((l) => ({ measured_m: l.measured_m, predicted_m: 5e-5 })))).toMatchObject({
    factor: 1,
    enough: false,
    words: "not enough yet: 5 of 6 panels",
  });
  expect(learnRuns(five.map((l) => ({ sag_m: 0.01, ran: l.ran })))).toMatchObject({ factor: 1, enough: false });
  expect(learnTexture(five.map((l) => ({ rated: l.rated, predicted: 3 })))).toMatchObject({ factor: 1, enough: false });
  expect(learnRuns(Array.from({ length: 30 }, () => ({ sag_m: 0.01, ran: false }))).words).toContain("0 of 3 with a run");
});

test("one wild log cannot steer the shop; more logs are surer; no film is refused", () => {
  const steady = Array.from({ length: 10 }, () => ({ measured_m: 50e-6, predicted_m: 50e-6 }));
  expect(learnFilm([...steady, { measured_m: 500e-6, predicted_m: 50e-6 }]).factor).toBeLessThan(1.04);
  expect(learnFilm([...steady, ...steady]).u_log).toBeLessThan(learnFilm(steady).u_log);
  expect(() => learnFilm([...steady, { measured_m: 0, predicted_m: 50e-6 }])).toThrow("measured_m");
  expect(LOGS_LEAST.film).toBeLessThanOrEqual(steady.length);
});
