import type { PlanStep } from "../record/bodies";
import { type BenchHabits, ROTARY_TIME, USUAL_HABITS } from "../models/correction/bench-habits";
import type { RemovalStep } from "../models/correction/removal-plan";
import { SECTION_M, USED_UP, WORK_MINUTES } from "./zone-work";

export interface Consumable {
  what: string;
  amount: number;
  unit: "pieces" | "m" | "m3";
}

/** Minutes of one step over an area, with the change of paper or pad. */
export const minutesOf = (
  use: RemovalStep | null,
  area_m2: number,
  passes: number,
  { polisher }: Pick<BenchHabits, "polisher"> = USUAL_HABITS,
): number => {
  const W = WORK_MINUTES;
  if (!use) return W.change;
  const rate =
    "polish" in use
      ? W[`${use.polish}Per_m2`] * (polisher === "rotary" ? ROTARY_TIME : 1)
      : use.tool === "hand"
        ? W.handPer_m2
        : W.machinePer_m2;
  return W.change + passes * area_m2 * rate;
};

/** Sections an area is worked in. */
export const sectionsOf = (area_m2: number) => Math.max(1, Math.ceil(area_m2 / SECTION_M ** 2 - 1e-9));

const POLISH_USED = { compound: "cutting compound", polish: "polish", ultrafine: "finest polish" } as const;

/** What the work uses up, rounded up to whole pieces. */
export function consumablesOf(steps: readonly PlanStep[], o: { flat_m2: number; nibCount: number; taped_m: number }): Consumable[] {
  const list: Consumable[] = [];
  const paper = (minutes: number, dry: boolean) =>
    Math.max(1, Math.ceil((minutes * 60) / (dry ? USED_UP.paperLifeDry_s : USED_UP.paperLife_s) - 1e-9));
  for (const s of steps) {
    if (!s.use) list.push({ what: s.tool.split(",")[0]!, amount: 1, unit: "pieces" });
    else if ("polish" in s.use) {
      const per = s.use.polish === "compound" ? USED_UP.compound_m3_m2 : USED_UP.polish_m3_m2;
      const name = POLISH_USED[s.use.polish];
      list.push({ what: name, amount: Math.max(5e-6, per * o.flat_m2 * s.passes), unit: "m3" });
      list.push({ what: `pad for ${name}`, amount: Math.ceil(o.flat_m2 / USED_UP.padPer_m2), unit: "pieces" });
      list.push({ what: `cloth for ${name}`, amount: sectionsOf(o.flat_m2) > 4 ? 2 : 1, unit: "pieces" });
    } else {
      const work = s.minutes - WORK_MINUTES.change;
      const pieces =
        s.zone === "spot"
          ? Math.ceil(o.nibCount / USED_UP.spotsPerDisc) || 1
          : s.zone === "run"
            ? 1
            : paper(Math.max(0, work), s.wet === false);
      list.push({
        what: `${s.use.grit} ${s.use.tool === "hand" || s.zone === "run" ? "sheet" : s.zone === "panel" ? "disc, 150 mm" : "small disc"}`,
        amount: pieces,
        unit: "pieces",
      });
    }
  }
  if (o.taped_m > 0) list.push({ what: "tape", amount: Math.ceil(o.taped_m), unit: "m" });
  return merged(list);
}

function merged(list: readonly Consumable[]): Consumable[] {
  const out = new Map<string, Consumable>();
  for (const c of list) out.set(c.what, { ...c, amount: c.amount + (out.get(c.what)?.amount ?? 0) });
  return [...out.values()];
}

/** What can hurt in these steps. */
export function cautionsOf(
  steps: readonly PlanStep[],
  { coloured = false, flakes = false }: { coloured?: boolean | undefined; flakes?: boolean | undefined } = {},
): string[] {
  const wet = steps.some((s) => s.wet);
  const polish = steps.some((s) => s.use && "polish" in s.use);
  const dry = steps.some((s) => s.wet === false);
  const blade = steps.some((s) => s.tool.startsWith("blade"));
  return [
    ...(wet ? ["Wet sanding: eye protection; residual current protection for mains tools near water."] : []),
    ...(dry ? ["Dry sanding: dust of two-pack paint is harmful; extraction and the mask your data sheet asks for."] : []),
    ...(polish ? ["Polishing: eye protection, no loose clothing or cords at rotating pads; keep the pad flat and moving."] : []),
    ...(blade ? ["Blade: cut-resistant glove on the other hand, stroke away from it."] : []),
    ...(flakes
      ? ["Single stage with flakes: paper and polish move them, and it mottles. Try it where nobody looks, or clear over it."]
      : []),
    coloured
      ? "Wipe dry and look after every step. Its own colour is on the cloth from the first stroke; undercoat showing means it is through: stop."
      : "Wipe dry and look after every step. Colour on the cloth means the clear is through: stop.",
  ];
}
