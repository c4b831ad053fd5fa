import { show, showFilm } from "#core/kernel/units/format";
import type { BenchCoat } from "#core/practice/bench-setting";
import type { Level } from "#core/practice/exercises";
import { useUnits } from "~/kit/root/use-root";
import type { BenchState } from "./bench-client";

/** So far from what is wanted a figure says so. */
const OFF = 0.15;

/** How the hand goes now, beside what the way wants, and the wet film below the gun. In the booth nobody says it. */
export function HandFigures({ state, level, wanted }: { state: BenchState; level: Level; wanted: BenchCoat }) {
  const units = useUnits();
  const { now, seen } = state;
  if (level === "booth") return <p className="text-[14px] text-ink2">Nothing is told here: the light and the wet edge say it.</p>;
  const spraying = state.phase === "spraying";
  const off = (was: number, is: number) => spraying && now.pulled && Math.abs(was / is - 1) > OFF;
  const speed = show("speed", now.speed_m_s, units);
  const wants = show("speed", wanted.gun.handSpeed_m_s, units);
  const distance = show("length", now.distance_m, units);
  const near = show("length", wanted.gun.distance_m, units);
  return (
    <div className="grid content-start gap-4 max-lg:grid-cols-3 max-sm:gap-2">
      <HandFigure
        figure={speed.text}
        unit={speed.unit}
        note={`hand, the way wants ${wants.text}`}
        off={off(now.speed_m_s, wanted.gun.handSpeed_m_s)}
      />
      <HandFigure
        figure={distance.text}
        unit={distance.unit}
        note={`distance, ${near.text} wanted`}
        off={off(now.distance_m, wanted.gun.distance_m)}
      />
      <HandFigure
        figure={now.overlap === null ? "–" : String(Math.round(100 * now.overlap))}
        unit="%"
        note={`over the row before, ${Math.round(100 * wanted.gun.overlap)} wanted`}
        off={now.overlap !== null && off(1 - now.overlap, 1 - wanted.gun.overlap)}
      />
      <div className="max-lg:hidden">
        <Below fixed_m={seen.here.fixed_m} mobile_m={seen.here.mobile_m} run_m={wanted.runFilm_m} />
        <p className="mt-1 text-[13px] text-ink2">
          wet film below the gun, {showFilm(seen.here.mobile_m, units).text} {showFilm(0, units).unit}
        </p>
      </div>
    </div>
  );
}

function HandFigure({ figure, unit, note, off }: { figure: string; unit: string; note: string; off: boolean }) {
  return (
    <div>
      <p className={`text-[32px] leading-none font-semibold tracking-tight max-sm:text-[24px] ${off ? "text-amber-ink" : ""}`}>
        {figure} <span className="text-[16px] font-medium text-ink2 max-sm:text-[13px]">{unit}</span>
      </p>
      <p className="mt-0.5 text-[13px] text-ink2">{note}</p>
    </div>
  );
}

const WIDTH = 190;
const HEIGHT = 150;

/** The film below the gun to scale: what has set, what moves, and where it would run. */
function Below({ fixed_m, mobile_m, run_m }: { fixed_m: number; mobile_m: number; run_m: number }) {
  const units = useUnits();
  const top_m = 1.3 * Math.max(run_m + fixed_m, fixed_m + mobile_m);
  const y = (m: number) => HEIGHT - 12 - (m / top_m) * (HEIGHT - 20);
  const text = (m: number) => `${showFilm(m, units).text} ${showFilm(m, units).unit}`;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full"
      role="img"
      aria-label={`Film below the gun: ${text(fixed_m)} set, ${text(mobile_m)} wet; runs at ${text(run_m)}`}
    >
      <rect x="0" y={HEIGHT - 12} width="84" height="12" fill="var(--bench-bare)" />
      <rect x="0" y={y(fixed_m)} width="84" height={Math.max(0, y(0) - y(fixed_m))} fill="var(--clear-1)" />
      <rect x="0" y={y(fixed_m + mobile_m)} width="84" height={Math.max(0, y(fixed_m) - y(fixed_m + mobile_m))} fill="var(--clear-2)" />
      <line x1="0" x2="92" y1={y(fixed_m + run_m)} y2={y(fixed_m + run_m)} stroke="var(--stop)" strokeWidth="1.5" strokeDasharray="3 4" />
      <text x="96" y={y(fixed_m + run_m) + 4} fontSize="13" fill="var(--stop-ink)">
        runs at {showFilm(run_m, units).text}
      </text>
    </svg>
  );
}
