import { Route as RouteIcon } from "lucide-react";
import { NavLink } from "react-router";
import { STATIONS, STATION_NAMES, type Station } from "#core/panel/station";

const NAME =
  "text-[13px] [font-stretch:92%] whitespace-nowrap text-ink2 group-hover:text-ink group-aria-[current=page]:font-bold group-aria-[current=page]:text-ink group-aria-[current=page]:underline group-aria-[current=page]:decoration-glow group-aria-[current=page]:decoration-2 group-aria-[current=page]:underline-offset-4";
const RIPPLES = [26, 14, 20, 9, 17, 11, 22];
const RISE = [0, 3, -3, 3, 0, -3, 0];

/** A panel's course and its stations: ripples of light over what is done, the moon where the work stands, still water ahead. */
export function Waterline({ base, reached }: { base: string; reached: Station }) {
  const now = STATIONS.indexOf(reached);
  return (
    <nav aria-label="Stations" className="w-full">
      <ol className="flex">
        <li className="flex-1">
          <NavLink to={`${base}/course`} prefetch="intent" className="group grid min-h-[54px] justify-items-center rounded-press pt-1">
            <RouteIcon size={26} strokeWidth={1.7} aria-hidden className="text-ink2 group-aria-[current=page]:text-glow-ink" />
            <span className={NAME}>Course</span>
          </NavLink>
        </li>
        {STATIONS.map((s, i) => (
          <li key={s} className="relative flex-1">
            <Stretch done={i < now} last={i === STATIONS.length - 1} />
            <NavLink
              to={`${base}/${s}`}
              prefetch="intent"
              className="group relative grid min-h-[54px] justify-items-center rounded-press pt-1"
              aria-label={`${STATION_NAMES[s]}${i < now ? ", done" : i === now ? ", the work stands here" : ""}`}
            >
              <svg width="28" height="28" viewBox="-14 -14 28 28" aria-hidden>
                {i === now ? (
                  <>
                    <circle r="12" fill="var(--ink)" />
                    <circle r="6.5" fill={"var(--paper)"} />
                  </>
                ) : (
                  <circle
                    r="6"
                    fill={i < now ? "var(--glow)" : "var(--paper)"}
                    stroke={i < now ? "none" : "var(--ink2)"}
                    strokeWidth="1.6"
                  />
                )}
              </svg>
              <span className={NAME}>{STATION_NAMES[s]}</span>
            </NavLink>
          </li>
        ))}
      </ol>
    </nav>
  );
}

/** Water between this station and the next. */
function Stretch({ done, last }: { done: boolean; last: boolean }) {
  if (last) return null;
  return (
    <svg className="absolute top-[10px] left-1/2 h-5 w-full" viewBox="0 0 120 20" preserveAspectRatio="none" aria-hidden>
      {done ? (
        RIPPLES.map((w, k) => {
          const x = 14 + (92 * (k + 0.5)) / RIPPLES.length;
          const y = 10 + RISE[k]!;
          return <line key={k} x1={x - w / 2} x2={x + w / 2} y1={y} y2={y} stroke="var(--glow)" strokeWidth="2.4" strokeLinecap="round" />;
        })
      ) : (
        <line x1="14" x2="106" y1="10" y2="10" stroke="var(--hair)" strokeWidth="2" />
      )}
    </svg>
  );
}
