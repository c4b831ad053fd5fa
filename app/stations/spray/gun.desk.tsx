import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft, type Widened, type Draft } from "~/kit/draft/use-draft";
import { useMemo } from "react";
import { useFetcher, type FetcherWithComponents } from "react-router";
import type { Gun } from "#server/repos/gun-repo";
import type { GunBody } from "#core/models/spray/gun";
import {
  type GunCurve,
  PATTERN_CHECKS,
  SETUP_SCHOOLS,
  type SetupSchool,
  fitGunCurve,
  gunFlow,
  setupTurns,
} from "#core/models/spray/gun-curve";
import { show, showWithUncertainty, type Shown } from "#core/kernel/units/format";
import { preferredUnit } from "#core/kernel/units/quantities";
import type { FormAnswer } from "~/kit/form/answer";
import { gunTexts, readGun } from "./gun.form";
import { useUnits } from "~/kit/root/use-root";
import { Choices } from "~/kit/ui/toggle";
import { Field, FieldErrors } from "~/kit/ui/field";
import { WorkingButton } from "~/kit/ui/figure";
import { gunWorking } from "./gun.words";
import { CupTable } from "./cup-table";
import { FlowCurve } from "./flow-curve";
import { HandSpeed } from "./hand-speed";
import { RipplePicture } from "./ripple-picture";

/** One gun: its needle by timed cups, its fan, the hand's speed, and what the pattern on paper must look like. */
export function GunDesk({ gun, start, formKey }: { gun: Gun | null; start: GunBody; formKey: string }) {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const { worked, draft, errors, body, cups } = useGun({ gun, start, fetcher });
  const flow = worked && showWithUncertainty("fluidRate", worked.flow.fluidRate_m3_s, worked.flow.u_m3_s, units);
  const set = draft.set;
  const field = (name: keyof typeof draft.typed, label: string, unit?: string) => (
    <Field label={label} {...(unit ? { unit } : {})} {...draft.field(name)} errors={errors[name]} />
  );
  const school = body
    ? (Object.keys(SETUP_SCHOOLS) as SetupSchool[]).find((s) => Math.abs(setupTurns(s, body.allTurns) - body.settings.turns) < 0.01)
    : undefined;
  return (
    <DraftForm draft={draft} fetcher={fetcher}>
      <input type="hidden" name="gunId" value={gun?.id ?? ""} />
      <input type="hidden" name="formKey" value={gun ? "" : `${formKey}-gun`} />
      <Heading {...{ body, flow, worked }} />
      <div className="mt-4 grid gap-x-10 gap-y-7 xl:grid-cols-[1.1fr_1fr]">
        <div className="space-y-6">
          <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-4">
            <div className="col-span-2">{field("name", "Gun")}</div>
            {field("nozzle", "Nozzle", "mm")}
            {field("allTurns", "All turns")}
            {field("turns", "Turns out")}
            {field("pressure", "Pressure", units.pressure)}
            {field("distance", "Distance", units.length)}
            {field("overlap", "Overlap", "%")}
            {field("speed", "Hand speed", preferredUnit("speed", units))}
            {field("fan", "Fan on paper", units.length)}
            {field("fanAt", "seen at", units.length)}
          </div>
          <Choices
            label="Set-up school"
            columns={2}
            value={school ?? ""}
            onChange={(s) => {
              const all = body?.allTurns ?? start.allTurns;
              set("turns", String(setupTurns(s as SetupSchool, all)));
            }}
            options={Object.entries(SETUP_SCHOOLS).map(([value, s]) => ({ value, name: s.name, note: s.how }))}
          />
          <div>
            <h3 className="mb-1 text-lg font-semibold">Timed cups</h3>
            <p className="mb-2 text-ink2">Air off, trigger full, into a marked cup. Two turns or more give the curve of this needle.</p>
            <CupTable cups={cups} onChange={(list) => set("cups", list)} errors={errors} />
          </div>
          <Keep {...{ fetcher, gun, body, worked }} />
          <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
        </div>
        <div className="space-y-6">
          {body && worked && <FlowCurve curve={worked.curve} cups={body.cups} turns={body.settings.turns} allTurns={body.allTurns} />}
          {body && <RipplePicture overlap={body.settings.overlap} />}
          <div>
            <h3 className="mb-1 text-lg font-semibold">Hand speed</h3>
            <HandSpeed speed_m_s={body?.settings.handSpeed_m_s ?? null} onSpeed={(text) => set("speed", text)} />
          </div>
          <PatternChecks {...{ draft }} />
        </div>
      </div>
    </DraftForm>
  );
}

/** The gun as it is typed: what is wrong with it, and what comes out of its needle. */
function useGun({ gun, start, fetcher }: { gun: Gun | null; start: GunBody; fetcher: FetcherWithComponents<FormAnswer> }) {
  const units = useUnits();
  const draft = useDraft(
    `gun ${gun?.id ?? "new"}`,
    gunTexts(start, units),
    {
      pressure: "pressure",
      distance: "length",
      speed: "speed",
      fan: "length",
      fanAt: "length",
      cups: { volume: "volume" },
    },
    gun ? String(gun.version) : undefined,
  );
  const { typed } = draft;
  const { checks, cups } = typed;
  const parsed = useMemo(
    () =>
      readGun(
        {
          ...typed,
          name: typed.name.trim() || "gun",
          checks: [...checks],
          cupTurns: cups.map((c) => c.turns),
          cupVolume: cups.map((c) => c.volume),
          cupTime: cups.map((c) => c.time),
        },
        units,
      ),
    [typed, checks, cups, units],
  );
  const live = parsed.success ? {} : parsed.errors;
  const errors = fetcher.data?.ok === false && fetcher.data.intent === "keep" ? { ...live, ...fetcher.data.errors } : live;
  const body = parsed.success ? parsed.data : null;
  const worked = useMemo(() => {
    if (!body) return null;
    const curve = body.cups.length > 0 ? fitGunCurve(body.cups) : null;
    return { curve, flow: gunFlow(curve, body.settings.turns, body.cups) };
  }, [body]);
  return { worked, draft, typed, errors, body, cups };
}

/** What the gun gives, in a sentence. */
function Heading({ body, flow, worked }: { body: GunBody | null; flow: Shown | null; worked: { curve: GunCurve | null } | null }) {
  return (
    <h2
      className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
      data-testid="gun-sentence"
    >
      {body && flow && worked ? (
        <>
          {body.settings.turns} turns give{" "}
          <em className="text-glow-ink not-italic">
            {flow.text} {flow.unit}
          </em>
          {worked.curve
            ? ` by ${body.cups.length} timed ${body.cups.length === 1 ? "cup" : "cups"}.`
            : ", a guess: ten seconds into a cup settle it."}
        </>
      ) : (
        "A figure is missing or wrong; it says where."
      )}
    </h2>
  );
}

/** Kept as a gun, or taken up for the coats to come. */
function Keep({
  fetcher,
  gun,
  body,
  worked,
}: {
  fetcher: FetcherWithComponents<FormAnswer>;
  gun: Gun | null;
  body: GunBody | null;
  worked: { curve: GunCurve | null; flow: { fluidRate_m3_s: number; u_m3_s: number; from: "measured" | "turns" } } | null;
}) {
  const units = useUnits();
  return (
    <div className="flex flex-wrap items-center gap-2">
      <button className="press" data-kind="main" name="intent" value="keep" disabled={fetcher.state !== "idle"}>
        {gun ? "Keep the changes" : "Keep this gun"}
      </button>
      {gun && (
        <button className="press" name="intent" value="use" disabled={fetcher.state !== "idle"}>
          Use for the next coat
        </button>
      )}
      {gun && (
        <button className="press" data-kind="quiet" name="intent" value="away" disabled={fetcher.state !== "idle"}>
          Put away
        </button>
      )}
      {body && worked && (
        <WorkingButton working={gunWorking(body, worked.curve, units)} label="Show the working of the fluid rate">
          <span className="font-semibold">How this was worked out</span>
        </WorkingButton>
      )}
    </div>
  );
}

/** What the pattern on paper shows. */
function PatternChecks({ draft }: { draft: Draft<Widened<ReturnType<typeof gunTexts>>> }) {
  const units = useUnits();
  const { typed } = draft;
  const { checks } = typed;
  const set = draft.set;
  return (
    <fieldset>
      <legend className="mb-1 text-lg font-semibold">Pattern on paper</legend>
      <ul className="border-t border-hair">
        {PATTERN_CHECKS.map((c) => (
          <li key={c.id} className="border-b border-hair">
            <label className="flex min-h-11 cursor-pointer items-center gap-3 py-1">
              <input
                type="checkbox"
                name="checks"
                value={c.id}
                checked={checks.includes(c.id)}
                onChange={(e) => set("checks", e.target.checked ? [...checks, c.id] : checks.filter((x) => x !== c.id))}
                className="size-6 shrink-0 accent-[var(--glow-ink)]"
              />
              <span>
                {c.what} <span className="block text-[13px] text-ink2">{c.why}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-[13px] text-ink2">
        {show("length", 0.175, units).text} is a usual distance; closer wants a faster hand, or it runs.
      </p>
    </fieldset>
  );
}
