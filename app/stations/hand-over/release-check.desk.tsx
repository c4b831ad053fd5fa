import { capital } from "~/kit/words/capital";
import { useMemo } from "react";
import { Link, useFetcher } from "react-router";
import type { ReleaseCheck, ReleasePoint } from "#core/judge/release-check";
import { EYE_COLOURS, EYE_LIGHTS, OUTCOMES, type Outcome } from "#core/record/kinds";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { later, useLater } from "~/kit/root/later";
import { useUnits } from "~/kit/root/use-root";
import { useNow } from "~/kit/shell/now";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { Tag } from "~/kit/ui/tag";
import { POINT_NAMES, POINT_TAGS, releaseSentence, pointWords } from "./release-check.words";

/** Where a point is looked at. */
const PATHS: Record<ReleasePoint["what"], string | null> = {
  coats: "/course",
  cured: "/spray/cure",
  film: "/inspect",
  faults: "/inspect/defects",
  texture: "/inspect/reflection",
  gloss: "/plan/gloss?of=part",
  colour: null,
  coverage: null,
};

/** The verdict as the page came with it. */
export interface OutReckoned {
  at_ms: number;
  out: ReleaseCheck;
  others_GU: readonly number[];
}
const models = later(() => import("./release-check-at"));
/** The angle that briefs and cards are in. */
const MATTE_ANGLE = 60;
/** Cure goes by minutes. */
const MINUTE_MS = 60_000;

/** Does it go out? The verdict with what is done about it, every point with its word; what came of the coats, and colour and coverage by eye, told here. */
export function ReleaseDesk({ reckoned, children }: { reckoned: OutReckoned; children?: React.ReactNode }) {
  const { view, base } = usePanel();
  const units = useUnits();
  const now_ms = Math.floor(useNow() / MINUTE_MS) * MINUTE_MS;
  const part = useLater(models, now_ms > reckoned.at_ms, true);
  const out = useMemo(() => part?.releaseCheckAt(view, reckoned.others_GU, now_ms) ?? reckoned.out, [part, view, reckoned, now_ms]);
  const sentence = releaseSentence(out);
  const tone = { goes: "text-glow-ink", look: "text-amber-ink", stays: "text-stop-ink", "not known": "text-ink2" }[out.verdict];
  return (
    <section aria-labelledby="out-title" className="no-print mb-8" data-testid="release-check" data-verdict={out.verdict}>
      <h2 id="out-title" className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight" aria-live="polite">
        <em className={`not-italic ${tone}`}>{sentence.main}</em> {sentence.rest}
      </h2>
      {children}
      <ul className="mt-4 border-t border-hair" aria-label="What is looked at" data-figures>
        {out.points.map((p) => {
          const path = PATHS[p.what];
          return (
            <li
              key={p.what}
              className="grid grid-cols-[1fr_auto] items-center gap-x-4 border-b border-hair py-1.5 sm:grid-cols-[7rem_1fr_auto]"
              data-point={p.what}
              data-state={p.state}
            >
              <b className="font-semibold">{POINT_NAMES[p.what]}</b>
              <span className="col-span-2 row-start-2 text-ink2 sm:col-span-1 sm:col-start-2 sm:row-start-1">{pointWords(p, units)}</span>
              <span className="flex items-center gap-2 sm:col-start-3">
                <Tag kind={POINT_TAGS[p.state].tag}>{POINT_TAGS[p.state].word}</Tag>
                {p.state !== "good" && path && (
                  <Link to={`${base}${path}`} className="press" data-kind="quiet">
                    Go there<span className="sr-only">: {POINT_NAMES[p.what]}</span>
                  </Link>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      <div className="mt-4 grid gap-x-10 gap-y-5 md:grid-cols-[1.2fr_1fr]">
        <ByEye />
        <CameOut />
        {view.job.finish === "matte" && <GlossOfPart />}
      </div>
    </section>
  );
}

/** Colour and coverage by the painter's eye, in a named light. */
function ByEye() {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const last = view.state.eye;
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  // Nothing is said before somebody says it.
  const options = (of: Record<string, string>, unsaid = true) =>
    Object.entries({ ...(unsaid ? { "": "not looked yet" } : {}), ...of }).map(([id, name]) => (
      <option key={id} value={id}>
        {name}
      </option>
    ));
  return (
    <div>
      <h3 className="mb-2 text-lg font-semibold">By eye, beside the neighbour</h3>
      <KeptForm fetcher={fetcher} place="eye" key={last?.id ?? ""} className="flex flex-wrap items-end gap-3">
        <input type="hidden" name="intent" value="eye" />
        <SelectField label="Colour" name="colour" defaultValue={last?.body.colour ?? ""} errors={errors.colour}>
          {options(EYE_COLOURS)}
        </SelectField>
        <SelectField label="Coverage" name="covered" defaultValue={last ? (last.body.covered ? "yes" : "no") : ""} errors={errors.covered}>
          {options({ yes: "covered", no: "not covered" })}
        </SelectField>
        <SelectField label="In" name="light" defaultValue={last?.body.light ?? "daylight"} errors={errors.light}>
          {options(EYE_LIGHTS, false)}
        </SelectField>
        <button className="press" disabled={fetcher.state !== "idle"}>
          Note it
        </button>
        {last && <StrikeButton entryId={last.id} what="what was seen by eye" />}
      </KeptForm>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </div>
  );
}

/** What the meter says of the part that goes out, several readings in a line. */
function GlossOfPart() {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const { errors = {}, message, ok, done } = fetcher.data ?? {};
  return (
    <div>
      <h3 className="mb-2 text-lg font-semibold">Gloss of the part</h3>
      <KeptForm fetcher={fetcher} place="gloss out" key={done} className="flex flex-wrap items-end gap-3">
        <input type="hidden" name="intent" value="gloss" />
        <input type="hidden" name="role" value="part" />
        <input type="hidden" name="angle" value={MATTE_ANGLE} />
        <input type="hidden" name="formKey" value={`${view.formKey}-gloss-${done ?? ""}`} />
        <Field
          className="max-w-64 flex-1"
          label={`At ${MATTE_ANGLE}°`}
          unit="GU, spaces between"
          name="readings"
          errors={errors.readings}
        />
        <button className="press" disabled={fetcher.state !== "idle"}>
          Keep it
        </button>
      </KeptForm>
      <FieldErrors errors={ok === false && message ? [message] : undefined} />
    </div>
  );
}

/** One tap: what came of the coats. */
function CameOut() {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const told = view.state.outcome;
  if (view.state.coats.length === 0) return null;
  return (
    <div>
      <h3 className="mb-2 text-lg font-semibold">How did the coats come out?</h3>
      <div className="flex flex-wrap items-center gap-2" role="group" aria-label="How did the coats come out?">
        {(Object.keys(OUTCOMES) as Outcome[]).map((result) => (
          <button
            key={result}
            type="button"
            className="press"
            aria-pressed={told?.body.result === result}
            {...(told?.body.result === result ? { "data-kind": "main" } : {})}
            disabled={fetcher.state !== "idle"}
            onClick={() => void fetcher.submit({ intent: "outcome", result }, { method: "post" })}
          >
            {capital(OUTCOMES[result])}
          </button>
        ))}
        {told && <StrikeButton entryId={told.id} what="how it came out" />}
      </div>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </div>
  );
}
