import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { baseLaid_ms } from "#core/panel/base-laid";
import { inRange } from "#core/kernel/guard";
import { noGaugeReads } from "#core/panel/brief";
import { showWait } from "#core/kernel/units/format";
import { isCoat } from "#core/models/product/sheet";
import { type GritChain, gritChain } from "#core/models/prep/grit-chain";
import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { BASE_OPEN_S, UNDER_STEPS, omissions } from "#core/models/prep/under-clear";
import { logLayerCoat, planLayers } from "#server/commands/layers";
import { recordEntry } from "#server/commands/record-entry";
import { listShelf } from "#server/repos/product-repo";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { coatForm } from "~/kit/form/spray-entries";
import { formOf } from "~/kit/http/body.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { usePanel } from "~/kit/panel/use-panel";
import { useNow } from "~/kit/shell/now";
import type { Route } from "./+types/below.route";
import { BelowSteps } from "./below-steps";
import { chainWords } from "./below.words";
import { layersAt } from "./layers-at";
import { LayersDesk } from "./layers.desk";
import { layerForm, layersForm } from "./layers.form";
import { colourForm, underForm } from "./prep.form";
import { SprayTabs } from "./tabs";

const MS = 1000;

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const look = () => panelOr404(ctx, jobId, panelId);
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const clientKey = textOf(form, "formKey") || null;
  const logged = (layer: keyof typeof LAYER_NAMES) => `${LAYER_NAMES[layer]}: logged, its flash runs`;
  switch (textOf(form, "intent")) {
    case "layers":
      return answerForm(form, layersForm, async (plan) => ({
        entryId: await planLayers(ctx, await look(), { ...plan, by, clientKey }),
        message: "What goes below the clear is kept",
      }));
    case "colour":
      return answerForm(form, colourForm, async ({ coat }) => ({
        entryId: await logLayerCoat(ctx, await look(), { layer: coat, settings: null, reducer: null, by, clientKey }),
        message: logged(coat),
      }));
    case "layerCoat":
      return answerForm(form, layerForm.and(coatForm(units)), async ({ layer, settings, reducer, zone, number }) => ({
        entryId: await logLayerCoat(ctx, await look(), { layer, settings, reducer, zone, by, clientKey, shown: number }),
        message: logged(layer),
      }));
    case "under":
      return answerForm(form, underForm(units), async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "under", body, by }),
        message: `${UNDER_STEPS.find((s) => s.id === body.step)!.name}: logged`,
      }));
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, shelf] = await Promise.all([panelOr404(ctx, jobId, panelId), listShelf(ctx.db)]);
  const chain: GritChain | null = inRange(() => gritChain(papersOf(view.state.under))) ?? null;
  return {
    chain,
    layers: layersAt(view, shelf, ctx.now_ms()),
    products: shelf.flatMap(({ id, sheet }) => (isCoat(sheet) ? [{ id, name: sheet.name, kind: sheet.kind, coats: sheet.coats }] : [])),
  };
}

/** Papers that were sanded with below the base, in their order. */
const papersOf = (log: readonly { body: { step: string; grit: number | null } }[]): number[] =>
  log.flatMap((u) => (u.body.step === "sand" && u.body.grit !== null ? [u.body.grit] : []));

/** What lies below the clear, step by step, because it sets the clear's ceiling. */
export default function Below({ loaderData: { chain, layers, products } }: Route.ComponentProps) {
  const { view, base } = usePanel();
  const now_ms = useNow();
  const log = view.state.under;
  const plastic = noGaugeReads(view.panel.substrate);
  const missing = omissions(
    log.map((u) => u.body),
    plastic,
  );
  const baseAt_ms = baseLaid_ms(view.state);
  const age_s = baseAt_ms === null ? null : (now_ms - baseAt_ms) / MS;
  const started = view.state.coats.length > 0;
  return (
    <>
      <SprayTabs base={base} />
      <h2 className="min-h-[2.24em] max-w-[26em] text-[31px] leading-[1.12] font-semibold tracking-tight" data-testid="below-sentence">
        {age_s !== null && age_s > BASE_OPEN_S ? (
          <>
            The base is {showWait(age_s)} old. <em className="text-amber-ink not-italic">Scuff it, or see its sheet, before clear.</em>
          </>
        ) : missing.length === 0 ? (
          <>
            What lies below is logged. <em className="text-glow-ink not-italic">Clear can be as smooth as that.</em>
          </>
        ) : (
          <>
            Clear is never smoother than what is below it.{" "}
            <em className="text-amber-ink not-italic">Not logged: {missing.map((m) => m.name.toLowerCase()).join(", ")}.</em>
          </>
        )}
      </h2>
      {started && missing.length > 0 && (
        <p className="mt-1 max-w-[70ch] text-ink2">
          Clear is on. What is not logged here counts as not known when a fault is traced later, not as left out.
        </p>
      )}
      {chain && (
        <p className={`mt-2 max-w-[70ch] ${chain.fault ? "font-medium text-amber-ink" : "text-ink2"}`} data-testid="grit-chain">
          {chainWords(chain, view.job.way.lastPaper)}
        </p>
      )}
      <LayersDesk layers={layers} products={products} />
      <BelowSteps />
      {age_s !== null && age_s <= BASE_OPEN_S && (
        <p className="mt-3 text-ink2">Base {showWait(age_s)} old; common practice scuffs after 24 h. Its own sheet comes first.</p>
      )}
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Gloves for solvents, eye protection, ventilation. Films typed here are the painter&rsquo;s word; where none is typed a usual film
        stands in the section and is called inferred. Readings before clear settle it.
      </p>
    </>
  );
}
