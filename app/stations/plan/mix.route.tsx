import { useDraft } from "~/kit/draft/use-draft";
import { UNLOGGED_AIR_K } from "#core/models/trade-limits";
import { useCallback, useMemo } from "react";
import { data, useFetcher } from "react-router";
import { polygonArea } from "#core/kernel/geometry/geometry";
import type { MixPlan } from "#core/models/mix/mix-plan";
import { FILM_CV } from "#core/models/mix/mix-plan";
import { plannedCoats } from "#core/models/ways/way";
import { coatShare } from "#core/models/ways/coat-gun";
import { volumesOver } from "#core/models/ways/way-volumes";
import { handGun } from "#core/panel/next-coat";
import { isCoat } from "#core/models/product/sheet";
import { recordMix } from "#server/commands/record-mix";
import { serverContext } from "#server/running";
import { listPanels } from "#server/repos/panel-repo";
import { listShelf } from "#server/repos/product-repo";
import { loadCans } from "#server/views/cans-view";
import type { FormAnswer } from "~/kit/form/answer";
import { keptMix } from "./stand-in-mix.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { useUnits } from "~/kit/root/use-root";
import { MixDesk, type MixDone } from "./mix.desk";
import { PlanTabs } from "./tabs";
import { FieldErrors, SelectField } from "~/kit/ui/field";
import { jsonBodyOf } from "~/kit/http/body.server";
import { inWords } from "~/kit/form/in-words.server";
import type { Route } from "./+types/mix.route";
import { usePanel } from "~/kit/panel/use-panel";
import { areaText } from "~/kit/words/area-text";

export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [panels, shelf, cans] = await Promise.all([listPanels(ctx.db, jobId), listShelf(ctx.db), loadCans(ctx)]);
  return {
    panels: panels.map((p) => ({
      id: p.id,
      name: p.name,
      area_m2: polygonArea(p.shape.outline),
      outline: p.shape.outline,
      productRevisionId: p.productRevisionId,
    })),
    parts: shelf.flatMap((p) => (isCoat(p.sheet) ? [] : [{ id: p.id, sheet: p.sheet }])),
    cans: cans.filter((c) => c.kind === "hardener" && c.age.state !== "empty").map((c) => ({ id: c.id, name: c.name, words: c.age.words })),
  };
}

export async function action({ request, params: { panelId } }: Route.ActionArgs) {
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
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function PanelMix({ loaderData: { panels, parts, cans } }: Route.ComponentProps) {
  const { view, base, setPreview } = usePanel();
  const units = useUnits();
  const { panel, product, state } = view;
  const fetcher = useFetcher<FormAnswer>();
  const same = panels.filter((p) => p.productRevisionId === panel.productRevisionId);
  const draft = useDraft("what", {
    one: panel.sides === 2 ? [] : [panel.id],
    both: panel.sides === 2 ? [panel.id] : [],
    canId: cans[0]?.id ?? "",
  });
  const { one, both, canId } = draft.typed;
  const chosen = useMemo(
    () => Object.fromEntries([...one.map((id) => [id, "one"]), ...both.map((id) => [id, "both"])]) as Record<string, "one" | "both">,
    [one, both],
  );
  const choose = (id: string, how: "one" | "both" | null) => {
    const without = (list: readonly string[]) => list.filter((x) => x !== id);
    draft.set("one", how === "one" ? [...without(one), id] : without(one));
    draft.set("both", how === "both" ? [...without(both), id] : without(both));
  };
  const areas = useMemo(
    () => panels.flatMap((p) => (chosen[p.id] ? [{ area_m2: p.area_m2, bothSides: chosen[p.id] === "both" }] : [])),
    [panels, chosen],
  );
  const way = view.job.way;
  const sprayed = state.coats.length;
  const toCome = Math.max(1, panel.coatsPlanned - sprayed);
  const gun = useMemo(() => handGun(state, way).settings, [state, way]);
  const faces = useMemo(
    () => panels.flatMap((p) => (chosen[p.id] === "both" ? [p.outline, p.outline] : chosen[p.id] ? [p.outline] : [])),
    [panels, chosen],
  );
  const strokes = useCallback((coats: number) => volumesOver(way, { faces, gun, coats, after: sprayed }), [faces, way, gun, sprayed]);
  const shares = plannedCoats(way, sprayed + toCome)
    .slice(sprayed)
    .map((c) => coatShare(c, gun));
  const onPlan = useCallback(
    (plan: MixPlan | null) =>
      setPreview(
        plan
          ? {
              coat: {
                dry_m: plan.amount.dryTotal_m,
                u_m: FILM_CV * plan.amount.dryTotal_m,
                name: `${plan.coats.length} ${plan.coats.length === 1 ? "coat" : "coats"}`,
              },
            }
          : {},
      ),
    [setPreview],
  );
  const keep = ({ plan, input, poured }: MixDone) =>
    void fetcher.submit(
      JSON.stringify({
        volume_m3: poured?.volume_m3 ?? plan.amount.ready_m3,
        reducer: plan.reducerOnActivated,
        potLife_s: plan.potLife.time_s,
        temperature_K: input.temperature_K,
        panels: panels.filter((p) => chosen[p.id]).map((p) => p.name),
        parts: plan.parts.map((p, i) => ({
          name: p.name,
          volume_m3: p.volume_m3,
          mass_kg: plan.targets?.[i]?.mass_kg ?? null,
          poured_kg: poured?.poured_kg[i] ?? null,
        })),
        canId: canId || null,
        formKey: `${view.formKey}-mix`,
      }),
      { method: "post", encType: "application/json" },
    );
  return (
    <>
      <PlanTabs base={base} />
      <MixDesk
        sheet={product.sheet}
        parts={parts}
        areas={areas}
        coats={toCome}
        filmShare={shares.reduce((a, x) => a + x, 0) / shares.length}
        strokes={strokes}
        air_K={state.climate?.body.air_K ?? UNLOGGED_AIR_K}
        onPlan={onPlan}
        onDone={keep}
        doneLabel="Keep it and start the pot clock"
        busy={fetcher.state !== "idle"}
        areasEditor={
          <>
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
                        {!same.some((s) => s.id === p.id) && <span className="text-amber-ink"> · planned with another product</span>}
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
            {cans.length > 0 && (
              <SelectField label="Hardener out of this can (use first on top)" value={canId} onChange={draft.field("canId").onChange}>
                {cans.map((c) => (
                  <option key={c.id} value={c.id}>
                    {c.name}: {c.words}
                  </option>
                ))}
                <option value="">another can</option>
              </SelectField>
            )}
          </>
        }
      />
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </>
  );
}
