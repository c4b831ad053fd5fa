import { outsideGauge } from "~/kit/form/film-readings";
import { useMemo } from "react";
import { useNavigation, useSubmit, type SubmitFunction } from "react-router";
import { UNMEASURED_REMOVAL, clearingPlan } from "#core/models/correction/clearing";
import { CORRECTION_SCHOOLS, correctionSchool, stepName } from "#core/models/correction/schools";
import type { FilmObservation } from "#core/models/film/film-field";
import { DEFAULT_TAPE_M } from "#core/judge/limits";
import { JUDGED_TEXTURE } from "#core/judge/texture";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { type PanelShape, SHAPES, SHAPE_KINDS, type ShapeKind, panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { parseQuantity } from "#core/kernel/units/parse";
import { SUBSTRATES, type Substrate } from "#core/panel/brief";
import { useDraft, type Widened, type Draft } from "~/kit/draft/use-draft";
import { useAssessment } from "~/kit/run/use-assessment";
import { useRoot, useUnits } from "~/kit/root/use-root";
import { useRegion } from "~/kit/words/use-region";
import { partName } from "~/kit/words/part-name";
import { shapeInRegion } from "~/kit/words/region";
import { PanelDrawing } from "~/kit/panel/panel-drawing";
import { VerdictFigures, VerdictHeading } from "~/kit/panel/verdict-panel";
import { SelectField } from "~/kit/ui/field";
import type { Point } from "#core/kernel/geometry/geometry";
import type { Region } from "#server/repos/shop-repo";
import type { RootData } from "~/kit/http/root-data.server";

const MOST_SPOTS = 60;
type Row = { before: string; after: string };

/** What is typed: the panel, the school, and readings spot by spot. */
type SandDraft = Draft<Widened<{ kind: string; substrate: string; schoolId: string; rows: { before: string; after: string }[] }>>;

/** Readings typed in a table, judged as they come; kept as a job when wanted. */
export function SandDesk({ productRevisionId, formKey }: { productRevisionId: string | null; formKey: string }) {
  const units = useUnits();
  const { shop } = useRoot();
  // A navigation, not a fetcher: the change it makes comes back over the event stream and would overtake a fetcher's redirect.
  const submit = useSubmit();
  const keeping = useNavigation().state !== "idle";
  const draft = useDraft(
    "sand",
    {
      kind: "bonnet",
      substrate: "unknown",
      schoolId: "short",
      rows: Array.from({ length: 6 }, () => ({ before: "", after: "" })),
    },
    { rows: { before: "film", after: "film" } },
  );
  const { rows } = draft.typed;
  const kind = draft.typed.kind as ShapeKind;
  const substrate = draft.typed.substrate as Substrate;
  const setRows = (change: (now: readonly Row[]) => readonly Row[]) => draft.set("rows", change);
  const { steps, removal, read, run, shape, places, after, region } = useSanding({ kind, readFilm, substrate, shop, draft });
  function readFilm(text: string) {
    const parsed = text.trim() === "" ? null : parseQuantity("film", text, units.film);
    if (!parsed) return { ok: false as const, message: null };
    const outside = parsed.ok ? outsideGauge(parsed.si, units) : null;
    return outside === null ? parsed : { ok: false as const, message: outside };
  }
  const change = (i: number, key: "before" | "after", value: string) =>
    setRows((list) => list.map((r, k) => (k === i ? { ...r, [key]: value } : r)));
  const named = steps.map((s, i) => ({ name: stepName(s), ...removal.steps[i]! }));
  const cell = (i: number, key: "before" | "after") => {
    const r = read[i]![key];
    const wrong = !r.ok && r.message !== null;
    return (
      <td className="p-1">
        <input
          className="field"
          inputMode="decimal"
          autoComplete="off"
          aria-label={`Spot ${i + 1}, ${key} clear, ${units.film}`}
          aria-invalid={wrong ? true : undefined}
          value={rows[i]![key]}
          onChange={(e) => change(i, key, e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            const inputs = [
              ...(e.currentTarget.closest("table")?.querySelectorAll<HTMLInputElement>(`input[aria-label*="${key} clear"]`) ?? []),
            ];
            inputs[inputs.indexOf(e.currentTarget) + 1]?.focus();
          }}
        />
        {wrong && (
          <span role="alert" className="text-[13px] font-medium text-stop-ink">
            {r.message}
          </span>
        )}
      </td>
    );
  };
  return (
    <>
      <VerdictHeading run={run} shape={shape} waiting="Type three readings after clear, or more." />
      <div className="grid gap-x-10 gap-y-7 lg:grid-cols-[minmax(0,340px)_1fr_minmax(0,300px)]">
        <Readings {...{ places, shape, cell, setRows, after, productRevisionId, keeping, submit, kind, substrate, formKey, draft }} />
        <PanelChoice {...{ kind, draft, region, substrate, shape, places, read }} />
        <VerdictFigures run={run} shape={shape} removal={removal.total} steps={named} floor_m={shop.floor_m} tape_m={DEFAULT_TAPE_M} />
      </div>
    </>
  );
}

/** The film as it was typed, and what sanding it would risk. */
function useSanding({
  kind,
  readFilm,
  substrate,
  shop,
  draft,
}: {
  kind: ShapeKind;
  readFilm: (
    text: string,
  ) => { ok: true; si: number; entered: string; unit: string } | { ok: false; message: string } | { ok: false; message: null };
  substrate: "unknown" | "factory" | "refinish" | "plastic";
  shop: RootData["shop"];
  draft: SandDraft;
}) {
  const { schoolId, rows } = draft.typed;
  const [width_m, height_m] = SHAPES[kind].size_m;
  const region = useRegion();
  const shape = useMemo(() => shapeInRegion(panelShape(kind, { width_m, height_m }), region), [kind, width_m, height_m, region]);
  const places = useMemo(() => suggestSpots(shape.outline, rows.length), [shape, rows.length]);
  const read = rows.map((r) => ({ before: readFilm(r.before), after: readFilm(r.after) }));
  const steps = correctionSchool(schoolId).steps.map((s) => s.use);
  const removal = clearingPlan(steps, JUDGED_TEXTURE, UNMEASURED_REMOVAL);
  const observations = read.flatMap((r, i): FilmObservation[] => [
    ...(r.before.ok ? [{ at: places[i]!, layer: "before" as const, total_m: r.before.si, n: 1 }] : []),
    ...(r.after.ok ? [{ at: places[i]!, layer: "after" as const, total_m: r.after.si, n: 1 }] : []),
  ]);
  const after = observations.filter((o) => o.layer === "after").length;
  const run = useAssessment(
    after === 0
      ? null
      : {
          film: {
            outline: shape.outline,
            bodyLines: shape.bodyLines,
            observations,
            history: { weights: SUBSTRATES[substrate].weights },
            foil: false,
          },
          work: {
            panel: { ...removal.total, rim_m: Math.min(DEFAULT_TAPE_M, height_m / 6) },
            local: [],
            floor_m: shop.floor_m,
          },
        },
  );
  return { steps, removal, read, run, shape, places, after, region };
}

/** Readings before and after clear. */
function Readings({
  places,
  shape,
  cell,
  setRows,
  after,
  productRevisionId,
  keeping,
  submit,
  kind,
  substrate,
  formKey,
  draft,
}: {
  places: Point[];
  shape: PanelShape;
  cell: (i: number, key: "before" | "after") => React.JSX.Element;
  setRows: (change: (now: readonly Row[]) => readonly Row[]) => void;
  after: number;
  productRevisionId: string | null;
  keeping: boolean;
  submit: SubmitFunction;
  kind: ShapeKind;
  substrate: "unknown" | "factory" | "refinish" | "plastic";
  formKey: string;
  draft: SandDraft;
}) {
  const units = useUnits();
  const { rows } = draft.typed;
  return (
    <section aria-label="Readings">
      <table className="w-full">
        <thead className="small-label text-left">
          <tr>
            <th className="p-1">Spot</th>
            <th className="p-1">Before clear</th>
            <th className="p-1">After clear, {units.film}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((_, i) => (
            <tr key={i}>
              <th scope="row" className="p-1 text-left">
                {i + 1}
                <span className="sr-only">, {placeInWords(places[i]!, shape)}</span>
              </th>
              {cell(i, "before")}
              {cell(i, "after")}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="press"
          disabled={rows.length >= MOST_SPOTS}
          onClick={() => setRows((r) => [...r, { before: "", after: "" }])}
        >
          One spot more
        </button>
        <button
          type="button"
          className="press"
          disabled={after === 0 || !productRevisionId || keeping}
          onClick={() =>
            void submit(JSON.stringify({ shape: kind, substrate, productRevisionId, unit: units.film, rows, formKey }), {
              method: "post",
              encType: "application/json",
            })
          }
        >
          Keep as a job
        </button>
      </div>
    </section>
  );
}

/** Which panel, and where its readings lie. */
function PanelChoice({
  kind,
  draft,
  region,
  substrate,
  shape,
  places,
  read,
}: {
  kind: ShapeKind;
  draft: Draft<Widened<{ kind: string; substrate: Substrate; schoolId: string; rows: { before: string; after: string }[] }>>;
  region: Region;
  substrate: "unknown" | "factory" | "refinish" | "plastic";
  shape: PanelShape;
  places: Point[];
  read: readonly Record<"before" | "after", { ok: boolean }>[];
}) {
  const { schoolId } = draft.typed;
  return (
    <section aria-label="Panel" className="space-y-4">
      <div className="grid gap-3 sm:grid-cols-2">
        <SelectField label="Panel" value={kind} onChange={draft.field("kind").onChange}>
          {SHAPE_KINDS.map((k) => (
            <option key={k} value={k}>
              {partName(k, region)}
            </option>
          ))}
        </SelectField>
        <SelectField label="What lies below" value={substrate} onChange={draft.field("substrate").onChange}>
          {Object.entries(SUBSTRATES).map(([k, s]) => (
            <option key={k} value={k}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <SelectField className="sm:col-span-2" label="Grit and polish" value={schoolId} onChange={draft.field("schoolId").onChange}>
          {CORRECTION_SCHOOLS.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}: {s.steps.map((t) => stepName(t.use)).join(", ")}
            </option>
          ))}
        </SelectField>
      </div>
      <PanelDrawing
        shape={shape}
        label={`${partName(kind, region)}: where to read`}
        spots={places.map((at, i) => ({
          name: String(i + 1),
          at,
          text: String(i + 1),
          state: read[i]!.after.ok ? ("read" as const) : ("open" as const),
        }))}
      />
    </section>
  );
}
