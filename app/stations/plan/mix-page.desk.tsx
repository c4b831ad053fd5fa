import { useDraft, type Widened, type Draft } from "~/kit/draft/use-draft";
import { useCallback, useMemo, useState } from "react";
import { Link, useFetcher } from "react-router";
import type { MixPlan } from "#core/models/mix/mix-plan";
import { inRange } from "#core/kernel/guard";
import { type MixFace, type MixOver, facesMixed, filmsMixed, mixOver } from "#core/coat/mix-over";
import { filmDoubt } from "#core/models/spray/film-doubt";
import { deposit } from "#core/models/spray/deposit";
import type { AnySheet, PartSheet, ProductSheet } from "#core/models/product/sheet";
import type { MixSetting } from "#server/views/mix-view";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { openingOf } from "./mix-start";
import { MixDesk, type MixDone } from "./mix.desk";
import { PlanTabs } from "./tabs";
import { FieldErrors, SelectField } from "~/kit/ui/field";
import type { Route } from "./+types/mix.route";
import { usePanel } from "~/kit/panel/use-panel";
import { usePreview } from "~/kit/panel/use-preview";
import { areaText } from "~/kit/words/area-text";
import { counted } from "~/kit/words/when";

export function PanelMixDesk({
  loaderData: { panels, parts, coats: onShelf, cans, own, layers, start, plain },
}: Pick<Route.ComponentProps, "loaderData">) {
  const { view, base } = usePanel();
  const { product, state } = view;
  const fetcher = useFetcher<FormAnswer>();
  const { draft, chosen, choose } = usePanelsChosen({ own, start });
  const { setting, other, sheet, areas, toCome, opening, strokes, times, chosenSheet } = useMixOver({
    onShelf,
    draft,
    layers,
    own,
    panels,
    chosen,
    plain,
  });
  const { ahead, conditions, partner, cansOf, wetOf, moreOf } = useLanding({ setting, own, other, cans, sheet, onShelf, parts });
  const [planned, setPlanned] = useState<MixPlan | null>(null);
  const typed_m =
    planned && setting === own ? filmsMixed(ahead, { coats: planned.coats.length, dryTotal_m: planned.amount.dryTotal_m }) : null;
  usePreview(
    planned &&
      typed_m && {
        coat: { dry_m: planned.amount.dryTotal_m, u_m: filmDoubt(typed_m, view.shopFilm.u_log), name: coatsWords(typed_m.length) },
      },
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
        on={other ? 0 : (ahead[0]?.number ?? 1) - 1}
        film_m={other ? undefined : opening.film_m}
        reducer={other ? undefined : opening.reducer}
        strokes={strokes}
        times={times}
        air_K={conditions.air_K}
        partner={partner}
        matting={state.matteMix?.body.share ?? null}
        {...(setting?.judged ? { judged: setting.judged } : {})}
        cansOf={cansOf}
        wetOf={wetOf}
        moreOf={moreOf}
        onPlan={setPlanned}
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
                    {s.name}, {layers[s.name] ? `${layers[s.name]!.what} of this panel` : s.kind}
                  </option>
                ))}
            </SelectField>
            {chosenSheet && <OtherNote kind={chosenSheet.kind} />}
            {partner && state.matteMix === null && (
              <p className="text-amber-ink">
                No mix was taken for the gloss yet.{" "}
                <Link to={`${base}/plan/gloss`} className="underline underline-offset-4">
                  Find it from the cards
                </Link>
                .
              </p>
            )}
            <PanelsInMix {...{ panels, chosen, choose, chosenSheet }} />
          </>
        }
      />
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </>
  );
}

/** Which panels the mix is for, and of what. */
function usePanelsChosen({ own, start }: { own: Route.ComponentProps["loaderData"]["own"]; start: string }) {
  const { view } = usePanel();
  const { panel } = view;
  const draft = useDraft("what", {
    one: own.faces.length === 2 ? [] : [panel.id],
    both: own.faces.length === 2 ? [panel.id] : [],
    product: start,
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
  return { draft, chosen, choose };
}

/** The panels that the mix is for. */
function PanelsInMix({
  panels,
  chosen,
  choose,
  chosenSheet,
}: {
  panels: Route.ComponentProps["loaderData"]["panels"];
  chosen: Record<string, "one" | "both">;
  choose: (id: string, how: "one" | "both" | null) => void;
  chosenSheet: ProductSheet | null;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { panel } = view;
  return (
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
                onChange={(e) => choose(p.id, e.target.checked ? (p.faces === 2 ? "both" : "one") : null)}
              />
              <span>
                {p.name} <span className="text-ink2">{areaText(p.area_m2, units)}</span>
                {!chosenSheet && p.productRevisionId !== panel.productRevisionId && (
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
  );
}

/** Over what it is mixed, by the strokes of the gun. */
function useMixOver({
  onShelf,
  draft,
  layers,
  own,
  panels,
  chosen,
  plain,
}: {
  onShelf: readonly ProductSheet[];
  draft: Draft<Widened<{ one: string[]; both: string[]; product: string }>>;
  layers: Route.ComponentProps["loaderData"]["layers"];
  own: Route.ComponentProps["loaderData"]["own"];
  panels: Route.ComponentProps["loaderData"]["panels"];
  chosen: Record<string, "one" | "both">;
  plain: Route.ComponentProps["loaderData"]["plain"];
}) {
  const { view } = usePanel();
  const { panel, product } = view;
  const chosenSheet = onShelf.find((s) => s.name === draft.typed.product && s.name !== product.sheet.name) ?? null;
  const sheet = chosenSheet ?? product.sheet;
  // What is planned on this panel is mixed for its coats to come; anything else for what its sheet says.
  const setting: MixSetting | null = chosenSheet ? (layers[chosenSheet.name] ?? null) : own;
  const other = setting ? null : chosenSheet;
  const areas = useMemo(
    () => panels.flatMap((p) => (chosen[p.id] ? [{ area_m2: p.area_m2, bothSides: chosen[p.id] === "both" }] : [])),
    [panels, chosen],
  );
  const ownFaces = useMemo(() => (setting ? facesMixed(setting.faces, chosen[panel.id]) : NO_FACES), [setting, chosen, panel.id]);
  const faces = useMemo(
    () =>
      panels.flatMap((p) => (p.id === panel.id && !other ? [] : chosen[p.id] === "both" ? [p.part, p.part] : chosen[p.id] ? [p.part] : [])),
    [panels, chosen, panel.id, other],
  );
  const opening = openingOf(setting ?? own);
  const toCome = other ? other.coats : opening.coats;
  const over = useMemo(
    (): MixOver =>
      other
        ? {
            own: NO_FACES,
            others: faces,
            way: { ...plain.way, coats: Array.from({ length: other.coats }, () => plain.coat) },
            gun: plain.gun,
            after: 0,
          }
        : {
            own: ownFaces,
            others: faces,
            way: setting!.way,
            gun: setting!.gun,
            after: Math.max(0, setting!.coatsPlanned - toCome),
          },
    [other, ownFaces, faces, plain, setting, toCome],
  );
  const strokes = useCallback((coats: number) => mixOver(over, coats).strokes_m3, [over]);
  const times = useCallback((coats: number) => mixOver(over, coats).coats_s, [over]);
  return { setting, other, sheet, areas, toCome, opening, strokes, times, chosenSheet };
}

/** How each coat lands, and out of which can it comes. */
function useLanding({
  setting,
  own,
  other,
  cans,
  sheet,
  onShelf,
  parts,
}: {
  setting: MixSetting | null;
  own: Route.ComponentProps["loaderData"]["own"];
  other: ProductSheet | null;
  cans: { id: string; name: string; batch: string; words: string }[];
  sheet: ProductSheet;
  onShelf: readonly ProductSheet[];
  parts: Route.ComponentProps["loaderData"]["parts"];
}) {
  const { view } = usePanel();
  const ahead = (setting ?? own).faces[0]!.coats;
  const { conditions } = setting ?? own;
  const shopFactor = setting === own ? view.shopFactors.film : 1;
  const wetOf = useCallback(
    (number: number, reducer: number) => {
      const coat = other ? undefined : ahead[number - 1];
      if (!coat) return null;
      return inRange(() => deposit(coat.gun, { ...conditions, reducer: reducer + coat.more, shopFactor }).wet_m);
    },
    [other, ahead, conditions, shopFactor],
  );
  const moreOf = useCallback((number: number) => (other ? 0 : (ahead[number - 1]?.more ?? 0)), [other, ahead]);
  const cansOf = useCallback((name: string) => cans.filter((c) => c.name === name), [cans]);
  const partner = sheet.blendWith === "" ? null : (allSheets(onShelf, parts).find((s) => s.name === sheet.blendWith) ?? null);
  return { ahead, conditions, partner, cansOf, wetOf, moreOf };
}

const NO_FACES: readonly MixFace[] = [];

const coatsWords = (n: number): string => counted(n, "coat", "coats");

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
