import { Trash2 } from "lucide-react";
import { useEffect, useState, useSyncExternalStore } from "react";
import { showFilm, showSpan } from "#core/kernel/units/format";
import type { PlaceOnPanel } from "#core/models/panel-film/over-part";
import { CAUSES_OF, type Cause, MARK_KINDS, type Mark, type MarkKind } from "#core/practice/job/judged";
import { JOB_TOOLS, JOB_TOOL_IDS, type JobTool } from "#core/practice/job/sanding";
import { readQuantity } from "~/kit/form/read-typed";
import { preferredUnit } from "#core/kernel/units/quantities";
import { usePrefs, useUnits } from "~/kit/root/use-root";
import { StepperField } from "~/kit/ui/stepper-field";
import { Toggle } from "~/kit/ui/toggle";
import { lower } from "~/kit/words/capital";
import type { BenchClient } from "./bench-client";
import { type HeldLight, type LookedAt, lightLook } from "./bench-look";
import { type Doing, JobStage, STROKE } from "./job-stage";
import { KIND_WORDS, causeWords, markName } from "./job.words";

/** So many spots are read at most, as a painter has patience for. */
const MOST_READINGS = 12;
const DOES = [
  { value: "read", name: "Read" },
  { value: "mark", name: "Mark" },
  { value: "sand", name: "Sand" },
] as const;

/** A panel that has gone hard: read with a simulated gauge, marked where it is at fault, sanded, handed over. What is true of it stays hidden until then. */
export function JobDesk({
  client,
  lookedAt,
  onHandOver,
}: {
  client: BenchClient;
  lookedAt: LookedAt;
  onHandOver: (said: { marks: Mark[]; least_m: number | null }) => void;
}) {
  const units = useUnits();
  const { job, setting } = client;
  const { nibs, readings, sanded_s } = useSyncExternalStore(job.subscribe, job.get, job.get);
  const [does, setDoes] = useState<Doing["do"]>("read");
  const [kind, setKind] = useState<MarkKind>("run");
  const [tool, setTool] = useState<JobTool>("block");
  const [marks, setMarks] = useState<Mark[]>([]);
  /** As it was typed, by its unit: never read in another. */
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [wrong, setWrong] = useState<string[]>();
  const [light, setLight] = useState<HeldLight>({ at: 0.3, upright: false });
  const { theme } = usePrefs();
  useEffect(() => {
    client.looks(lightLook(light, lookedAt));
  }, [client, light, lookedAt, theme]);
  const doing: Doing = does === "sand" ? { do: "sand", tool } : { do: does };
  const onPlace = (at: PlaceOnPanel) => {
    if (does === "sand") job.sands(tool, at, STROKE.seconds);
    else if (does === "mark") setMarks((all) => [...all, { ...at, kind, cause: kind === "nib" ? "dust" : null }]);
    else if (readings.length < MOST_READINGS) job.reads(at);
  };
  const filmUnit = preferredUnit("film", units);
  const least = typed[filmUnit] ?? "";
  const handOver = () => {
    const read = least.trim() === "" ? { si: null } : readQuantity("film", filmUnit, LEAST, least);
    setWrong("message" in read ? [read.message] : undefined);
    if ("si" in read) onHandOver({ marks, least_m: read.si });
  };
  return (
    <>
      <JobStage {...{ client, outline: setting.outline, doing, nibs, readings, marks, onPlace }} />
      <div className="space-y-4">
        <div>
          <div className="flex flex-wrap items-center gap-2">
            <span className="small-label flex-1">The light along the panel</span>
            <button className="press" aria-pressed={light.upright} onClick={() => setLight({ ...light, upright: !light.upright })}>
              {light.upright ? "It stands" : "It lies"}
            </button>
          </div>
          <input
            type="range"
            min={0}
            max={100}
            value={Math.round(100 * light.at)}
            onChange={(e) => setLight({ ...light, at: Number(e.target.value) / 100 })}
            aria-label="Where the light is held"
            aria-valuetext={`${Math.round(100 * light.at)} % ${light.upright ? "from the left" : "from the top"}`}
            className="film-slider h-11 w-full"
            style={{ "--share": `${100 * light.at}%` } as React.CSSProperties}
          />
        </div>
        <div>
          <Toggle label="What is done to it" value={does} onChange={(v) => setDoes(v as Doing["do"])} options={DOES} />
        </div>
        {does === "read" && (
          <>
            <p className="text-[14px] text-ink2">
              {readings.length} of {MOST_READINGS} spots read. The gauge is simulated and stands at zero on the base.
            </p>
            <StepperField
              label="At the thinnest"
              unit={filmUnit}
              by={showFilm(1e-6, units).unit === "µm" ? 1 : 0.1}
              name="least"
              value={least}
              onChange={(text) => setTyped((all) => ({ ...all, [filmUnit]: text }))}
              errors={wrong}
            />
          </>
        )}
        {does === "mark" && (
          <Toggle
            label="What is marked"
            value={kind}
            onChange={(v) => setKind(v as MarkKind)}
            options={MARK_KINDS.map((value) => ({ value, name: KIND_WORDS[value] }))}
          />
        )}
        {does === "sand" && (
          <>
            <Toggle
              label="What it is sanded with"
              value={tool}
              onChange={(v) => setTool(v as JobTool)}
              options={JOB_TOOL_IDS.map((value) => ({ value, name: JOB_TOOLS[value].name }))}
            />
            <p className="text-[14px] text-ink2">
              {sanded_s === 0 ? "Lead it over what stands out." : `${showSpan(sanded_s)} at it.`} Dust mask, and wet or with a vacuum.
            </p>
          </>
        )}
        <Marks {...{ marks, setMarks }} />
        <button className="press" data-kind="main" onClick={handOver}>
          Hand it over
        </button>
        {does !== "read" && wrong && <p className="text-[14px] text-stop-ink">At the thinnest: {wrong.map(lower).join(". ")}</p>}
      </div>
    </>
  );
}
const LEAST = { min: 0, max: 500e-6 } as const;

function Marks({ marks, setMarks }: { marks: readonly Mark[]; setMarks: React.Dispatch<React.SetStateAction<Mark[]>> }) {
  const name = (n: number, cause: Cause | null) => setMarks((all) => all.map((m, k) => (k === n ? { ...m, cause } : m)));
  return (
    <ul className="space-y-2" data-testid="marks">
      {marks.map((m, n) => (
        <li key={n} className="grid grid-cols-[1fr_auto] items-center gap-x-2 gap-y-1">
          <span className="text-[14px] font-semibold">{markName(m, n)}</span>
          <select
            className="field order-last col-span-2"
            aria-label={`${markName(m, n)}: it came of`}
            value={m.cause ?? ""}
            onChange={(e) => name(n, (e.target.value || null) as Cause | null)}
          >
            <option value="">came of?</option>
            {CAUSES_OF[m.kind].map((cause) => (
              <option key={cause} value={cause}>
                {causeWords(m.kind, cause)}
              </option>
            ))}
          </select>
          <button
            className="press !px-0"
            aria-label={`Take back ${markName(m, n)}`}
            onClick={() => setMarks((all) => all.filter((o) => o !== m))}
          >
            <Trash2 size={17} aria-hidden />
          </button>
        </li>
      ))}
    </ul>
  );
}
