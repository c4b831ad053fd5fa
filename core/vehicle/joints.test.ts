import fc from "fast-check";
import { askedOf } from "../coat/testing/asked-of";
import { bearsTape } from "../coat/bears-tape";
import { TEST_SHEET } from "../panel/testing/test-ledger";
import { ONE_COLOUR, PART_COLOURS, type PartColour, shadeOf } from "../models/colour/job-colours";
import { type JointPart, jointsOf, lowerColour } from "./joints";
import { roundOf } from "./round";
import { GOES, USUAL_ROUND, goesOf, isOfGo, partOfRound, walkAsked } from "./round-walk";
import { colourOrder } from "./two-colours";
import { VEHICLES, VEHICLE_KINDS, type Vehicle, bordersOf, placeKey, placesOf } from "./vehicles";
import { bestWalk } from "./walk";

const car = (colours: Record<string, PartColour>): JointPart[] =>
  Object.entries(colours).map(([id, colour]) => ({ id, name: id, place: placeKey("car5", id), colour }));
const dark = { colourCss: "#22305e", finish: "flat", colours: { second: { name: "white", css: "#e8e8e4" }, paint: "solid" } } as const;

/** Common practice, no source: what colour and edge ask for. */
test("a door alone: a dark solid colour butts at its gaps, a light or metallic one is blended, matte never", () => {
  const door = car({ "door-front-left": "first" });
  const hows = (painted: Parameters<typeof jointsOf>[1]) => jointsOf(door, painted).map((j) => ("why" in j ? `${j.how} ${j.why}` : j.how));
  expect(hows(dark)).toEqual(["butt solidDark", "butt solidDark"]);
  expect(hows({ ...dark, colourCss: "#dfe3e6" })).toEqual(["blend light", "blend light"]);
  expect(hows({ ...dark, colours: { second: null, paint: "effect" } })).toEqual(["blend effect", "blend effect"]);
  expect(hows({ ...dark, colours: ONE_COLOUR })).toEqual(["blend notSaid", "blend notSaid"]);
  expect(hows({ ...dark, finish: "matte", colourCss: "#dfe3e6" })).toEqual(["butt matte", "butt matte"]);
  // Its second colour is a light one.
  expect(jointsOf(car({ "door-front-left": "second" }), dark)[0]).toMatchObject({ how: "blend", why: "light", neighbour: "Wing, left" });
});

test("no gap: clear goes on over the neighbour; trim hides; two colours have a line on a surface and none at a gap", () => {
  const roof = jointsOf(car({ roof: "first" }), dark);
  expect(roof.map((j) => j.how)).toEqual(["goOn", "goOn"]);
  expect(jointsOf(car({ "bumper-front": "first" }), dark).every((j) => j.how === "butt" && j.why === "trim")).toBe(true);
  const two = jointsOf(car({ roof: "second", "quarter-left": "first", "door-rear-left": "second", "door-front-left": "both" }), dark);
  expect(two.filter((j) => j.how === "fineLine").map((j) => j.parts)).toEqual([["door-front-left"], ["roof", "quarter-left"]]);
  expect(two.filter((j) => j.how === "gap").map((j) => j.parts)).toEqual([["door-rear-left", "quarter-left"]]);
  expect(jointsOf([{ id: "a", name: "a", colour: "first" }], dark)).toEqual([]); // it lies nowhere
});

test("law: a whole vehicle in one colour has no joint; with parts left out there is one at each of their borders and at no other", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...VEHICLE_KINDS),
      fc.infiniteStream(fc.boolean()),
      fc.constantFrom(...PART_COLOURS),
      (kind, stream, colour) => {
        const vehicle: Vehicle = VEHICLES[kind];
        const take = stream[Symbol.iterator]();
        const parts = placesOf(vehicle).map((p) => ({
          id: p.id,
          name: p.name,
          place: placeKey(kind, p.id),
          colour,
          in: take.next().value === true,
        }));
        const line = colour === "both" ? 1 : 0;
        expect(jointsOf(parts, dark)).toHaveLength(line * parts.length);
        const some = parts.filter((p) => p.in);
        const has = (id: string) => some.some((p) => p.id === id);
        const shut = (id: string) => id.startsWith("shut-");
        const open = bordersOf(vehicle).filter(({ a, b }) => (has(a) && !has(b) && !shut(b)) || (has(b) && !has(a) && !shut(a)));
        expect(jointsOf(some, dark)).toHaveLength(line * some.length + open.length);
      },
    ),
  );
});

test("of two colours the lower goes first; nothing known, the job's first; a colour bears tape by its sheet, and single stages are two goes", () => {
  const two = car({ roof: "first", "door-front-left": "second", "door-rear-left": "both" });
  expect(lowerColour(two)).toBe("second");
  expect(lowerColour(car({ "door-front-left": "first", "door-front-right": "second" }))).toBeNull();
  const order = (sheet: Partial<typeof TEST_SHEET>) =>
    colourOrder(two.map((p) => ({ ...p, tape: bearsTape(askedOf(() => undefined, { sheet: { ...TEST_SHEET, ...sheet } })) })))!;
  const single = { kind: "single stage" } as const;
  expect(order({ ...single, tape_s: 1800 })).toMatchObject({ goesFirst: "second", lower: true, fromSheet: true, together: false });
  expect(order({ ...single, tape_s: 3600 }).tape_s).toBeCloseTo(2 * order({ ...single, tape_s: 1800 }).tape_s, 6);
  // Below a clear it is the base that is taped, whatever the clear's own sheet says: an hour at 20 °C where nothing is planned.
  for (const tape_s of [null, 8 * 3600]) {
    expect(order({ tape_s })).toMatchObject({ fromSheet: false, together: true });
    expect(order({ tape_s }).tape_s).toBeLessThanOrEqual(1.2 * 3600);
  }
  expect(colourOrder(car({ roof: "first" }).map((p) => ({ ...p, tape: bearsTape(askedOf()) })))).toBeNull();
  const job = { colourName: "teal", colourCss: "#0d5a5f", colours: dark.colours };
  expect(PART_COLOURS.map((c) => shadeOf({ ...job, colours: { ...job.colours } }, c).name)).toEqual(["teal", "white", "teal and white"]);
  expect(PART_COLOURS.map((c) => shadeOf({ ...job, colours: ONE_COLOUR }, c).name)).toEqual(["teal", "teal", "teal"]);
});

test("goes: shuts before the body, a single stage colour by colour; each part is in one of them, the line's part in both; a part of a round is as it was", () => {
  const parts = car({ "shut-door-front-left": "first", "door-front-left": "first", roof: "second", "quarter-left": "both" });
  const roundFor = (kind: "clear" | "single stage", which = parts) =>
    roundOf(which.map((p) => ({ ...p, asked: askedOf(() => undefined, { sheet: { ...TEST_SHEET, kind } }) })));
  const round = roundFor("clear");
  expect(goesOf(round)).toEqual(["shuts", "body", "all"]);
  expect(round.before).toEqual([{ first: 0, later: 1 }]);
  expect(goesOf(roundFor("clear", parts.slice(1)))).toEqual(["all"]);
  const single = roundFor("single stage");
  expect(goesOf(single)).toEqual(["shuts", "first", "second"]);
  expect(GOES.map((go) => single.parts.filter((p) => isOfGo(p, go)).map((p) => p.id))).toEqual([
    ["shut-door-front-left"],
    ["door-front-left", "roof", "quarter-left"],
    ["door-front-left", "quarter-left"],
    ["roof", "quarter-left"],
    ["shut-door-front-left", "door-front-left", "roof", "quarter-left"],
  ]);
  expect(partOfRound(round, () => true)).toEqual(round);
  const body = partOfRound(round, (p) => isOfGo(p, "body"));
  expect(body.before).toEqual([]);
  expect(body.borders.map((b) => [body.parts[b.a]!.id, body.parts[b.b]!.id])).toEqual([["roof", "quarter-left"]]);
  expect(body.way_s[0]![1]).toBe(round.way_s[1]![2]);
  expect(bestWalk(walkAsked(round, USUAL_ROUND)).late).toBe(0);
});
