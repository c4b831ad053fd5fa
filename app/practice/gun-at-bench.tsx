import { useMemo, useState } from "react";
import { fromSi } from "#core/kernel/units/convert";
import { show } from "#core/kernel/units/format";
import { type Quantity, preferredUnit } from "#core/kernel/units/quantities";
import { GUN_BOUNDS } from "#core/models/bounds";
import type { BenchCoat } from "#core/practice/bench-setting";
import { type BenchGun, benchGun, setOtherwise } from "#core/practice/hand";
import { MENDED_BY, MENDS, type Mend, type PaperAsked, burst, faultPattern } from "#core/practice/pattern";
import { SPRAY } from "#core/models/spray/constants";
import { readQuantity } from "~/kit/form/read-typed";
import { useUnits } from "~/kit/root/use-root";
import { StepperField } from "~/kit/ui/stepper-field";
import { BurstPaper } from "./burst-paper";
import { MEND_WORDS } from "./pattern.words";

const FAN_PERCENT = { min: 40, max: 130 } as const;
/** A gun whose pattern is even by itself. */
export const SOUND: GunFault = { fault: "even", degree: 0, seed: 1 };
export type GunFault = Pick<PaperAsked, "fault" | "degree" | "seed">;

/** Needle, air and fan as somebody has set them; null where what is typed is no gun. */
export function useGunAtBench(wanted: BenchCoat, given: GunFault) {
  const units = useUnits();
  const unit = { needle: preferredUnit("fluidRate", units), air: preferredUnit("pressure", units), fan: "%" };
  /** By field and unit: what was typed in one is never read in another. */
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [mended, setMended] = useState(false);
  const fault = mended ? SOUND : given;
  const start = useMemo(() => benchGun(wanted.gun), [wanted]);
  const keyOf = (name: Name) => `${name} ${unit[name]}`;
  const own = (name: Name) => typed[keyOf(name)];
  const texts = {
    needle: own("needle") ?? show("fluidRate", start.fluidRate_m3_s, units).text,
    air: own("air") ?? show("pressure", start.pressure_Pa, units).text,
    fan: own("fan") ?? "100",
  };
  const errors: Partial<Record<Name, string[]>> = {};
  /** What was typed, over what the way wants; what nobody has touched is as the way wants it, not as it was rounded. */
  const over = (name: Name, quantity: Quantity, bounds: { min: number; max: number }, asStart: number): number => {
    const text = own(name);
    const got = text === undefined ? { si: asStart } : readQuantity(quantity, quantity === "count" ? "" : unit[name], bounds, text);
    if ("si" in got) return got.si / asStart;
    errors[name] = [got.message];
    return 1;
  };
  const fluid = over("needle", "fluidRate", GUN_BOUNDS.fluidRate_m3_s, start.fluidRate_m3_s);
  const air = over("air", "pressure", GUN_BOUNDS.pressure_Pa, start.pressure_Pa);
  const fan = over("fan", "count", FAN_PERCENT, 100);
  const gun: BenchGun | null = Object.keys(errors).length > 0 ? null : setOtherwise(start, { fluid, air, fan }, faultPattern(fault));
  const type = (name: Name, text: string) => setTyped((all) => ({ ...all, [keyOf(name)]: text }));
  return { texts, unit, errors, gun, fluid, air, fault, type, mend: () => setMended(true) };
}
type Name = "needle" | "air" | "fan";

/** The gun before a coat: needle, air and fan, a burst of it on paper, and what mends a pattern that is not even. */
export function GunAtBench({ at }: { at: ReturnType<typeof useGunAtBench> }) {
  const units = useUnits();
  const { texts, unit, errors, fluid, air, fault, type } = at;
  const [paper, setPaper] = useState<{ first: Float64Array; turned: Float64Array | null } | null>(null);
  const [tried, setTried] = useState<Mend[]>([]);
  // A burst says the balance of this gun's own needle and air; what the way wants sprays even.
  const spray = (turned: boolean) =>
    burst({ ...fault, turned, fluidRate_m3_s: SPRAY.fluidRateRef_m3_s * fluid, pressure_Pa: SPRAY.pressureRef_Pa * air });
  const take = (mend: Mend) => {
    setTried((all) => [...all, mend]);
    if (MENDED_BY[fault.fault] !== mend) return;
    at.mend();
    setPaper(null);
  };
  const fine = (quantity: Quantity, step_si: number) => Number(fromSi(quantity, step_si, preferredUnit(quantity, units)).toPrecision(1));
  return (
    <section
      aria-label="The gun"
      className="grid gap-x-8 gap-y-4 sm:grid-cols-[minmax(0,24rem)_1fr] lg:col-span-2"
      data-testid="gun-at-bench"
    >
      <div className="space-y-3">
        <StepperField
          label="Needle"
          unit={unit.needle}
          by={fine("fluidRate", 10e-6 / 60)}
          name="needle"
          value={texts.needle}
          onChange={(t) => type("needle", t)}
          errors={errors.needle}
        />
        <StepperField
          label="Air"
          unit={unit.air}
          by={fine("pressure", 0.1e5)}
          name="air"
          value={texts.air}
          onChange={(t) => type("air", t)}
          errors={errors.air}
        />
        <StepperField
          label="Fan"
          unit="% of the usual"
          by={5}
          name="fan"
          value={texts.fan}
          onChange={(t) => type("fan", t)}
          errors={errors.fan}
        />
        <button className="press" onClick={() => setPaper({ first: spray(false), turned: null })}>
          A burst on paper
        </button>
      </div>
      {paper && (
        <div className="flex flex-wrap gap-4">
          <BurstPaper film={paper.first} label="Burst" />
          {paper.turned && <BurstPaper film={paper.turned} label="Cap turned" />}
          <div className="grid content-start gap-2">
            <button className="press" onClick={() => setPaper({ ...paper, turned: spray(true) })} disabled={paper.turned !== null}>
              Turn the cap half round
            </button>
            {MENDS.filter((m) => m === "cleanTip" || m === "cleanCap").map((m) => (
              <button key={m} className="press" onClick={() => take(m)} disabled={tried.includes(m)}>
                {MEND_WORDS[m]}
              </button>
            ))}
            {tried.length > 0 && <p className="text-[14px] text-ink2">Done. Burst again.</p>}
          </div>
        </div>
      )}
    </section>
  );
}
