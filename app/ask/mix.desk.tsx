import { useDraft } from "~/kit/draft/use-draft";
import { UNLOGGED_AIR_K } from "#core/models/trade-limits";
import { useCallback, useMemo } from "react";
import { type Polygon, polygonArea } from "#core/kernel/geometry/geometry";
import { SHAPES, SHAPE_KINDS, type ShapeKind, panelShape } from "#core/kernel/geometry/shapes";
import { USUAL_GUN } from "#core/models/spray/usual-gun";
import { mixOver } from "#core/coat/mix-over";
import { show } from "#core/kernel/units/format";
import { parseQuantity } from "#core/kernel/units/parse";
import { initial } from "~/kit/form/initial";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { useUnits } from "~/kit/root/use-root";
import { useRegion } from "~/kit/words/use-region";
import { partName } from "~/kit/words/part-name";
import { MixDesk } from "~/stations/plan/mix.desk";
import { Field, SelectField } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import { NoClear } from "./no-clear";
import type { Route } from "./+types/mix.route";
import type { Region } from "#server/repos/shop-repo";

const MOST_ROWS = 20;

type Kind = ShapeKind | "rectangle";

type Row = { kind: Kind; width: string; height: string; both: boolean };

export function AskMixDesk({ loaderData: { clears, parts, way } }: Pick<Route.ComponentProps, "loaderData">) {
  const units = useUnits();
  const region = useRegion();
  const row = (kind: Kind): Row => {
    const [w, h] = kind === "rectangle" ? [1, 0.7] : SHAPES[kind].size_m;
    return { kind, width: initial("length", w, units), height: initial("length", h, units), both: false };
  };
  const draft = useDraft(
    "parts",
    { clearId: clears[0]?.id ?? "", rows: [row("door"), row("door"), row("bonnet")] as readonly Row[] },
    { rows: { width: "length", height: "length" } },
  );
  const { clearId, rows } = draft.typed;
  const setRows = (change: (now: readonly Row[]) => readonly Row[]) => draft.set("rows", change);
  const clear = clears.find((c) => c.id === clearId);
  const read = useMemo(() => rows.map((r) => areaOf(r, units)), [rows, units]);
  const areas = useMemo(() => read.flatMap((a, i) => (a.ok ? [{ area_m2: a.area_m2, bothSides: rows[i]!.both }] : [])), [read, rows]);
  const faces = useMemo(() => read.flatMap((a, i) => (!a.ok ? [] : rows[i]!.both ? [a, a] : [a])), [read, rows]);
  /** A usual gun at an even pace over each face. */
  const strokes = useCallback(
    (coats: number) => mixOver({ own: [], others: faces, way, gun: USUAL_GUN, after: 0 }, coats).strokes_m3,
    [faces, way],
  );
  const set = (i: number, change: Partial<Row>) => setRows((list) => list.map((r, k) => (k === i ? { ...r, ...change } : r)));
  return (
    <>
      <PageHeader title="How much do I mix?" note="Parts, coats and ratio in, amounts out; nothing is stored" />
      <main className="px-4 py-6 sm:px-6">
        {!clear ? (
          <NoClear />
        ) : (
          <MixDesk
            key={clear.id}
            sheet={clear.sheet}
            parts={parts}
            areas={areas}
            coats={clear.sheet.coats}
            strokes={strokes}
            air_K={UNLOGGED_AIR_K}
            areasEditor={
              <>
                <SelectField label="Clear" value={clearId} onChange={draft.field("clearId").onChange}>
                  {clears.map((c) => (
                    <option key={c.id} value={c.id}>
                      {c.sheet.name}
                    </option>
                  ))}
                </SelectField>
                <fieldset>
                  <legend className="small-label mb-1">Parts to spray, area from their outline</legend>
                  <ul className="space-y-2">
                    {rows.map((r, i) => {
                      const a = read[i]!;
                      return <PartRow key={i} {...{ i, r, set, row, region, a }} />;
                    })}
                  </ul>
                  <div className="mt-2 flex gap-2">
                    <button
                      type="button"
                      className="press"
                      disabled={rows.length >= MOST_ROWS}
                      onClick={() => setRows((l) => [...l, row("wing")])}
                    >
                      One part more
                    </button>
                    <button type="button" className="press" disabled={rows.length < 2} onClick={() => setRows((l) => l.slice(0, -1))}>
                      One less
                    </button>
                  </div>
                </fieldset>
              </>
            }
          />
        )}
      </main>
    </>
  );
}

/** A part with its size, and whether both sides are sprayed. */
function PartRow({
  i,
  r,
  set,
  row,
  region,
  a,
}: {
  i: number;
  r: Row;
  set: (i: number, change: Partial<Row>) => void;
  row: (kind: Kind) => Row;
  region: Region;
  a: Area;
}) {
  const units = useUnits();
  return (
    <li className="grid grid-cols-[1.3fr_1fr_1fr_auto] items-start gap-2">
      <SelectField label="Part" value={r.kind} onChange={(e) => set(i, row(e.target.value as Kind))}>
        {SHAPE_KINDS.map((k) => (
          <option key={k} value={k}>
            {partName(k, region)}
          </option>
        ))}
        <option value="rectangle">Rectangle</option>
      </SelectField>
      <Field
        label="Width"
        unit={units.length}
        value={r.width}
        onChange={(e) => set(i, { width: e.target.value })}
        errors={!a.ok && a.field === "width" ? [a.message] : undefined}
      />
      <Field
        label="Height"
        unit={units.length}
        value={r.height}
        onChange={(e) => set(i, { height: e.target.value })}
        errors={!a.ok && a.field === "height" ? [a.message] : undefined}
      />
      <label className="mt-[23px] flex min-h-11 items-center gap-2 text-[14px]">
        <input type="checkbox" className="size-6" checked={r.both} onChange={(e) => set(i, { both: e.target.checked })} />
        both sides
      </label>
      <p className="col-span-4 text-[13px] text-ink2">
        {a.ok ? `${show("area", a.area_m2, units).text} ${show("area", a.area_m2, units).unit}` : "not counted"}
      </p>
    </li>
  );
}

type Area = { ok: true; outline: Polygon; area_m2: number } | { ok: false; field: "width" | "height"; message: string };

/** What an outline of the table may measure. */
const LEAST_SIDE_M = 0.05;

const MOST_SIDE_M = 6;

function areaOf(r: Row, units: UnitPreferences): Area {
  const sides = { width: parseQuantity("length", r.width, units.length), height: parseQuantity("length", r.height, units.length) };
  for (const field of ["width", "height"] as const) {
    const s = sides[field];
    if (!s.ok) return { ok: false, field, message: s.message };
    if (!(s.si >= LEAST_SIDE_M && s.si <= MOST_SIDE_M))
      return {
        ok: false,
        field,
        message: `Between ${initial("length", LEAST_SIDE_M, units)} and ${initial("length", MOST_SIDE_M, units)} ${units.length}`,
      };
  }
  const [w, h] = [sides.width, sides.height].map((s) => (s.ok ? s.si : NaN)) as [number, number];
  const outline =
    r.kind === "rectangle"
      ? ([
          [0, 0],
          [w, 0],
          [w, h],
          [0, h],
        ] as const)
      : panelShape(r.kind, { width_m: w, height_m: h }).outline;
  return { ok: true, outline, area_m2: polygonArea(outline) };
}
