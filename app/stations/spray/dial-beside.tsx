import { useMemo } from "react";
import { scaleLog } from "d3-scale";
import type { EqualFinish, EqualWay, Finish } from "#core/coat/equal-finish";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import { LightTube } from "~/kit/panel/light-tube";
import { useUnits } from "~/kit/root/use-root";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { FIGURES, WAY_NAMES } from "~/kit/words/dial-words";
import { textureWords } from "~/kit/words/texture-words";

interface Shown {
  equal: EqualFinish;
  way: EqualWay;
  calibration: RunCalibration | null;
}

/** The settings on their scales, the tube in each surface, and all figures beside each other. */
export function DialBeside({ equal, way, calibration }: Shown) {
  return (
    <div className="space-y-5">
      <Scales {...{ equal, way }} />
      <div className="grid gap-3 sm:grid-cols-3">
        <Surface name="Planned" of={equal.planned} />
        <Surface name="Untouched" of={equal.asItIs} />
        <Surface name={WAY_NAMES[way.by]} of={way} />
      </div>
      <Figures {...{ equal, way, calibration }} />
    </div>
  );
}

const Surface = ({ name, of }: { name: string; of: Finish }) => <LightTube result={of} label={`${name}: ${textureWords(of.texture)}`} />;

const W = 400;
const ROW = 46;
const LEFT = 84;
const RIGHT = 16;
/** Each scale goes so many times down and up from what was planned. */
const REACH = 2.2;

/** Needle, distance and hand against those planned: an open ring where they were, a drop where they are set. */
function Scales({ equal, way }: { equal: EqualFinish; way: EqualWay }) {
  const units = useUnits();
  const x = useMemo(
    () =>
      scaleLog()
        .domain([1 / REACH, REACH])
        .range([LEFT, W - RIGHT])
        .clamp(true),
    [],
  );
  const rows = [
    { name: "Needle", of: (f: Finish) => f.settings.turns ?? f.settings.fluidRate_m3_s, text: FIGURES[0].of },
    { name: "Distance", of: (f: Finish) => f.settings.distance_m, text: FIGURES[1].of },
    { name: "Hand", of: (f: Finish) => f.settings.handSpeed_m_s, text: FIGURES[2].of },
  ];
  const told = rows.map((r) => `${r.name} ${r.text(way, units)}, planned ${r.text(equal.planned, units)}`).join("; ");
  return (
    <svg
      viewBox={`0 0 ${W} ${rows.length * ROW}`}
      className="block h-auto w-full max-w-[440px]"
      role="img"
      aria-label={told}
      data-testid="dial-scales"
    >
      {rows.map((r, i) => {
        const y = i * ROW + ROW * 0.66;
        const [planned, now] = [x(1), x(r.of(way) / r.of(equal.planned))];
        return (
          <g key={r.name}>
            <text x={0} y={y + 5} fontSize={15} fontWeight={600} fill="var(--ink)">
              {r.name}
            </text>
            <path d={`M${LEFT},${y}H${W - RIGHT}`} stroke="var(--edge)" strokeWidth={1.5} />
            {[0.5, 0.7, 1.4, 2].map((m) => (
              <path key={m} d={`M${x(m)},${y - 4}v8`} stroke="var(--edge)" strokeWidth={1.5} />
            ))}
            <path d={`M${planned},${y}H${now}`} stroke="var(--glow-ink)" strokeWidth={4} />
            <circle cx={planned} cy={y} r={7} fill="var(--paper)" stroke="var(--ink2)" strokeWidth={2} />
            <circle cx={now} cy={y} r={6} fill="var(--glow-ink)" />
            <text x={now} y={y - 14} fontSize={15} fontWeight={600} textAnchor="middle" fill="var(--ink)">
              {r.text(way, units)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** All figures beside each other. */
function Figures({ equal, way, calibration }: Shown) {
  const units = useUnits();
  const columns = [
    { name: "Planned", of: equal.planned },
    { name: "Untouched", of: equal.asItIs },
    ...equal.ways.map((w) => ({ name: WAY_NAMES[w.by], of: w })),
  ];
  return (
    <ScrollRegion label="Settings and how they come out">
      <table className="w-full min-w-[400px] text-left text-[14px] [&_td]:py-1.5 [&_td]:pr-1" data-testid="dial-figures">
        <thead className="small-label border-b border-hair">
          <tr>
            <th className="py-2">
              <span className="sr-only">Figure</span>
            </th>
            {columns.map((c) => (
              <th key={c.name}>{c.name}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {FIGURES.map((f) => (
            <tr key={f.name} className="border-b border-hair">
              <th scope="row" className="py-1.5 pr-3 font-normal text-ink2">
                {f.name}
              </th>
              {columns.map((c) => (
                <td key={c.name} className={c.of === way ? "font-semibold" : ""}>
                  {f.of(c.of, units, calibration)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollRegion>
  );
}
