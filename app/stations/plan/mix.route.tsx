import { useDraft } from "~/kit/draft/use-draft";
import { UNLOGGED_AIR_K } from "#core/models/trade-limits";
import { useCallback, useMemo } from "react";
import { Link, data, useFetcher } from "react-router";
import { polygonArea } from "#core/kernel/geometry/geometry";
import type { MixPlan } from "#core/models/mix/mix-plan";
import { FILM_CV } from "#core/models/mix/mix-plan";
import { inRange } from "#core/kernel/guard";
import { deposit } from "#core/models/spray/deposit";
import { plannedCoat, plannedCoats } from "#core/models/ways/way";
import { coatGun, coatShare } from "#core/models/ways/coat-gun";
import { houseWay, usualCoat } from "#core/models/ways/house-ways";
import { volumesOver } from "#core/models/ways/way-volumes";
import { handGun } from "#core/panel/next-coat";
import { type AnySheet, type PartSheet, type ProductSheet, isCoat } from "#core/models/product/sheet";
import { recordMix } from "#server/commands/record-mix";
import { serverContext } from "#server/running";
import { listPanels } from "#server/repos/panel-repo";
import { listShelf } from "#server/repos/product-repo";
import { loadCans } from "#server/views/cans-view";
import { mixSetting } from "#server/views/mix-view";
import type { FormAnswer } from "~/kit/form/answer";
import { keptMix } from "./stand-in-mix.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { useUnits } from "~/kit/root/use-root";
import { MixDesk, type MixDone } from "./mix.desk";
import { PlanTabs } from "./tabs";
import { FieldErrors, SelectField } from "~/kit/ui/field";
import { jsonBodyOf } from "~/kit/http/body.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { acting, inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/mix.route";
import { usePanel } from "~/kit/panel/use-panel";
import { areaText } from "~/kit/words/area-text";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, panels, shelf, cans] = await Promise.all([
    panelOr404(ctx, jobId, panelId),
    listPanels(ctx.db, jobId),
    listShelf(ctx.db),
    loadCans(ctx),
  ]);
  const parts = shelf.flatMap((p) => (isCoat(p.sheet) ? [] : [{ id: p.id, sheet: p.sheet }]));
  return {
    own: mixSetting(view, parts),
    // Coats of what is not the panel's clear: whole, at a usual hand.
    plain: { way: houseWay("two-full"), coat: usualCoat() },
    panels: panels.map((p) => ({
      id: p.id,
      name: p.name,
      area_m2: polygonArea(p.shape.outline),
      outline: p.shape.outline,
      productRevisionId: p.productRevisionId,
    })),
    parts,
    coats: shelf.flatMap((p) => (isCoat(p.sheet) ? [p.sheet] : [])),
    cans: cans.filter((c) => c.age.state !== "empty").map((c) => ({ id: c.id, name: c.name, batch: c.batch, words: c.age.words })),
  };
}

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const parsed = keptMix.safeParse(await jsonBodyOf(request));
  if (!parsed.success) throw data("Not understood", { status: 400 });
  const { by } = await readPrefs(request);
  return inWords(async () => {
    const entryId = await recordMix(await serverContext(), { ...parsed.data, panelId, by });
    return {
      ok: true,
      intent: "mix",
      message: "Mix kept; its pot clock runs",
      errors: {},
      entryId,
      done: parsed.data.formKey,
    } satisfies FormAnswer;
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function PanelMix({ loaderData: { panels, parts, coats: onShelf, cans, own, plain } }: Route.ComponentProps) {
  const { view, base, setPreview } = usePanel();
  const units = useUnits();
  const { panel, product, state, job } = view;
  const fetcher = useFetcher<FormAnswer>();
  const draft = useDraft("what", {
    one: panel.sides === 2 ? [] : [panel.id],
    both: panel.sides === 2 ? [panel.id] : [],
    product: product.sheet.name,
  });
  const { one, both } = draft.typed;
  const chosen = useMemo(
    () => Object.fromEntries([...one.map((id) => [id, "one"]), ...both.map((id) => [id, "both"])]) as Record<string, "one" | "both">,
    [one, both],
  );
  const choose = (id: string, how: "one" | "both" | null) => {
    const without = (list: readonly string[]) => list.filter((x) => x !== id);
    draft.set("one", how === "one" ? [...without(one), id] : without(one));
    draft.set("both", how === "both" ? [...without(both), id] : without(both));
  };
  const other = onShelf.find((s) => s.name === draft.typed.product && s.name !== product.sheet.name) ?? null;
  const sheet = other ?? product.sheet;
  const areas = useMemo(
    () => panels.flatMap((p) => (chosen[p.id] ? [{ area_m2: p.area_m2, bothSides: chosen[p.id] === "both" }] : [])),
    [panels, chosen],
  );
  const sprayed = other ? 0 : state.coats.length;
  const toCome = other ? other.coats : Math.max(1, panel.coatsPlanned - sprayed);
  const way = useMemo(
    () => (other ? { ...plain.way, coats: Array.from({ length: other.coats }, () => plain.coat) } : job.way),
    [other, job.way, plain],
  );
  const hand = useMemo(() => handGun(state, job.way), [state, job.way]);
  const gun = hand.settings;
  const faces = useMemo(
    () => panels.flatMap((p) => (chosen[p.id] === "both" ? [p.outline, p.outline] : chosen[p.id] ? [p.outline] : [])),
    [panels, chosen],
  );
  const strokes = useCallback((coats: number) => volumesOver(way, { faces, gun, coats, after: sprayed }), [faces, way, gun, sprayed]);
  const air_K = state.climate?.body.air_K ?? UNLOGGED_AIR_K;
  const planned = plannedCoats(way, sprayed + toCome).slice(sprayed);
  const shares = planned.map((c) => coatShare(c, gun));
  const wetOf = useCallback(
    (number: number, reducer: number) => {
      if (other) return null;
      const coat = plannedCoat(way, sprayed + number);
      const conditions = { ...own.conditions, reducer: reducer + coat.reducerShift, shopFactor: view.shopFactors.film };
      return inRange(() => deposit(coatGun(gun, coat), conditions).wet_m);
    },
    [other, way, sprayed, own.conditions, gun, view.shopFactors.film],
  );
  const cansOf = useCallback((name: string) => cans.filter((c) => c.name === name), [cans]);
  const partner = sheet.blendWith === "" ? null : (allSheets(onShelf, parts).find((s) => s.name === sheet.blendWith) ?? null);
  const onPlan = useCallback(
    (plan: MixPlan | null) =>
      setPreview(
        plan && !other
          ? {
              coat: {
                dry_m: plan.amount.dryTotal_m,
                u_m: FILM_CV * plan.amount.dryTotal_m,
                name: `${plan.coats.length} ${plan.coats.length === 1 ? "coat" : "coats"}`,
              },
            }
          : {},
      ),
    [setPreview, other],
  );
  const keep = ({ plan, input, poured, cans: out }: MixDone) =>
    void fetcher.submit(
      JSON.stringify({
        volume_m3: poured?.volume_m3 ?? plan.amount.ready_m3,
        reducer: plan.reducerOnActivated,
        potLife_s: plan.potLife.time_s,
        temperature_K: input.temperature_K,
        panels: panels.filter((p) => chosen[p.id]).map((p) => p.id),
        product: sheet.name,
        speed: input.hardener?.speed ?? null,
        mattingShare: input.blend?.share ?? null,
        settles_s: sheet.settles_s,
        parts: plan.parts.map((p, i) => {
          const can = out.find((c) => c.name === p.name);
          return {
            name: p.name,
            volume_m3: p.volume_m3,
            mass_kg: plan.targets?.[i]?.mass_kg ?? null,
            poured_kg: poured?.poured_kg[i] ?? null,
            batch: can?.batch ?? "",
            canId: can?.canId ?? null,
          };
        }),
        formKey: `${view.formKey}-mix`,
      }),
      { method: "post", encType: "application/json" },
    );
  return (
    <>
      <PlanTabs base={base} />
      <MixDesk
        key={sheet.name}
        sheet={sheet}
        parts={parts}
        areas={areas}
        coats={toCome}
        filmShare={shares.reduce((a, x) => a + x, 0) / shares.length}
        strokes={strokes}
        air_K={air_K}
        partner={partner}
        matting={state.matteMix?.body.share ?? null}
        {...(other ? {} : { judged: own.judged })}
        cansOf={cansOf}
        wetOf={wetOf}
        onPlan={onPlan}
        onDone={keep}
        doneLabel="Keep it and start the pot clock"
        busy={fetcher.state !== "idle"}
        areasEditor={
          <>
            <SelectField label="Mix" {...draft.field("product")}>
              <option value={product.sheet.name}>{product.sheet.name}, this panel&rsquo;s clear</option>
              {onShelf
                .filter((s) => s.name !== product.sheet.name)
                .map((s) => (
                  <option key={s.name} value={s.name}>
                    {s.name}, {s.kind}
                  </option>
                ))}
            </SelectField>
            {other && <OtherNote kind={other.kind} />}
            {partner && state.matteMix === null && (
              <p className="text-amber-ink">
                No mix was taken for the gloss yet.{" "}
                <Link to={`${base}/plan/gloss`} className="underline underline-offset-4">
                  Find it from the cards
                </Link>
                .
              </p>
            )}
            <fieldset>
              <legend className="small-label mb-1">Panels in this mix</legend>
              <ul className="border-t border-hair">
                {panels.map((p) => (
                  <li key={p.id} className="flex flex-wrap items-center gap-x-5 border-b border-hair">
                    <label className="flex min-h-11 flex-1 items-center gap-3">
                      <input
                        type="checkbox"
                        className="size-6"
                        checked={Boolean(chosen[p.id])}
                        onChange={(e) => choose(p.id, e.target.checked ? "one" : null)}
                      />
                      <span>
                        {p.name} <span className="text-ink2">{areaText(p.area_m2, units)}</span>
                        {!other && p.productRevisionId !== panel.productRevisionId && (
                          <span className="text-amber-ink"> · planned with another product</span>
                        )}
                      </span>
                    </label>
                    <label className="flex min-h-11 items-center gap-2 text-[14px]">
                      <input
                        type="checkbox"
                        className="size-6"
                        checked={chosen[p.id] === "both"}
                        onChange={(e) => choose(p.id, e.target.checked ? "both" : "one")}
                      />
                      both sides
                    </label>
                  </li>
                ))}
              </ul>
            </fieldset>
          </>
        }
      />
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </>
  );
}

const allSheets = (coats: readonly ProductSheet[], parts: readonly { sheet: PartSheet }[]): AnySheet[] => [
  ...coats,
  ...parts.map((p) => p.sheet),
];

/** What is usual with what lies below the clear. Common practice. */
const OTHER_NOTES: Partial<Record<ProductSheet["kind"], string>> = {
  base: "Dear, and covers badly? Two ground coats of a near, cheap colour below it save about half of the base.",
  sealer: "Reduced 20 to 30 % more than the sheet, it lies flatter: the clear cannot be smoother than what is below it.",
  primer: "Finished at the last paper of the way; porous primer holds wash water, so half an hour of bake before masking.",
  blender: "Colour one to one with blender at low pressure, a little further out each time.",
};
function OtherNote({ kind }: { kind: ProductSheet["kind"] }) {
  const note = OTHER_NOTES[kind];
  return note ? <p className="text-[14px] text-ink2">{note} Common practice.</p> : null;
}
