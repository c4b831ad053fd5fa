import { boundingBox } from "../kernel/geometry/geometry";
import { SHAPES } from "../kernel/geometry/shapes";
import { HOUSE_WAYS } from "../models/ways/house-ways";
import { askedOf } from "../coat/testing/asked-of";
import { roundOf } from "./round";
import { USUAL_ROUND, walkAsked } from "./round-walk";
import { VEHICLES, VEHICLE_KINDS, type Vehicle, bordersOf, outlineOnVehicle, placeKey, placeOfKey, placesOf, vehicleBox } from "./vehicles";
import { bestWalk, shorterWalk, twoHands, walkIn, walkOf } from "./walk";

test.each(VEHICLE_KINDS)(
  "%s: places have names of their own and lie beside each other; borders are between places that are there",
  (kind) => {
    const vehicle: Vehicle = VEHICLES[kind];
    const ids = placesOf(vehicle).map((p) => p.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(new Set(placesOf(vehicle).map((p) => p.name)).size).toBe(ids.length);
    const boxes = placesOf(vehicle).map((p) => boundingBox(outlineOnVehicle(p, SHAPES[p.kind].outline)));
    boxes.forEach((a, i) =>
      boxes.slice(i + 1).forEach((b, k) => {
        const over_m = Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0);
        const along_m = Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0);
        expect([ids[i], ids[i + 1 + k], Math.min(over_m, along_m) < 0.05]).toEqual([ids[i], ids[i + 1 + k], true]);
      }),
    );
    for (const b of bordersOf(vehicle)) {
      expect(ids).toContain(b.a);
      expect(ids).toContain(b.b);
      expect(b.a).not.toBe(b.b);
    }
    expect(vehicleBox(placesOf(vehicle)).x1).toBeGreaterThan(vehicleBox(vehicle.places).x0);
    for (const id of ids) expect(placeOfKey(placeKey(kind, id))).toMatchObject({ vehicle: kind, place: { id } });
  },
);

test("a key that names nothing is no place; a vehicle of a car has the same on both sides", () => {
  for (const key of [null, undefined, "", "car5", "car5/", "car5/engine", "toString/x", "boat/hull"]) expect(placeOfKey(key)).toBeNull();
  const { places, borders } = VEHICLES.car5 as Vehicle;
  const other = (id: string) =>
    id.endsWith("-left") ? id.replace("-left", "-right") : id.endsWith("-right") ? id.replace("-right", "-left") : id;
  expect(places.map((p) => other(p.id)).sort()).toEqual(places.map((p) => p.id).sort());
  const named = borders.map((b) => `${b.a} ${b.b} ${b.lies} ${b.meets}`).sort();
  expect(borders.map((b) => `${other(b.a)} ${other(b.b)} ${b.lies} ${b.meets}`).sort()).toEqual(named);
});

const whole = askedOf();
const carOf = (ids: readonly string[]) =>
  roundOf(ids.map((id) => ({ id, name: id, place: placeKey("car5", id), colour: "first", asked: whole })));

test("a car in one go: the best of all orders has no more dry borders than any walk tried; a slow hardener and a second painter never do worse", () => {
  const round = carOf(VEHICLES.car5.places.map((p) => p.id));
  expect(round.parts).toHaveLength(13);
  expect(round.borders).toHaveLength(VEHICLES.car5.borders.length);
  const asked = walkAsked(round, USUAL_ROUND);
  const best = bestWalk(asked);
  const order = round.parts.map((_, i) => i);
  for (const tried of [order, [...order].reverse()]) expect(best.dry).toBeLessThanOrEqual(walkIn(asked, tried).dry + 1e-9);
  const short = shorterWalk(asked, best);
  expect(short.total_s).toBeLessThanOrEqual(best.total_s);
  const two = twoHands(asked, best);
  expect(two.walk.dry).toBeLessThanOrEqual(best.dry + 1e-9);
  expect(two.hands.flat().sort((a, b) => a - b)).toEqual(order);
  expect(walkOf(asked, two.hands)).toEqual(two.walk);
  expect(bestWalk(walkAsked(round, USUAL_ROUND, true)).dry).toBeLessThanOrEqual(best.dry + 1e-9);
  for (const p of round.parts) expect(p.openSlow_s).toBeGreaterThan(p.open_s);
});

test("panels that lie nowhere, or have no coat over the whole to come, have no border or do not go round", () => {
  const spots = HOUSE_WAYS.find((way) => way.coats[0]!.zone !== "whole");
  const asked = spots ? askedOf(() => undefined, { way: spots, coats: spots.coats.length }) : whole;
  const round = roundOf([
    { id: "a", name: "a", colour: "first", asked: whole },
    { id: "b", name: "b", colour: "first", place: "car5/roof", asked: whole },
    { id: "c", name: "c", colour: "first", place: "van/roof", asked: whole },
    { id: "d", name: "d", colour: "first", place: "car5/quarter-left", asked: askedOf((l) => void l.coat(1), { coats: 1 }) },
    { id: "e", name: "e", colour: "first", place: "car5/quarter-right", asked },
  ]);
  expect(round.borders.map((b) => [round.parts[b.a]!.id, round.parts[b.b]!.id])).toEqual(spots ? [] : [["b", "e"]]);
  expect(round.left.map((p) => p.id)).toEqual(spots ? ["d", "e"] : ["d"]);
  expect(() => walkOf(walkAsked(round, USUAL_ROUND), [[0], [0]])).toThrow(RangeError);
});
