import { useEffect, useRef } from "react";
import { boundingBox } from "#core/kernel/geometry/geometry";
import { showFilm, showSpan } from "#core/kernel/units/format";
import type { Debrief } from "#core/practice/debrief";
import type { JobJudged } from "#core/practice/job/judged";
import { useUnits } from "~/kit/root/use-root";
import { BigFigures } from "~/kit/ui/big-figures";
import { MM } from "~/kit/ui/svg-path";
import type { BenchClient } from "./bench-client";
import { FilmPicture } from "./film-picture";
import { faultWords, jobSlipWords } from "./job.words";

/** So many things to change are read. */
const MOST = 5;

/** A panel that was judged: its true film beside what the readings say, what was wrong with it, and what to change, dearest first. */
export function JudgedView({ client, judged, debrief }: { client: BenchClient; judged: JobJudged; debrief: Debrief }) {
  const units = useUnits();
  const { least, faults, slips } = judged;
  const { readings, sanded_s, belief } = client.job.get();
  const film = (m: number) => `${showFilm(m, units).text} ${showFilm(m, units).unit}`;
  const shape = shapeOf(client);
  const figures = [
    { big: film(least.true_m), small: "at the thinnest, the truth" },
    { big: least.said_m === null ? "–" : film(least.said_m), small: "as you said" },
    {
      big: least.judged ? `${showFilm(least.judged.mean_m, units).text} ± ${film(least.judged.u_m)}` : "–",
      small: `by ${readings.length} readings`,
    },
    { big: showSpan(sanded_s), small: "sanded" },
  ];
  return (
    <div className="lg:col-span-2">
      <div className="grid gap-6 sm:grid-cols-2" style={{ maxWidth: `calc(88dvh * ${shape})` }}>
        <figure>
          <FilmPicture
            client={client}
            label={`True film before the work, ${faults.length} faults`}
            shows={(canvas) => client.showsFilm(canvas)}
          >
            {faults.map((f) => (
              <g key={`${f.x_m} ${f.y_m}`} transform={`translate(${f.x_m * MM} ${f.y_m * MM})`}>
                <circle r={f.kind === "nib" ? 9 : 28} fill="none" stroke="white" strokeWidth="5" vectorEffect="non-scaling-stroke" />
                <circle
                  r={f.kind === "nib" ? 9 : 28}
                  fill="none"
                  stroke={f.found ? "var(--glow)" : "var(--stop)"}
                  strokeWidth="2.5"
                  strokeDasharray={f.found ? undefined : "4 4"}
                  vectorEffect="non-scaling-stroke"
                />
              </g>
            ))}
          </FilmPicture>
          <figcaption className="mt-1 text-[13px] text-ink2">
            The true film before the work, dark is thin. Whole rings were found, broken ones not.
          </figcaption>
        </figure>
        <figure>
          {belief ? (
            <Belief client={client} bitmap={belief}>
              {readings.map((r) => (
                <circle key={`${r.x_m} ${r.y_m} ${r.film_m}`} cx={r.x_m * MM} cy={r.y_m * MM} r="6" fill="white" stroke="black" />
              ))}
            </Belief>
          ) : (
            <div className="grid place-content-center border border-hair p-6 text-ink2" style={{ aspectRatio: shape }}>
              Three readings or more say a film.
            </div>
          )}
          <figcaption className="mt-1 text-[13px] text-ink2">What your readings say, worked out as for a real panel.</figcaption>
        </figure>
      </div>
      <BigFigures testId="judged-figures" figures={figures} />
      <ol className="mt-4" data-testid="job-slips">
        {slips.slice(0, MOST).map((s) => (
          <li key={s.slip} className="border-t border-hair py-2.5 font-semibold">
            {jobSlipWords(s, judged, units)}
          </li>
        ))}
        {slips.length === 0 && <li className="border-t border-hair py-2.5">Nothing of it cost a word.</li>}
      </ol>
      <ul className="mt-2 text-[14px] text-ink2" data-testid="faults-judged">
        {faults.map((f) => (
          <li key={`${f.x_m} ${f.y_m}`} className="py-1">
            {faultWords(f, units)}
          </li>
        ))}
        {debrief.faults.length === 0 && <li className="py-1">No run and no thin place in it.</li>}
      </ul>
    </div>
  );
}

const shapeOf = ({ setting: { outline } }: BenchClient) => {
  const { x0, x1, y0, y1 } = boundingBox(outline);
  return (x1 - x0) / (y1 - y0);
};

function Belief({ client, bitmap, children }: { client: BenchClient; bitmap: ImageBitmap; children: React.ReactNode }) {
  const drawn = useRef<HTMLCanvasElement | null>(null);
  useEffect(() => {
    const canvas = drawn.current;
    if (!canvas) return;
    Object.assign(canvas, { width: bitmap.width, height: bitmap.height });
    canvas.getContext("2d")?.drawImage(bitmap, 0, 0);
  }, [bitmap]);
  return (
    <FilmPicture client={client} label="Film as the readings say it" shows={(canvas) => (drawn.current = canvas)}>
      {children}
    </FilmPicture>
  );
}
