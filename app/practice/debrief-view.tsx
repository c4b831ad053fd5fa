import { Check, X } from "lucide-react";
import { boundingBox } from "#core/kernel/geometry/geometry";
import { show, showFilm, showSpan } from "#core/kernel/units/format";
import type { BenchCoat } from "#core/practice/bench-setting";
import type { Debrief } from "#core/practice/debrief";
import type { Exercise, MarkMet } from "#core/practice/exercises";
import type { CoatOfHand } from "#core/practice/hand";
import { useUnits } from "~/kit/root/use-root";
import { BigFigures } from "~/kit/ui/big-figures";
import { MM } from "~/kit/ui/svg-path";
import type { FibreTold } from "#workers/bench-talk";
import type { BenchClient } from "./bench-client";
import { FilmPicture } from "./film-picture";
import { adviceWords, fibreWords, markWords, partWords, wouldWords } from "./practice.words";

/** So many things to change are read; what cost less waits for the next time. */
const MOST = 5;

/** What a session came to: the film that is there, the path that laid it, and what to change, dearest first. */
export function DebriefView({
  client,
  debrief,
  marks,
  exercise,
  coats,
  fibres,
  shown,
}: {
  client: BenchClient;
  debrief: Debrief;
  marks: readonly MarkMet[];
  exercise: Exercise;
  coats: readonly CoatOfHand[];
  fibres: readonly FibreTold[];
  /** The film is shown here: one that was judged stands beside its judgement. */
  shown: boolean;
}) {
  const units = useUnits();
  const { loss, advice, volume_m3, time_s } = debrief;
  const least = showFilm(loss.least_m, units);
  const mean = showFilm(loss.mean_m, units);
  const used = show("volume", volume_m3, units);
  return (
    <>
      <div>
        {shown && <FilmAndPath {...{ client, debrief, coats }} />}
        <BigFigures
          testId="session-figures"
          figures={[
            { big: `${mean.text} ${mean.unit}`, small: "film in the mean" },
            { big: `${least.text} ${least.unit}`, small: "at the thinnest" },
            { big: partWords(loss.uneven), small: "uneven" },
            { big: `${used.text} ${used.unit}`, small: "through the gun" },
            { big: showSpan(time_s), small: "spraying" },
          ]}
        />
      </div>
      <section aria-label="What to change" className="lg:col-start-2 lg:row-start-2">
        <ul className="mb-4 space-y-1">
          {marks.map((m) => (
            <li key={m.mark} className={`flex items-center gap-2 text-[15px] ${m.met ? "" : "text-amber-ink"}`}>
              {m.met ? <Check size={17} aria-label="met" /> : <X size={17} aria-label="not met" />} {markWords(m)}
            </li>
          ))}
        </ul>
      </section>
      <ol className="space-y-3 lg:col-span-2" data-testid="advice">
        {advice.slice(0, MOST).map((a) => (
          <li key={a.skill} className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2 border-t border-hair pt-3">
            <p className="min-w-0 flex-1 basis-80">
              <span className="font-semibold">{adviceWords(a, units, exercise.coats)}</span>{" "}
              <span className="text-ink2">{wouldWords(a, loss, units)}</span>
            </p>
            <button className="press" onClick={() => client.againFrom(a.coat, a.from_s)} disabled={a.coat <= exercise.laid}>
              Try again from there
            </button>
          </li>
        ))}
        {fibres.map((f) => (
          <li key={`fibre ${f.coat}`} className="border-t border-hair pt-3" data-testid="fibre-told">
            {fibreWords(f, units)}
          </li>
        ))}
        {advice.length === 0 && <li className="border-t border-hair pt-3">Nothing of the hand cost film worth a word.</li>}
      </ol>
    </>
  );
}

/** Of the path every so many moments are drawn. */
const EVERY = 6;

function FilmAndPath({ client, debrief, coats }: { client: BenchClient; debrief: Debrief; coats: readonly CoatOfHand[] }) {
  const { x0, y0, x1, y1 } = boundingBox(client.setting.outline);
  const coat = coats.at(-1);
  return (
    <figure className="mx-auto w-full" style={{ maxWidth: `calc(46dvh * ${(x1 - x0) / (y1 - y0)})` }}>
      <FilmPicture
        client={client}
        label={`Film on the panel, ${debrief.runs.length} ${debrief.runs.length === 1 ? "run" : "runs"}`}
        shows={(canvas) => client.showsFilm(canvas)}
      >
        {coat && <Path coat={coat} wanted={client.wantedOf(coats.length).gun} />}
        {debrief.runs.map((run) => (
          <g key={`${run.x_m} ${run.y_m}`} transform={`translate(${run.x_m * MM} ${run.y_m * MM})`}>
            <circle r={0.028 * MM} fill="none" stroke="var(--stop)" strokeWidth="3" vectorEffect="non-scaling-stroke" />
            <circle r={0.034 * MM} fill="none" stroke="white" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
          </g>
        ))}
      </FilmPicture>
      <figcaption className="mt-1 text-[13px] text-ink2">
        The simulation's true film, dark is thin. Path of the last coat: wide where the hand was slow, red where the gun was near, yellow
        where it was far, dotted where the trigger was not pulled. Rings are runs.
      </figcaption>
    </figure>
  );
}

/** So far from the distance wanted the path has a colour of its own. */
const OFF = 0.1;
const colourAt = (distance_m: number, wanted_m: number) =>
  distance_m < (1 - OFF) * wanted_m ? "var(--stop)" : distance_m > (1 + OFF) * wanted_m ? "var(--amber)" : "white";

/** The path of a coat, as wide as its hand was slow, coloured where the gun was too near or too far. */
function Path({ coat, wanted: { handSpeed_m_s: wanted_m_s, distance_m } }: { coat: CoatOfHand; wanted: BenchCoat["gun"] }) {
  const below: React.ReactNode[] = [];
  const above: React.ReactNode[] = [];
  for (let k = 0; k + EVERY < coat.hand.length; k += EVERY) {
    const [a, b] = [coat.hand[k]!, coat.hand[k + EVERY]!];
    const dt_s = b.t_s - a.t_s;
    const speed = dt_s > 0 ? Math.hypot(b.x_m - a.x_m, b.y_m - a.y_m) / dt_s : wanted_m_s;
    const slow = Math.min(4, Math.max(0.6, wanted_m_s / Math.max(0.02, speed)));
    const line = { x1: a.x_m * MM, y1: a.y_m * MM, x2: b.x_m * MM, y2: b.y_m * MM, vectorEffect: "non-scaling-stroke" } as const;
    if (a.pulled) {
      below.push(<line key={k} {...line} stroke="var(--on-ramp-light)" strokeWidth={2 * slow + 2} strokeLinecap="round" />);
      above.push(<line key={k} {...line} stroke={colourAt(a.distance_m, distance_m)} strokeWidth={2 * slow} strokeLinecap="round" />);
    } else above.push(<line key={k} {...line} stroke="var(--edge)" strokeWidth="1" strokeDasharray="2 5" />);
  }
  return (
    <>
      <g opacity="0.6">{below}</g>
      <g>{above}</g>
    </>
  );
}
