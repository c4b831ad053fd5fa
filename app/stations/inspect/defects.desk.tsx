import { PhotoField } from "~/kit/photo/photo-field";
import { More } from "~/kit/ui/more";
import { DEFECTS, type DefectFacts } from "#core/models/defects/catalogue";
import { FAULTS, REMEDIES, waysFor } from "#core/models/defects/remedies";
import { isLookedOver } from "#core/panel/looked";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft, type Widened, type Draft } from "~/kit/draft/use-draft";
import { Link, useFetcher, type FetcherWithComponents } from "react-router";
import type { DefectKind } from "#core/record/kinds";
import { show, showFilm } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { PanelDrawing, type SpotMark } from "~/kit/panel/panel-drawing";
import { usePanel } from "~/kit/panel/use-panel";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { Toggle } from "~/kit/ui/toggle";
import { StrikeButton } from "~/kit/shell/strike-button";
import { type Drawn, type DrawnAs, middleOf, sizeOf, traceText, useTrace } from "./use-trace";
import { defectMarks } from "~/kit/panel/defect-marks";
import { MarkList } from "./mark-list";
import { DefectSign } from "~/kit/panel/defect-sign";
import { areaText } from "~/kit/words/area-text";
import type { PanelView } from "#server/views/panel-view";

const DRAWN_AS: { value: DrawnAs; name: string }[] = [
  { value: "point", name: "one place" },
  { value: "points", name: "several" },
  { value: "line", name: "a line" },
  { value: "area", name: "an area" },
];

/** "3 places", "320 mm long", "140 cm²". */
function drawnText(drawn: Drawn, units: UnitPreferences): string {
  const size = sizeOf(drawn);
  if (size?.area_m2) return areaText(size.area_m2, units);
  if (size) return `${show("length", size.length_m, units).text} ${units.length} long`;
  return drawn.as === "points" && drawn.points.length > 0 ? `${drawn.points.length} ${drawn.points.length === 1 ? "place" : "places"}` : "";
}

/** The ways that do something for it, best first. */
const mendedBy = (kind: DefectKind) =>
  waysFor(kind)
    .map((w) => REMEDIES[w].name.toLowerCase())
    .join("; ");

const KINDS = Object.keys(DEFECTS) as DefectKind[];

/** Nothing found is said, or nobody has looked. */
function LookedOver() {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const { lookedOver } = view.state;
  const said = lookedOver !== null && isLookedOver(view.state);
  return (
    <fetcher.Form method="post" className="mt-3 flex flex-wrap items-center gap-3">
      <input type="hidden" name="intent" value="lookedOver" />
      <input type="hidden" name="formKey" value={`${view.formKey}-looked`} />
      <button className="press" disabled={fetcher.state !== "idle" || said} aria-pressed={said}>
        {said ? "Looked over: nothing found" : "Looked over, nothing found"}
      </button>
      {said && <StrikeButton entryId={lookedOver.id} what="looked over, nothing found" />}
    </fetcher.Form>
  );
}

const NO_MARK = { kind: "run", measured: "judged", x: "", y: "", length: "", width: "", height: "", count: "", trace: "" };
type MarkDraft = Draft<Widened<typeof NO_MARK>>;

/** What is wrong with the panel: kind, place, size; how to tell it from what it is taken for. */
export function DefectsDesk() {
  const { view, base } = usePanel();
  const units = useUnits();
  const { panel, state } = view;
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.errors ?? {};
  const draft = useDraft("defect", NO_MARK, { x: "length", y: "length", length: "length", width: "length", height: "film" });
  const { typed } = draft;
  const kind = KINDS.find((k) => k === typed.kind) ?? "run";
  const facts = DEFECTS[kind];
  const { drawn, add, takeBack, drawAs } = useTrace(typed.trace, (trace) => draft.set("trace", trace));
  /** The fields follow what is drawn; what was typed into them before stays where the drawing says nothing. */
  const follow = (next: Drawn) => {
    const at = middleOf(next);
    const size = sizeOf(next);
    const text = (m: number | null | undefined, before: string) => (m === null || m === undefined ? before : initial("length", m, units));
    draft.set("x", text(at?.[0], typed.x));
    draft.set("y", text(at?.[1], typed.y));
    if (size) draft.set("length", text(size.length_m, typed.length));
    if (size) draft.set("width", text(size.width_m, typed.width));
  };
  const marks = defectMarks(state.defects, units);
  const spots = state.spots.map((s): SpotMark => ({
    name: s.name,
    at: s.at,
    text: s.clear ? showFilm(s.clear.clear_m, units).text : s.name,
    state: "read",
  }));
  const many = state.defects.reduce((a, d) => a + d.body.count, 0);
  return (
    <section aria-labelledby="defects-title">
      <h2 id="defects-title" className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {many === 0
          ? "What is wrong with it? Look along it with a moving light."
          : `${many} ${many === 1 ? "fault" : "faults"} on the panel.`}
      </h2>
      <p className="mt-1 text-ink2">Tap the place, or move the mark with the arrow keys and press Enter.</p>
      {many === 0 && <LookedOver />}
      {state.defects.length > 0 && (
        <p className="mt-3 flex flex-wrap gap-2">
          <Link to={`${base}/correct/causes`} className="press" data-kind="main">
            What caused it?
          </Link>
          <Link to={`${base}/correct/options`} className="press">
            What is the least to do?
          </Link>
        </p>
      )}
      <div className="mt-4 grid gap-x-8 gap-y-5 md:grid-cols-[1.3fr_1fr]">
        <div className="max-sm:[&_svg[role=application]]:max-h-[18dvh]">
          <PanelDrawing
            shape={panel.shape}
            spots={spots}
            defects={marks}
            onPlace={(at) => follow(add(at))}
            placed={drawn.as === "point" ? (drawn.points[0] ?? null) : null}
            drawing={drawn.as === "point" ? null : { as: drawn.as, at: drawn.points }}
            label={`${panel.name}: place a defect`}
          />
          <Marking {...{ drawn, drawAs, follow, takeBack }} />
          <FieldErrors errors={errors.trace} />
        </div>
        <div className="space-y-5">
          <MarkForm {...{ draft, fetcher, drawn, errors, facts }} />
          <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
          <KindFacts {...{ facts, kind }} />
          <MarkList />
        </div>
      </div>
    </section>
  );
}

/** How it is drawn. */
function Marking({
  drawn,
  drawAs,
  follow,
  takeBack,
}: {
  drawn: Drawn;
  drawAs: (as: DrawnAs) => Drawn;
  follow: (next: Drawn) => void;
  takeBack: () => Drawn;
}) {
  const units = useUnits();
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3">
      <Toggle
        label="Draw it as"
        value={drawn.as}
        onChange={(v) => drawAs(DRAWN_AS.find((d) => d.value === v)?.value ?? "point")}
        options={DRAWN_AS}
      />
      {drawn.as !== "point" && drawn.points.length > 0 && (
        <button type="button" className="press" onClick={() => follow(takeBack())}>
          Take the last place back
        </button>
      )}
      <span className="text-ink2" aria-live="polite">
        {drawnText(drawn, units)}
      </span>
    </div>
  );
}

/** What was seen, how large, with a picture. */
function MarkForm({
  draft,
  fetcher,
  drawn,
  errors,
  facts,
}: {
  draft: MarkDraft;
  fetcher: FetcherWithComponents<FormAnswer>;
  drawn: Drawn;
  errors: Record<string, string[]>;
  facts: DefectFacts;
}) {
  const { view } = usePanel();
  const units = useUnits();
  return (
    <DraftForm draft={draft} fetcher={fetcher} encType="multipart/form-data" className="grid grid-cols-2 gap-3">
      <input type="hidden" name="intent" value="defect" />
      <input type="hidden" name="formKey" value={`${view.formKey}-defect`} />
      <input type="hidden" name="trace" value={traceText(drawn)} />
      <SelectField label="Kind" {...draft.field("kind")}>
        {KINDS.map((k) => (
          <option key={k} value={k}>
            {DEFECTS[k].name}
          </option>
        ))}
      </SelectField>
      <SelectField label="Its size was" {...draft.field("measured")}>
        <option value="judged">Judged by eye</option>
        <option value="measured">Measured</option>
      </SelectField>
      <Field label="From the left" unit={units.length} {...draft.field("x")} errors={errors.x} />
      <Field label="From the top" unit={units.length} {...draft.field("y")} errors={errors.y} />
      <Field
        label={facts.sign === "ripple" ? "Peak to valley" : "Height"}
        unit={units.film}
        {...draft.field("height")}
        errors={errors.height}
      />
      <Field label={facts.reach === "point" ? "Across" : "Length"} unit={units.length} {...draft.field("length")} errors={errors.length} />
      <Field label="Width" unit={units.length} {...draft.field("width")} errors={errors.width} />
      <Field
        label="How many"
        {...draft.field("count")}
        inputMode="numeric"
        placeholder={drawn.as === "points" ? String(Math.max(1, drawn.points.length)) : "1"}
        errors={errors.count}
      />
      <div className="col-span-2">
        <PhotoField errors={errors.photos} />
      </div>
      <button className="press col-span-2" data-kind="main" disabled={fetcher.state !== "idle"}>
        Place it
      </button>
    </DraftForm>
  );
}

/** How a fault looks, and what tells it from others. */
function KindFacts({ facts, kind }: { facts: DefectFacts; kind: PanelView["state"]["heldAhead"][number]["kind"] }) {
  return (
    <dl className="mt-4 grid grid-cols-[56px_1fr] gap-x-4 border-t border-hair pt-3">
      <dt aria-hidden>
        <svg viewBox="-1.25 -1.25 2.5 2.5" className="h-14 w-14" stroke="var(--stop-ink)" strokeWidth="2">
          <DefectSign sign={facts.sign} r={1} />
        </svg>
      </dt>
      <dd>
        <b className="font-semibold">{facts.name}.</b> {facts.look}.
        <More label="How to tell it, and what mends it">
          <span className="text-ink2">{facts.tell}.</span>
          <span className="mt-1 block text-[14px] text-ink2">
            At arm&rsquo;s length {FAULTS[kind].arm}; in the sun {FAULTS[kind].sun}. If ignored: {facts.ifIgnored.toLowerCase()}.
          </span>
          <span className="mt-1 block text-[14px] text-ink2" data-testid="mended-by">
            Measure: {facts.measure}. Mended by: {mendedBy(kind)}.
          </span>
        </More>
      </dd>
    </dl>
  );
}
