import { houseWay } from "#core/models/ways/house-ways";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { type NextAsked, handGun, nextCoat } from "./next-coat";

const gun = { ...USUAL_GUN };
const sheet = { reducerMin: 0, gun: null };

describe("the next coat", () => {
  type State = NextAsked["facts"];
  const tack = houseWay("tack-full");
  const settings = { ...gun, fluidFrom: "measured" as const, fan_m: 0.2, handSpeed_m_s: 0.34 };
  const none = { coats: [], backCoats: [], coatElsewhere: null, gunSet: null, mix: null };
  const after = (...coats: { number: number; role: string; handSpeed_m_s: number }[]) =>
    ({
      ...none,
      coats: coats.map(({ number, role, handSpeed_m_s }) => ({
        entry: { body: { number, role, reducer: 0.05, settings: { ...settings, handSpeed_m_s } } },
      })),
    }) as unknown as State;
  const brief = { coatsPlanned: 3 };
  const next = (facts: State, of: NextAsked["brief"] = brief) => nextCoat({ facts, way: tack, brief: of, sheet });
  const speed = (state: State) => next(state).settings.handSpeed_m_s;

  test("nothing sprayed: a usual gun at the way's pace", () => {
    expect(next(none)).toMatchObject({ number: 1, role: "tack", from: "usual" });
    expect(speed(none)).toBeCloseTo(gun.handSpeed_m_s * 2.4, 12);
  });

  test("before anything is mixed or sprayed its reducer is the least that the sheet asks for", () => {
    expect(next(none).reducer).toBe(0);
    expect(nextCoat({ facts: none, way: tack, brief, sheet: { reducerMin: 0.2, gun: null } }).reducer).toBe(0.2);
    const mix = { seq: 3, body: { reducer: 0.1 } } as State["mix"];
    expect(nextCoat({ facts: { ...none, mix }, way: tack, brief, sheet: { reducerMin: 0.2, gun: null } }).reducer).toBe(0.1);
  });

  test("after a tack coat at 0.816 m/s the full coat is offered at 0.289, not at 0.816", () => {
    const state = after({ number: 1, role: "tack", handSpeed_m_s: 0.34 * 2.4 });
    expect(next(state)).toMatchObject({ number: 2, role: "full wet", from: "last coat", reducer: 0.05 });
    expect(speed(state)).toBeCloseTo(0.289, 12);
    expect(handGun({ facts: state, way: tack, sheet }).settings.handSpeed_m_s).toBeCloseTo(0.34, 12); // what the coat plan paces, once
  });

  test("a coat sprayed otherwise than its way planned is offered as it was; a gun taken up goes before", () => {
    expect(speed(after({ number: 1, role: "full wet", handSpeed_m_s: 0.4 }))).toBeCloseTo(0.4 * 0.85, 12);
    const taken = { ...after(), gunSet: { body: { name: "Clear gun", gunId: "g", settings } } } as unknown as State;
    expect(next(taken)).toMatchObject({ from: "gun", gunName: "Clear gun", number: 1 });
    expect(speed(taken)).toBeCloseTo(0.34 * 2.4, 12);
  });

  test("of a part with two faces the back has its coats first; numbers go by face, what they are logged as does not", () => {
    const two = { coatsPlanned: 2, sides: 2 as const };
    const back = after({ number: 1, role: "tack", handSpeed_m_s: 0.8 }).coats.map((c) => ({ ...c, loggedAs: 1 }));
    expect(next(none, two)).toMatchObject({ side: "back", number: 1, loggedAs: 1 });
    expect(next({ ...none, backCoats: back }, two)).toMatchObject({ side: "back", number: 2, loggedAs: 2, from: "last coat" });
    expect(next({ ...none, backCoats: [...back, ...back] }, two)).toMatchObject({ side: "front", number: 1, role: "tack" });
  });

  test("with the first coat taken out the next is counted from those that are left", () => {
    const left = after({ number: 2, role: "full wet", handSpeed_m_s: 0.289 });
    expect(next(left).number).toBe(2);
  });
});
