import { capital } from "~/kit/words/capital";
import type { Flip } from "#core/judge/option-case";
import type { Closed, Decision, OptionForecast, OptionKind, Waiting } from "#core/judge/options";
import { RUN_SCHOOLS } from "#core/models/correction/run-work";
import type { OptionCase } from "#core/judge/options";
import { OPTION_FIGURES } from "#core/judge/option-figures";
import { FAULTS, type Fault, REMEDIES } from "#core/models/defects/remedies";
import type { BeforeBase } from "#core/models/defects/holds";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { showChance, showWait } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";
import { inUnits } from "#core/kernel/units/in-units";

const NAMES: Record<OptionKind, string> = {
  ...(Object.fromEntries(Object.entries(REMEDIES).map(([id, r]) => [id, r.name])) as Record<OptionKind, string>),
  flow: "Flow coat: flat and re-clear",
};
const BEFORE_BASE: Record<BeforeBase, string> = { strip: "strip", fill: "fill", barrier: "seal off with a barrier" };

export const optionName = (o: Pick<OptionForecast, "kind" | "runSchool" | "first">, matte: boolean): string =>
  o.first.length > 0
    ? `First ${o.first.map((f) => BEFORE_BASE[f]).join(", ")}, then new base and clear`
    : o.runSchool && o.kind === "run"
      ? `${NAMES.run}: ${RUN_SCHOOLS[o.runSchool].name.toLowerCase()}`
      : matte && o.kind === "flow"
        ? "Refinish the whole part"
        : NAMES[o.kind];

export function closedWords(c: Closed, units: UnitPreferences): string {
  switch (c.because) {
    case "matte":
      return "matte cannot be polished";
    case "uncured":
      return "not cured yet";
    case "no nibs":
      return "there is nothing to do by the spot";
    case "not wet":
      return "only while it is wet";
    case "not open":
      return "only while the next coat may still go on";
    case "not hot":
      return "only while it is hot from the bake";
    case "too many":
      return `more than ${OPTION_FIGURES.dropFill.most} places`;
    case "total build":
      return inUnits("all layers together would be above 300 µm", units);
    case "runs":
      return "it may run at any pace of this gun";
    case "clear build":
      return inUnits("the clear would be above 160 µm", units);
    case "sanded through":
      return "sanding it flat would go through to the base";
    case "strip first":
      return inUnits("strip first: all layers together would be above 350 µm", units);
    case "fault":
      return `${DEFECT_KINDS[c.kind].name.toLowerCase()} comes first`;
    case "cut":
      return `${showChance(c.chance)} to cut through`;
    case "thin":
      return `${showChance(c.chance)} to leave too little`;
  }
}

/** What is waited for before the way is begun. */
const WAIT_FIRST: Record<NonNullable<Decision["wait"]>, string> = {
  cure: "Wait for the cure",
  dry: "Warmth and time until it has dried out",
  hard: "Wait until a thumbnail leaves no print",
};

/** The choice as a sentence. */
export function decisionSentence(d: Decision, matte: boolean): string {
  if (!d.best) return "Nothing here is open: strip and start again.";
  const [unsized] = d.measure;
  if (unsized) return `Size the ${DEFECT_KINDS[unsized.kind].name.toLowerCase()} first: height, width, length.`;
  const name = optionName(d.best, matte).toLowerCase();
  if (d.wait) return `${WAIT_FIRST[d.wait]}, then: ${name}.`;
  // On matte nothing lies between leaving it and the spray gun: both are said.
  const sprayed = d.options.find((o) => o.kind === "flow" && o.feasible);
  if (matte && d.best.kind === "leave" && d.best.residualChance > 0.005)
    return `Leave it: rejected ${showChance(d.best.residualChance)}. ${sprayed ? "Or spray the whole part again: nothing else mends matte." : ""}`.trim();
  return d.best.kind === "leave" ? "Leave it as it is." : `${capital(name)}.`;
}

/** What is weighed beside nibs, peel and sized runs, each with how it shows and what may go wrong. */
export const faultLines = (faults: readonly Fault[]): { name: string; text: string }[] =>
  faults.map(({ kind, count }) => {
    const { arm, sun, risk } = FAULTS[kind];
    return {
      name: `${count > 1 ? `${count} × ` : ""}${DEFECT_KINDS[kind].name}`,
      text: `at arm's length ${arm}; in the sun ${sun}. ${risk}.`,
    };
  });

const FLIPS: Record<Flip["what"], string> = {
  measure: "If more readings halved the doubt",
  thinner: "If the clear is thinner by its ±",
  thicker: "If the clear is one doubt thicker",
  flatter: "If the peel is half as deep",
  rougher: "If the peel is twice as deep",
  "fewer nibs": "With half the nibs",
  "dearer hours": "If the hour cost twice as much",
};
export const flipSentence = (f: Flip, matte: boolean): string => `${FLIPS[f.what]}: ${optionName(f.best, matte).toLowerCase()}.`;

export function optionWorking(o: OptionForecast, c: OptionCase, matte: boolean, units: UnitPreferences): Working {
  const money = (v: number) => v.toFixed(0);
  return {
    title: `${optionName(o, matte)}: what it costs`,
    formula:
      "Hours × the shop's rate + material + days of waiting × what a day costs + chance of cutting through × new base and clear × 1.3 + chance of coming back thin × 0.35 × new base and clear + chance that what is left is rejected × its loss.",
    inputs: [
      withU("clear in the thinnest zone", "film", c.clear_m, c.u_clear_m, units),
      line("comes off", "film", o.removal_m, units, 1),
      withU("clear left", "film", o.left_m, o.u_left_m, units),
      { name: "minutes", shown: money(o.minutes) },
      { name: "material", shown: money(o.material) },
      { name: "hour", shown: money(c.rates?.labourPerHour ?? 0) },
      { name: "a day of waiting", shown: money(c.rates?.waitingPerDay ?? 0) },
      { name: "chance of cutting through", shown: showChance(o.cutChance) },
      { name: "chance of too little left", shown: showChance(o.thinChance) },
      { name: "chance that it is rejected", shown: showChance(o.residualChance) },
      { name: "loss when rejected", shown: money(c.rates?.rejected ?? 0) },
      { name: "a nib is seen with", shown: `${100 * OPTION_FIGURES.perNib} %` },
    ],
    sources: ["yakamoz-default", "job-record", "fepa-43"],
    changesMost: "What a panel that comes back costs this shop.",
  };
}

/** From here on minutes do not matter. */
const LONG_WAIT_S = 10 * 3600;

/** "6 h before", "16 h for its own cure": waiting at 20 °C; a dash for none. */
export function waitingWords({ before_s, after_s }: Waiting): string {
  const hours = (s: number) => (s < LONG_WAIT_S ? showWait(s) : `${Math.round(s / 3600)} h`);
  const parts = [before_s > 0 ? `${hours(before_s)} before` : null, after_s > 0 ? `${hours(after_s)} for its own cure` : null];
  return parts.filter(Boolean).join(", ") || "–";
}
