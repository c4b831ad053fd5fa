import { coatsAhead, type CoatsAsked } from "../coat/coats-ahead";
import { coatStaysOpen_s } from "../models/panel-film/stays-open";
import { volumeOfCoat } from "../models/ways/way-volumes";
import { bearsTape } from "../coat/bears-tape";
import type { JointPart } from "./joints";
import { colourOrder } from "./two-colours";
import { VEHICLES, bordersOf, middleOf, placeOfKey } from "./vehicles";
import type { Round, RoundPart } from "./round-walk";

interface PanelAsked extends JointPart {
  asked: CoatsAsked;
}

/** The next coat of several panels as one walk: what the coats' owner says of each, and where they meet on their vehicle. @throws RangeError */
export function roundOf(panels: readonly PanelAsked[]): Round {
  const round: Round = { parts: [], borders: [], before: [], way_s: [], goesFirst: null, left: [] };
  const places: (string | undefined)[] = [];
  const order = colourOrder(panels.map((p) => ({ ...p, tape: bearsTape(p.asked) })));
  if (order && !order.together) round.goesFirst = order.goesFirst;
  for (const { id, name, place, colour, asked } of panels) {
    const part = partOf(asked);
    if (!part) round.left.push({ id, name });
    else {
      round.parts.push({
        id,
        name,
        ...part,
        ...(placeOfKey(place)?.place.of ? { shut: true } : {}),
        ...(round.goesFirst ? { colour } : {}),
      });
      places.push(place);
    }
  }
  places.forEach((one, a) =>
    places.forEach((two, b) => {
      const [at, to] = [placeOfKey(one), placeOfKey(two)];
      if (!at || !to || at.vehicle !== to.vehicle) return;
      for (const { a: from, b: other, ...border } of bordersOf(VEHICLES[at.vehicle]))
        if (from === at.place.id && other === to.place.id) round.borders.push({ ...border, a, b });
      if (at.place.of === to.place.id) round.before.push({ first: a, later: b });
    }),
  );
  round.way_s = places.map((from) => places.map((to) => wayBetween_s(from, to)));
  return round;
}

/** With the hose behind him, over the floor beside the vehicle: somewhat farther than it lies unfolded. Defaults of ours. */
const HOSE_M_S = 0.7;
const ROUND_ABOUT = 1.3;

/** From the middle of a part to that of another. */
function wayBetween_s(from: string | undefined, to: string | undefined): number {
  const [at, there] = [placeOfKey(from), placeOfKey(to)];
  if (!at || !there || at.vehicle !== there.vehicle) return 0;
  const [[ax, ay], [bx, by]] = [middleOf(at.place), middleOf(there.place)];
  return (ROUND_ABOUT * Math.hypot(ax - bx, ay - by)) / HOSE_M_S;
}

function partOf(asked: CoatsAsked): Omit<RoundPart, "id" | "name"> | null {
  const next = coatsAhead(asked)?.[0];
  if (!next || next.zone !== "whole") return null;
  const { gun, number, conditions } = next;
  const { brief, way, shop } = asked;
  const { volume_m3, time_s } = volumeOfCoat(brief.shape.outline, gun, { zone: "whole", trigger: way.trigger, rows: brief.rows, number });
  return {
    coat: number,
    volume_m3,
    spray_s: time_s,
    open_s: coatStaysOpen_s(gun, conditions, shop),
    openSlow_s: coatStaysOpen_s(gun, { ...conditions, speed: "slow" }, shop),
  };
}
