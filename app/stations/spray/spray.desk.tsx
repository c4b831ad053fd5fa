import { noGaugeReads } from "#core/panel/brief";
import { KeptForm } from "~/kit/draft/draft-form";
import { Link, useFetcher } from "react-router";
import { show, showWithUncertainty, showFilm, type Shown } from "#core/kernel/units/format";
import { COAT_ZONES } from "#core/models/ways/terms";
import { nextAsked } from "#core/coat/asked";
import { nextCoat, type NextCoat } from "#core/coat/next-coat";
import { sprayedNow } from "#core/coat/setting";
import { holdsAt } from "#core/course/step-hold";
import { clearNow, type ClearNow } from "#core/judge/how-known";
import { StepHolds } from "~/kit/panel/step-holds";
import { StripLater } from "~/kit/readings/strip-later";
import { useNow } from "~/kit/shell/now";
import { useUnits } from "~/kit/root/use-root";
import { CoatForm } from "./coat-form";
import { ClimatePanel } from "./climate-panel";
import { SprayTabs } from "./tabs";
import { later, useLater } from "~/kit/root/later";
import { Field, FieldErrors } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { PutRightLink, StrikeButton } from "~/kit/shell/strike-button";
import { coatWorking } from "~/kit/words/spray-workings";
import { actionWords } from "~/kit/words/step-words";
import { HOW_WORDS } from "~/kit/words/how-words";
import { usePanel } from "~/kit/panel/use-panel";
import type { FormAnswer } from "~/kit/form/answer";
import type { CoatState } from "#core/panel/builds";

export function SprayDesk() {
  const { view, base } = usePanel();
  const units = useUnits();
  const { state, panel, product } = view;
  const { action } = view.standing;
  const now_ms = useNow();
  const done = state.coats.length;
  const last = state.coats.at(-1);
  const next = nextCoat(nextAsked(view));
  const both = panel.sides === 2;
  const blind = noGaugeReads(panel.substrate);
  const face = both ? `, ${next.side}` : "";
  const clear = clearNow(state);
  const there = clear && showWithUncertainty("film", clear.clear_m, clear.u_m, units);
  const range = [product.sheet.filmPerCoatMin_m, product.sheet.filmPerCoatMax_m].map((m) => show("film", m, units));
  return (
    <>
      <SprayTabs base={base} />
      <Heading {...{ blind, next, there, clear }} />
      <div className="mt-6 grid gap-x-10 gap-y-8 xl:grid-cols-[1.35fr_1fr]">
        <section aria-labelledby="coat-title">
          <h3 id="coat-title" className="mb-3 text-lg font-semibold">
            {next.number <= panel.coatsPlanned ? `Coat ${next.number}${face}, ${next.role}` : `One coat more (coat ${next.number})`}
          </h3>
          {action?.kind === "coat" && <StepHolds holds={holdsAt(action.holds, now_ms)} now_ms={now_ms} />}
          <CoatForm
            key={`coat-${state.backCoats.length + done} ${state.gunSet?.id ?? ""}`}
            next={next}
            sheet={product.sheet}
            sprayed={sprayedNow(state, product.sheet)}
            formKey={`${view.formKey}-coat`}
          />
        </section>
        <div className="space-y-8">
          {last && <LastCoat {...{ last, range }} />}
          <Sprayed {...{ both }} />
          <ClimatePanel action={`${base}/spray`} />
          <Mix />
        </div>
      </div>
      {(done === 0 || !state.hasBefore || blind) && (
        <section className="mt-10" aria-labelledby="before-title">
          <h3 id="before-title" className="text-lg font-semibold">
            {blind ? "Readings" : "Readings before clear"}
          </h3>
          {done > 0 && !blind && (
            <p className="mt-1 max-w-[60ch] text-amber-ink">
              Clear is on: a reading taken now is not a before-reading. Enter only what was written down before coat 1.
            </p>
          )}
          {blind ? <StripLater /> : <BeforeReadings />}
        </section>
      )}
    </>
  );
}

/** What is next, and how much is there. */
function Heading({ blind, next, there, clear }: { blind: boolean; next: NextCoat; there: Shown | null; clear: ClearNow | null }) {
  const { view, base } = usePanel();
  const { state, panel } = view;
  const { action } = view.standing;
  const now_ms = useNow();
  const done = state.coats.length;
  return (
    <h2 className="max-w-[24em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
      {action?.layer ? (
        <>
          {actionWords(view.standing, now_ms)}.{" "}
          <em className="text-amber-ink not-italic">
            It goes on below the clear:{" "}
            <Link to={`${base}/spray/below`} className="underline underline-offset-4">
              log it there
            </Link>
            .
          </em>
        </>
      ) : done === 0 ? (
        <>
          {state.hasBefore || blind ? "Ready for coat 1." : "First the film below the clear."}{" "}
          <em className="text-glow-ink not-italic">
            {state.hasBefore || blind
              ? `${panel.coatsPlanned} coats planned, ${next.role} first.`
              : "After clear the gauge cannot tell the layers apart."}
          </em>
        </>
      ) : (
        <>
          <em className="text-glow-ink not-italic">
            {there?.text} {there?.unit}
          </em>{" "}
          of clear after {done} of {panel.coatsPlanned} coats, {HOW_WORDS[clear?.how ?? "predicted"]}.
        </>
      )}
    </h2>
  );
}

/** What the last coat laid. */
function LastCoat({ last, range }: { last: CoatState; range: Shown[] }) {
  const units = useUnits();
  return (
    <section aria-label="Last coat" className="space-y-2">
      <Figure
        label={`wet, coat ${last.entry.body.number}`}
        shown={showFilm(last.predicted.wet_m, units)}
        note={
          last.entry.body.wetReading_m === null
            ? "predicted as it lands"
            : `wet comb said ${show("film", last.entry.body.wetReading_m, units).text} ${units.film}`
        }
        working={coatWorking(last.entry.body.settings, last.predicted, last.entry.body.reducer, units)}
        size="middle"
      />
      <p className="text-sm text-ink2">
        The sheet wants {range[0]!.text} to {range[1]!.text} {range[1]!.unit} dry a coat.
      </p>
    </section>
  );
}

/** The coats that are on. */
function Sprayed({ both }: { both: boolean }) {
  const { view, base } = usePanel();
  const units = useUnits();
  const { state } = view;
  return (
    <ol aria-label="Coats sprayed" className="border-t border-hair empty:hidden">
      {[...state.backCoats, ...state.coats].map(({ entry, predicted }) => {
        const d = showWithUncertainty("film", predicted.dry_m, predicted.u_dry_m, units);
        return (
          <li key={entry.id} className="flex items-center justify-between gap-2 border-b border-hair">
            <span>
              <b className="font-semibold">Coat {entry.body.number}</b>
              {both && `, ${entry.body.side},`} {entry.body.role}
              {entry.body.zone !== "whole" && <span className="text-ink2">, {COAT_ZONES[entry.body.zone]}</span>}
              {entry.body.settings.fluidFrom === "turns" && <span className="text-[13px] text-ink2">, fluid guessed from turns</span>}
            </span>
            <span className="flex items-center">
              {d.text} {d.unit} dry
              <PutRightLink base={base} entryId={entry.id} what={`coat ${entry.body.number}`} from="spray" />
              <StrikeButton entryId={entry.id} what={`coat ${entry.body.number}`} />
            </span>
          </li>
        );
      })}
    </ol>
  );
}

const readingDesk = later(() => import("~/kit/readings/reading-desk"));

/** Read once, before the first coat: fetched after the coat's own form. */
function BeforeReadings() {
  const part = useLater(readingDesk, true);
  return <div className="min-h-[420px]">{part && <part.ReadingDesk phase="before" />}</div>;
}

function Mix() {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.errors ?? {};
  return (
    <section aria-label="Mix">
      <KeptForm fetcher={fetcher} place="mix" className="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <input type="hidden" name="intent" value="mix" />
        <Field label="Mixed" unit={units.volume} name="volume" errors={errors.volume} />
        <Field label="Reducer" unit="%" name="reducer" defaultValue="0" errors={errors.reducer} />
        <button className="press col-span-2 self-start sm:mt-[23px]">Start pot clock</button>
      </KeptForm>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </section>
  );
}
