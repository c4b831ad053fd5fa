import { useMemo, useState } from "react";
import { polygonArea } from "#core/panel/geometry";
import { SHAPES, SHAPE_KINDS, type ShapeKind, panelShape } from "#core/panel/shapes";
import { isClear, isCoat } from "#core/product/sheet";
import { show } from "#core/units/format";
import { parseQuantity } from "#core/units/parse";
import { serverContext } from "#server/context";
import { listShelf } from "#server/repos/product-repo";
import { initial } from "~/forms/initial";
import { useUnits } from "~/lib/use-root";
import { MixDesk } from "~/mix/mix-desk";
import { Field, SelectField } from "~/ui/field";
import { PageHeader } from "~/ui/page-header";
import { NoClear } from "~/shelf/no-clear";
import type { Route } from "./+types/ask-mix";

export const meta: Route.MetaFunction = () => [{ title: "How much do I mix? · Yakamoz" }];

export async function loader() {
  const shelf = await listShelf((await serverContext()).db);
  return {
    clears: shelf.flatMap((p) => (isClear(p.sheet) ? [{ id: p.id, sheet: p.sheet }] : [])),
    parts: shelf.flatMap((p) => (isCoat(p.sheet) ? [] : [{ id: p.id, sheet: p.sheet }])),
  };
}

const AIR_K = 293.15;
const MOST_ROWS = 20;
type Kind = ShapeKind | "rectangle";
interface Row {
  kind: Kind;
  width: string;
  height: string;
  both: boolean;
}

export default function AskMix({ loaderData: { clears, parts } }: Route.ComponentProps) {
  const units = useUnits();
  const row = (kind: Kind): Row => {
    const [w, h] = kind === "rectangle" ? [1, 0.7] : SHAPES[kind].size_m;
    return { kind, width: initial("length", w, units), height: initial("length", h, units), both: false };
  };
  const [rows, setRows] = useState<Row[]>(() => [row("door"), row("door"), row("bonnet")]);
  const [clearId, setClearId] = useState(clears[0]?.id ?? "");
  const clear = clears.find((c) => c.id === clearId);
  const read = useMemo(() => rows.map((r) => areaOf(r, units.length)), [rows, units.length]);
  const areas = useMemo(() => read.flatMap((a, i) => (a.ok ? [{ area_m2: a.area_m2, bothSides: rows[i]!.both }] : [])), [read, rows]);
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
            air_K={AIR_K}
            areasEditor={
              <>
                <SelectField label="Clear" value={clearId} onChange={(e) => setClearId(e.target.value)}>
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
                      return (
                        <li key={i} className="grid grid-cols-[1.3fr_1fr_1fr_auto] items-start gap-2">
                          <SelectField label="Part" value={r.kind} onChange={(e) => set(i, row(e.target.value as Kind))}>
                            {SHAPE_KINDS.map((k) => (
                              <option key={k} value={k}>
                                {SHAPES[k].name}
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
                            <input
                              type="checkbox"
                              className="size-6"
                              checked={r.both}
                              onChange={(e) => set(i, { both: e.target.checked })}
                            />
                            both sides
                          </label>
                          <p className="col-span-4 text-[13px] text-ink2">
                            {a.ok ? `${show("area", a.area_m2, units).text} m²` : "not counted"}
                          </p>
                        </li>
                      );
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

type Area = { ok: true; area_m2: number } | { ok: false; field: "width" | "height"; message: string };
function areaOf(r: Row, unit: string): Area {
  const sides = { width: parseQuantity("length", r.width, unit), height: parseQuantity("length", r.height, unit) };
  for (const field of ["width", "height"] as const) {
    const s = sides[field];
    if (!s.ok) return { ok: false, field, message: s.message };
    if (!(s.si >= 0.02 && s.si <= 6)) return { ok: false, field, message: "Between 2 cm and 6 m" };
  }
  const [w, h] = [sides.width, sides.height].map((s) => (s.ok ? s.si : NaN)) as [number, number];
  return {
    ok: true,
    area_m2:
      r.kind === "rectangle"
        ? polygonArea([
            [0, 0],
            [w, 0],
            [w, h],
            [0, h],
          ])
        : polygonArea(panelShape(r.kind, { width_m: w, height_m: h }).outline),
  };
}
