import { Link } from "react-router";
import { shadeOf } from "#core/models/colour/job-colours";
import { type Polygon, boundingBox } from "#core/kernel/geometry/geometry";
import { type Vehicle, type VehicleKind, type VehiclePlace, outlineOnVehicle, placeKey } from "#core/vehicle/vehicles";
import type { VehicleView } from "#server/views/vehicle-view";
import { MM } from "~/kit/ui/svg-path";
import { isHeld, isPast } from "~/kit/words/step-words";
import { whenText } from "~/kit/words/when";
import { Unfolded, outlinePath, usualOutline } from "./unfolded";

const SOON_MS = 30_000;

type PanelHere = VehicleView["panels"][number];

/** What a part waits for, in a word for the map. */
function wordOf({ standing }: PanelHere, now_ms: number): { word: string; tone: "done" | "now" | "wait" | "stop" } {
  if (!standing) return { word: "?", tone: "stop" };
  const { action } = standing;
  if (!action) return { word: "done", tone: "done" };
  if (isHeld(standing, now_ms)) return { word: "held", tone: "stop" };
  if (isPast(standing, now_ms)) return { word: "too late", tone: "stop" };
  if (action.from_ms !== null && action.from_ms > now_ms + SOON_MS) return { word: whenText(action.from_ms, now_ms), tone: "wait" };
  return { word: "now", tone: "now" };
}

const FILL = { done: "var(--hair)", now: "var(--glow-wash)", wait: "var(--paper)", stop: "var(--stop-wash)" } as const;
const INK = { done: "var(--ink2)", now: "var(--glow-ink)", wait: "var(--ink)", stop: "var(--stop-ink)" } as const;

interface VehicleMapProps {
  vehicle: Vehicle;
  /** What of it is drawn. */
  places: Vehicle["places"];
  kind: VehicleKind;
  on: ReadonlyMap<string, PanelHere>;
  add: readonly string[];
  toggle: (id: string) => void;
  now_ms: number;
  job: VehicleView["job"];
}

/** The vehicle unfolded, its front upwards: parts of the job with their word, the others dotted; a tap opens one or ticks it to be added. */
export function VehicleMap({ vehicle, places, kind, on, add, toggle, now_ms, job }: VehicleMapProps) {
  return (
    <Unfolded
      drawn={places}
      role="group"
      label={`${vehicle.name}, unfolded, front upwards`}
      caption="front upwards; sides folded out"
      className="max-h-[72dvh]"
    >
      {(unit) =>
        places.map((place) => {
          const panel = on.get(placeKey(kind, place.id));
          return panel ? (
            <Link
              key={place.id}
              to={`/jobs/${job.id}/panels/${panel.id}/course`}
              aria-label={`${panel.name}: ${wordOf(panel, now_ms).word}`}
              className="focus-visible:[&_path]:stroke-[var(--glow)]"
            >
              <Part {...{ place, panel, now_ms, unit }} css={shadeOf(job, panel.colour).css} />
            </Link>
          ) : (
            <Free key={place.id} place={place} ticked={add.includes(place.id)} toggle={() => toggle(place.id)} unit={unit} />
          );
        })
      }
    </Unfolded>
  );
}

/** A part of the job. */
function Part({ place, panel, now_ms, css, unit }: { place: VehiclePlace; panel: PanelHere; now_ms: number; css: string; unit: number }) {
  const outline = outlineOnVehicle(place, panel.shape.outline);
  const { word, tone } = wordOf(panel, now_ms);
  return (
    <>
      <path d={outlinePath(outline)} fill={FILL[tone]} stroke="var(--ink)" strokeWidth={unit * 0.003} />
      <Words at={outline} unit={unit} words={[...nameLines(panel.name), word]} ink={INK[tone]} dot={tone === "done" ? css : null} />
    </>
  );
}

/** A place that nothing of the job lies on: a tap ticks it. */
function Free({ place, ticked, toggle, unit }: { place: VehiclePlace; ticked: boolean; toggle: () => void; unit: number }) {
  const outline = usualOutline(place);
  return (
    <g onClick={toggle} className="cursor-pointer" aria-hidden>
      <path
        d={outlinePath(outline)}
        fill={ticked ? "var(--glow-wash)" : "transparent"}
        stroke={ticked ? "var(--glow-ink)" : "var(--edge)"}
        strokeWidth={unit * 0.002}
        strokeDasharray={`${unit * 0.008} ${unit * 0.008}`}
      />
      {ticked && <Words at={outline} unit={unit} words={["+"]} ink="var(--glow-ink)" dot={null} />}
    </g>
  );
}

/** A name on two lines where it has two halves. */
const nameLines = (name: string): string[] => {
  const [first, second] = name.split(", ");
  return second
    ? [first!, second]
    : name.length > 11 && name.includes(" ")
      ? [name.slice(0, name.lastIndexOf(" ")), name.slice(name.lastIndexOf(" ") + 1)]
      : [name];
};

function Words({ at, unit, words, ink, dot }: { at: Polygon; unit: number; words: readonly string[]; ink: string; dot: string | null }) {
  const { x0, x1, y0, y1 } = boundingBox(at);
  const [x, y] = [((x0 + x1) / 2) * MM, ((y0 + y1) / 2) * MM];
  const size = unit * 0.023;
  return (
    <g textAnchor="middle" fontSize={size}>
      {words.map((word, i) => (
        <text
          key={i}
          x={x}
          y={y + (i - (words.length - 1) / 2) * size * 1.15 + size * 0.35}
          fill={i === words.length - 1 ? ink : "var(--ink)"}
          fontWeight={i === words.length - 1 ? 700 : 500}
        >
          {word}
        </text>
      ))}
      {dot && <circle cx={x} cy={y + (words.length / 2 + 0.6) * size} r={size * 0.3} fill={dot} />}
    </g>
  );
}
