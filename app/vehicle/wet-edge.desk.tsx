import { Suspense, lazy, useMemo, useState } from "react";
import { type FetcherWithComponents, Link, useFetcher } from "react-router";
import { showSpan } from "#core/kernel/units/format";
import { shadesOf } from "#core/models/colour/job-colours";
import { type Go, USUAL_ROUND, type Round, goesOf, isOfGo, partOfRound, walkAsked } from "#core/vehicle/round-walk";
import { MOST_PARTS, type Walk, walkIn } from "#core/vehicle/walk";
import { inRange } from "#core/kernel/guard";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { type Run, useRun } from "~/kit/run/use-run";
import { PageHeader } from "~/kit/shell/page-header";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { Toggle } from "~/kit/ui/toggle";
import { WorkingButton } from "~/kit/ui/figure";
import { More } from "~/kit/ui/more";
import { counted } from "~/kit/words/when";
import type { Route } from "./+types/wet-edge.route";
import { handTexts, readHand } from "./wet-edge.form";
import { GO_WORDS, MEETS, amidst, borderName, dryAt, goName, inGoes, isDry, walkWords, walkWorking } from "./wet-edge.words";

/** Drawn with the page, fetched after it. */
const RoundMap = lazy(() => import("./round-map").then((m) => ({ default: m.RoundMap })));
const OrderList = lazy(() => import("./order-list").then((m) => ({ default: m.OrderList })));

/** In which order the next coats of a job's panels go on, so that every border is met while it is open. */
export function WetEdgeDesk({ loaderData: { job, round, unplaced, version, places } }: Pick<Route.ComponentProps, "loaderData">) {
  const goes = goesOf(round);
  const [chosen, setGo] = useState<Go | null>(null);
  const go = goes.find((g) => g === chosen) ?? goes[0];
  const fetcher = useFetcher<FormAnswer>(); // outlives the parts it was asked about: what it refused is still said when they have changed
  return (
    <>
      <PageHeader title={job.vehicle} note="Wet edge: round the vehicle in one go" />
      <main className="px-4 py-6 sm:px-6">
        {goes.length > 1 && (
          <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
            <Toggle
              label="Sprayed in one go"
              options={goes.map((g) => ({ value: g, name: goName(g, { round, shades: shadesOf(job) }) }))}
              value={go}
              onChange={(g) => setGo(g as Go)}
            />
            <p className="text-[14px] text-ink2">{GO_WORDS[go]}</p>
          </div>
        )}
        <Going {...{ job, round, unplaced, version, places, fetcher, go }} all={inGoes(round, goes)} />
      </main>
    </>
  );
}

type View = Route.ComponentProps["loaderData"];

function NothingToWalk({ job, round }: Pick<View, "job" | "round">) {
  return (
    <>
      <h2 className="max-w-[26em] text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]">
        {round.parts.length === 0
          ? "No panel of this job waits for a coat over the whole of it."
          : "One panel alone has no border to meet."}
      </h2>
      <p className="mt-3">
        <Link to={`/jobs/${job.id}/vehicle`} className="press" data-kind="main">
          Add parts of the vehicle
        </Link>
      </p>
    </>
  );
}

/** What of a round is sprayed in one go. */
function Going({ round, places, ...view }: WalkingProps) {
  const { go } = view;
  const going = useMemo(() => partOfRound(round, (part) => isOfGo(part, go)), [round, go]);
  if (going.parts.length < 2) return <NothingToWalk job={view.job} round={going} />;
  return (
    <Walking
      key={`${go} ${going.parts.map((p) => p.id).join()}`}
      {...view}
      round={going}
      places={going.parts.map(({ id }) => places[round.parts.findIndex((p) => p.id === id)])}
    />
  );
}

interface WalkingProps extends View {
  fetcher: FetcherWithComponents<FormAnswer>;
  go: Go;
  /** Every panel that goes round, by its id, go by go. */
  all: readonly string[];
}

function Walking({ job, go, all, round, unplaced, version, places, fetcher }: WalkingProps) {
  const units = useUnits();
  const draft = useDraft(
    go === "all" ? "walk" : `walk ${go}`,
    { ...handTexts(USUAL_ROUND, units), starts: "", order: round.parts.map((p) => p.id) },
    { cup: "volume" },
    version,
  );
  const { order, hand, errors } = useWalk(draft.typed, round);
  const walk = useMemo(() => inRange(() => walkIn(walkAsked(round, hand), order)), [round, hand, order]);
  const starts = round.parts.findIndex((p) => p.id === draft.typed.starts);
  const few = round.parts.length <= MOST_PARTS;
  const best = useRun(
    "booth",
    "bestWalk",
    few && !errors ? { asked: walkAsked(round, hand), slow: walkAsked(round, hand, true), starts: starts < 0 ? null : starts } : null,
  );
  if (!walk) return null;
  const setOrder = (next: readonly number[]) =>
    draft.set(
      "order",
      next.map((p) => round.parts[p]!.id),
    );
  const field = (name: "cup" | "refill" | "between", label: string, unit: string) => (
    <Field label={label} unit={unit} {...draft.field(name)} errors={errors?.[name]} />
  );
  return (
    <>
      <Heading {...{ round, walk }} />
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[1fr_1.1fr]">
        <DraftForm draft={draft} fetcher={fetcher} className="space-y-4">
          <input type="hidden" name="intent" value="order" />
          {amidst(
            all,
            order.map((p) => round.parts[p]!.id),
          ).map((id) => (
            <input key={id} type="hidden" name="panel" value={id} />
          ))}
          <BestOrder {...{ round, walk, best, few, setOrder }} />
          <Suspense>
            <OrderList round={round} walk={walk} onOrder={setOrder} />
          </Suspense>
          <button className="press" disabled={fetcher.state !== "idle"}>
            Spray in this order
          </button>
          <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
          <div className="grid grid-cols-2 gap-3">
            {field("cup", "Cup holds", units.volume)}
            {field("refill", "Filling it", "min")}
            {field("between", "Part to part", "min")}
            <SelectField label="Begin with" name="starts" value={draft.typed.starts} onChange={(e) => draft.set("starts", e.target.value)}>
              <option value="">whichever is best</option>
              {round.parts.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </SelectField>
          </div>
        </DraftForm>
        <div className="space-y-6">
          <Suspense>
            <RoundMap {...{ round, walk, places }} />
          </Suspense>
          {unplaced > 0 && (
            <p className="flex flex-wrap items-center gap-3">
              {counted(unplaced, "panel lies", "panels lie")} nowhere on the vehicle: its borders are not known.
              <Link to={`/jobs/${job.id}/vehicle`} className="press">
                Say where
              </Link>
            </p>
          )}
          <Borders {...{ round, walk }} />
          {best.result && <Otherwise {...{ round, best: best.result }} />}
        </div>
      </div>
    </>
  );
}

/** The walk as it is typed and ordered; what is wrong with the fields stands beside them, and the usual hand walks on. */
function useWalk(typed: ReturnType<typeof handTexts> & { order: readonly string[] }, round: Round) {
  const units = useUnits();
  const parsed = useMemo(() => readHand(typed, units), [typed, units]);
  const order = useMemo(() => {
    const known = typed.order.map((id) => round.parts.findIndex((p) => p.id === id)).filter((p) => p >= 0);
    return [...known, ...round.parts.map((_, p) => p).filter((p) => !known.includes(p))];
  }, [typed.order, round]);
  return { order, hand: parsed.success ? parsed.data : USUAL_ROUND, errors: parsed.success ? null : parsed.errors };
}

/** How this order comes out, in a sentence. */
function Heading({ round, walk }: { round: Round; walk: Walk }) {
  const units = useUnits();
  const dry = walk.borders.filter(isDry);
  const fills = walk.refills.reduce((n, r) => n + r.times, 0);
  return (
    <div aria-live="polite" data-testid="walk-sentence" data-dry={dry.length}>
      <h2 className="max-w-[26em] text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]">
        {counted(round.parts.length, "part", "parts")} in {showSpan(walk.total_s)} min
        {fills > 0 ? `, the cup filled ${fills === 1 ? "once" : `${fills} times`} on the way` : ""}.{" "}
        {walk.late > 0 && <em className="text-stop-ink not-italic">A shut comes after its part is wet: nobody opens it then. </em>}
        {round.parts.every((p) => p.shut) ? (
          <em className="text-glow-ink not-italic">None of them meets another.</em>
        ) : round.borders.length === 0 ? (
          <em className="text-amber-ink not-italic">No border between them is known.</em>
        ) : dry.length === 0 ? (
          <em className="text-glow-ink not-italic">Every border is met wet.</em>
        ) : (
          <em className="text-stop-ink not-italic">
            {dry.length === 1 ? `${borderName(round, dry[0]!)} is dry by then.` : `${dry.length} borders are dry by then.`}
          </em>
        )}
      </h2>
      <WorkingButton working={walkWorking(round, walk, units)} label="Show the working of the wet edge">
        <span className="font-semibold">How this was worked out</span>
      </WorkingButton>
    </div>
  );
}

interface BestOrderProps {
  round: Round;
  walk: Walk;
  best: Run<"bestWalk">;
  few: boolean;
  setOrder: (order: readonly number[]) => void;
}

/** The best of all orders, one tap away. */
function BestOrder({ walk, best, few, setOrder }: BestOrderProps) {
  if (!few) return <p className="text-ink2">Of more than {MOST_PARTS} parts at once no best order is worked out: spray in two goes.</p>;
  const found = best.result?.walk;
  const same = found && found.order.every((p, i) => p === walk.order[i]);
  return (
    <div className="flex min-h-11 flex-wrap items-center gap-3">
      <button type="button" className="press" data-kind="main" disabled={!found || same} onClick={() => found && setOrder(found.order)}>
        {same ? "This is the best order" : "Take the best order"}
      </button>
      <p className="text-ink2" role="status">
        {best.fault ?? (found ? (same ? "" : walkWords(found)) : "Trying all orders.")}
      </p>
    </div>
  );
}

/** Each border with its age. */
function Borders({ round, walk }: { round: Round; walk: Walk }) {
  if (walk.borders.length === 0) return null;
  return (
    <More label={`All ${walk.borders.length} borders`}>
      <table className="w-full text-left text-[14px] [&_td]:py-1 [&_td]:pr-3" data-testid="borders">
        <thead className="small-label border-b border-hair">
          <tr>
            <th className="py-1">Border</th>
            <th>Old, min</th>
            <th>Open, min</th>
            <th>Met</th>
          </tr>
        </thead>
        <tbody>
          {[...walk.borders]
            .sort((a, b) => b.ratio - a.ratio)
            .map((b) => (
              <tr key={b.border} className="border-b border-hair">
                <td>
                  {borderName(round, b)}
                  <span className="block text-[13px] text-ink2">{MEETS[round.borders[b.border]!.meets]}</span>
                </td>
                <td>{showSpan(Math.max(0, b.age_s))}</td>
                <td>{showSpan(round.parts[b.first]!.open_s)}</td>
                <td className={isDry(b) ? "font-semibold text-stop-ink" : ""}>{isDry(b) ? "dry" : "wet"}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </More>
  );
}

/** What else there is where one hand and this hardener leave a border dry. */
function Otherwise({ round, best }: { round: Round; best: NonNullable<Run<"bestWalk">["result"]> }) {
  const { walk, two, slow } = best;
  const dry = walk.borders.some(isDry);
  const hands = two.hands.map((hand) => hand.map((p) => round.parts[p]!.name.toLowerCase()).join(", "));
  return (
    <section aria-labelledby="otherwise" data-testid="otherwise">
      <h3 id="otherwise" className="mb-1 text-lg font-semibold">
        {dry ? "One painter cannot keep all of it wet" : "With more time in hand"}
      </h3>
      <ul className="list-disc space-y-1 pl-5">
        <li>Slow hardener: {walkWords(slow)}.</li>
        <li>
          Two painters: {walkWords(two.walk)}
          {two.hands.length === 2 ? `; one ${hands[0]}; the other ${hands[1]}` : ", no better than one"}.
        </li>
        {dry && <li>Stop there and tape: {dryAt(round, walk)}.</li>}
      </ul>
    </section>
  );
}
