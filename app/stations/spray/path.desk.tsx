import { InProgress } from "~/kit/ui/in-progress";
import { Suspense, lazy, useMemo, useState } from "react";
import { type FetcherWithComponents, useFetcher } from "react-router";
import type { CoatsAsked } from "#core/coat/coats-ahead";
import type { PathSet } from "#core/coat/path-ahead";
import type { PathView } from "#core/coat/path-view";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { showFilm, showWithUncertainty } from "#core/kernel/units/format";
import { preferredUnit } from "#core/kernel/units/quantities";
import { DraftForm } from "~/kit/draft/draft-form";
import { type Draft, type Widened, useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { type Run, useRun } from "~/kit/run/use-run";
import { useTask } from "~/kit/run/use-task";
import { Field, FieldErrors } from "~/kit/ui/field";
import { Toggle } from "~/kit/ui/toggle";
import type { Route } from "./+types/path.route";
import { pathTexts, readPath } from "./path.form";
import { SprayTabs } from "./tabs";

/** Drawn with the page, fetched after it. */
const Picture = lazy(() => import("./path-picture").then((m) => ({ default: m.PathPicture })));

const TICKS = [
  { name: "even", label: "Last row as near its edge as the first", note: "the gaps drawn together until it fits" },
  { name: "staggered", label: "Every other coat between the rows", note: "ridges fall into troughs" },
  { name: "endsFirst", label: "Along both ends first", note: "where the rows turn" },
] as const;

/** The rows of the coats to come, drawn over the part before the gun is filled: film by place, least film, litres, minutes, and where it may run. */
export function PathDesk({ loaderData: { asked, now, version, formKey } }: Pick<Route.ComponentProps, "loaderData">) {
  const { view, base } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const start = useMemo(() => pathTexts(now, units), [now, units]);
  const draft = useDraft("path", start, { speed: "speed", first: "length", overrun: "length" }, version);
  const { parsed, set } = usePathSet(draft, now, start);
  const run = useRun("flow", "path", set && { asked, set });
  const path = run.result;
  const [coat, setCoat] = useState<number | null>(null);
  const shown = coat ?? path?.coats.at(-1)?.number ?? 1;
  const errors = parsed.success ? (fetcher.data?.ok === false ? fetcher.data.errors : {}) : parsed.errors;
  const field = (name: "overlap" | "speed" | "first" | "overrun", label: string, unit: string) => (
    <Field label={label} unit={unit} {...draft.field(name)} errors={errors[name]} />
  );
  const take = (next: PathSet) => {
    for (const [name, value] of Object.entries(pathTexts(next, units))) draft.set(name as keyof typeof start, value);
  };
  return (
    <>
      <SprayTabs base={base} />
      <Heading {...{ run, path }} />
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[1.35fr_1fr]">
        <div className="min-h-72">
          {path && set && (
            <Suspense>
              <Picture {...{ path, set, shown, take, setCoat }} />
            </Suspense>
          )}
        </div>
        <DraftForm draft={draft} fetcher={fetcher} className="space-y-4">
          <input type="hidden" name="intent" value="path" />
          <input type="hidden" name="formKey" value={`${formKey}-path`} />
          <input type="hidden" name="lie" value={draft.typed.lie} />
          {TICKS.map(({ name }) => (
            <input key={name} type="hidden" name={name} value={String(draft.typed[name])} />
          ))}
          <Best {...{ asked, set, take }} />
          <Toggle
            label="Rows"
            value={draft.typed.lie}
            onChange={(v) => draft.set("lie", v)}
            options={[
              { value: "across", name: "Rows across" },
              { value: "upright", name: "Up and down" },
            ]}
          />
          <div className="grid grid-cols-2 gap-3">
            {field("overlap", "Overlap", "%")}
            {field("speed", "Hand speed", preferredUnit("speed", units))}
            {field("first", "First row, from the edge", units.length)}
            {field("overrun", "Past the edge", units.length)}
          </div>
          <div className="space-y-1">
            {TICKS.map(({ name, label, note }) => (
              <label key={name} className="flex min-h-11 cursor-pointer items-center gap-3">
                <input
                  type="checkbox"
                  className="size-6 shrink-0"
                  checked={draft.typed[name]}
                  onChange={(e) => draft.set(name, e.target.checked)}
                />
                <span>
                  {label}
                  <span className="block text-[13px] text-ink2">{note}</span>
                </span>
              </label>
            ))}
          </div>
          <Take {...{ draft, fetcher, set, now, start }} />
        </DraftForm>
      </div>
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        A model of a flat part, set to common practice: no mist between parts, no returns, no curves. {view.product.sheet.name}: its sheet
        and a test panel decide.
      </p>
    </>
  );
}

type PathDraft = Draft<Widened<ReturnType<typeof pathTexts>>>;

/** What is typed, as a path; as long as nobody has touched it, the one that stands, with nothing rounded. */
function usePathSet(draft: PathDraft, now: PathSet, start: ReturnType<typeof pathTexts>) {
  const units = useUnits();
  return useMemo(() => {
    const parsed = readPath(draft.typed, units);
    const untouched = JSON.stringify(draft.typed) === JSON.stringify(start);
    return { parsed, set: untouched ? now : parsed.success ? parsed.data : null };
  }, [draft.typed, units, now, start]);
}

/** What the rows leave, in a sentence. */
function Heading({ run, path }: { run: Run<"path">; path: PathView | null }) {
  const { view } = usePanel();
  const units = useUnits();
  const doubt = path && path.mean_m * (path.u_middle_m / path.middle_m);
  const none = !run.busy && run.asked && !path;
  return (
    <div aria-live="polite" data-testid="path-sentence" data-busy={run.busy || !run.asked}>
      <h2 className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {run.fault ??
          (path ? (
            <>
              These rows leave {showWithUncertainty("film", path.mean_m, doubt!, units).text} {units.film},{" "}
              <em className="text-glow-ink not-italic">
                {showFilm(path.least.film_m, units).text} at the least: {placeInWords([path.least.x_m, path.least.y_m], view.panel.shape)}.
              </em>
            </>
          ) : none ? (
            "No coat to come goes over the whole part, or a setting lies beyond the model."
          ) : (
            "Spraying these rows."
          ))}
      </h2>
    </div>
  );
}

/** The best path: tried out in the worker; what is found fills the fields, and nothing is taken yet. */
function Best({ asked, set, take }: { asked: CoatsAsked; set: PathSet | null; take: (set: PathSet) => void }) {
  const task = useTask("booth", "bestPath");
  const [said, setSaid] = useState("");
  const [before, setBefore] = useState<PathSet | null>(null);
  const find = async () => {
    if (!set) return;
    setSaid("");
    const answer = await task.run(() => Promise.resolve({ asked, set }));
    if (answer.at === "failed") setSaid(answer.reason);
    if (answer.at === "stopped") setSaid("Stopped; nothing was changed.");
    if (answer.at !== "done") return;
    const best = answer.output;
    if (!best) setSaid("This cannot be worked out here.");
    else if (best.loss === best.lossBefore) setSaid(`None of ${best.tried} paths is better than this one.`);
    else {
      setBefore(set);
      take(best.set);
      setSaid(`The best of ${best.tried} tried; it is in the fields, not taken yet.`);
    }
  };
  return (
    <div className="space-y-2">
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="press" disabled={task.busy || !set} onClick={() => void find()}>
          Find the best path
        </button>
        {before && !task.busy && (
          <button
            type="button"
            className="press"
            data-kind="quiet"
            onClick={() => {
              take(before);
              setBefore(null);
              setSaid("");
            }}
          >
            As it was
          </button>
        )}
        {task.busy && <InProgress share={task.progress} label="Trying paths" stop="Stop" onStop={task.cancel} className="w-32" />}
      </div>
      <p className="min-h-6 text-[14px] text-ink2" role="status" data-testid="best-path">
        {said}
      </p>
    </div>
  );
}

/** The path is taken for the coats to come. */
function Take({
  fetcher,
  draft,
  set,
  now,
  start,
}: {
  fetcher: FetcherWithComponents<FormAnswer>;
  draft: PathDraft;
  set: PathSet | null;
  now: PathSet;
  start: ReturnType<typeof pathTexts>;
}) {
  const same = set === now && JSON.stringify(draft.typed) === JSON.stringify(start);
  return (
    <div>
      <button className="press min-h-12" data-kind="main" disabled={same || !set || fetcher.state !== "idle"}>
        {same ? "This is the path" : "Take this path"}
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </div>
  );
}
