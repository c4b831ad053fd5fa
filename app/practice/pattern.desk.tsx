import { useMemo, useState } from "react";
import { Link } from "react-router";
import { burst, gunByChance, MENDED_BY, MENDS, type Mend } from "#core/practice/pattern";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { BurstPaper } from "./burst-paper";
import { FAULT_WORDS, MEND_WORDS } from "./pattern.words";

/** A gun tried on paper before the job: what is wrong with it, told by its burst and by half a turn of the cap, and what mends it. */
export function PatternDesk({ name }: { name: string }) {
  const [round, setRound] = useState(0);
  const [turned, setTurned] = useState(false);
  const [tried, setTried] = useState<Mend[]>([]);
  const [right, setRight] = useState({ first: 0, of: 0 });
  const gun = useMemo(() => gunByChance(`${name} ${round}`), [name, round]);
  const mend = MENDED_BY[gun.fault];
  const done = tried.includes(mend);
  const bursts = useMemo(() => {
    const of = (fault: typeof gun.fault, cap: boolean) =>
      burst({
        ...gun,
        fault,
        degree: fault === "even" ? 0 : gun.degree,
        turned: cap,
        fluidRate_m3_s: USUAL_GUN.fluidRate_m3_s,
        pressure_Pa: USUAL_GUN.pressure_Pa,
      });
    return { first: of(gun.fault, false), turned: of(gun.fault, true), mended: of("even", false) };
  }, [gun]);
  const take = (next: Mend) => {
    if (next === mend) setRight(({ first, of }) => ({ first: first + Number(tried.length === 0), of: of + 1 }));
    setTried((all) => [...all, next]);
  };
  const another = () => {
    setRound((n) => n + 1);
    setTurned(false);
    setTried([]);
  };
  const wrong = tried.filter((t) => t !== mend);
  return (
    <>
      <h2
        className="min-h-[2.24em] max-w-[28em] text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]"
        aria-live="polite"
        data-testid="pattern-sentence"
      >
        {done ? (
          <>
            {gun.fault === "even" ? "Right." : "Mended."} <em className="text-glow-ink not-italic">{FAULT_WORDS[gun.fault]}</em>
          </>
        ) : wrong.length > 0 ? (
          <>
            It sprays as before. <em className="text-amber-ink not-italic">Look again, or turn the cap.</em>
          </>
        ) : (
          "A short burst at paper. What is wrong with this gun?"
        )}
      </h2>
      <div className="mt-4 grid gap-x-10 gap-y-6 md:grid-cols-[auto_1fr]">
        <div className="flex gap-4">
          <BurstPaper film={bursts.first} label="First burst" />
          {turned && <BurstPaper film={bursts.turned} label="Cap turned" />}
          {done && gun.fault !== "even" && <BurstPaper film={bursts.mended} label="Mended" />}
        </div>
        <div className="space-y-4">
          {!done && (
            <button type="button" className="press" disabled={turned} onClick={() => setTurned(true)}>
              Turn the cap half round, burst again
            </button>
          )}
          {done ? (
            <button type="button" className="press" data-kind="main" onClick={another}>
              Another gun
            </button>
          ) : (
            <ul className="grid max-w-md gap-2" aria-label="What mends it">
              {MENDS.map((m) => (
                <li key={m}>
                  <button type="button" className="press w-full justify-start" disabled={wrong.includes(m)} onClick={() => take(m)}>
                    {MEND_WORDS[m]}
                  </button>
                </li>
              ))}
            </ul>
          )}
          <p className="text-ink2" role="status" data-testid="pattern-kept">
            {right.of > 0 ? `${right.first} of ${right.of} at the first try` : ""}
          </p>
          <Link to="/practice" className="press" data-kind="quiet">
            To the exercises
          </Link>
        </div>
      </div>
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Never at skin or eyes; air off before the gun is taken apart; supplied air where clear is sprayed.
      </p>
    </>
  );
}
