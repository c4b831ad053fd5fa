import { useState } from "react";
import { useFetcher } from "react-router";
import { show, showFilm, showWithUncertainty } from "#core/kernel/units/format";
import { LAYER_NAMES, type LayerKey, layersUnder } from "#core/models/prep/layer-names";
import { filmOfLayers } from "#core/models/prep/layers";
import { coatsOfLayers } from "#core/panel/layer-coats";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { useNow } from "~/kit/shell/now";
import { PutRightLink, StrikeButton } from "~/kit/shell/strike-button";
import { BigFigures } from "~/kit/ui/big-figures";
import { FieldErrors } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { capital } from "~/kit/words/capital";
import { withU } from "~/kit/words/lines";
import { whenText } from "~/kit/words/when";
import { CoatForm } from "./coat-form";
import { LayerPlanForm, type LayerProduct } from "./layer-plan";
import type { Layers } from "./layers-at";
import { hidingWords, nextFigures, nextNotes, nextWords } from "./layers.words";

/** The coats below the clear: what goes on, the next of them with its film, wait and litres, and what is on. */
export function LayersDesk({ layers, products }: { layers: Layers; products: readonly LayerProduct[] }) {
  const { view } = usePanel();
  const units = useUnits();
  const now_ms = useNow();
  const [planning, setPlanning] = useState(false);
  const { next } = layers;
  const words = nextWords(layers, now_ms);
  const ml = (m3: number) => `${show("volume", m3, units).text} ${units.volume}`;
  return (
    <section aria-labelledby="colour-title" className="mt-6">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h3 id="colour-title" className="text-lg font-semibold">
          Coats below the clear
        </h3>
        <button type="button" className="press" aria-expanded={planning} onClick={() => setPlanning(!planning)}>
          {view.state.layerPlan ? "Change what goes below" : "Plan what goes below"}
        </button>
      </div>
      {planning && <LayerPlanForm rows={layers.rows} products={products} onDone={() => setPlanning(false)} />}
      {words && (
        <p className="mt-2 text-[19px] font-medium" data-testid="colour-wait" aria-live="polite">
          {words.main} <span className="text-glow-ink">{words.rest}</span>{" "}
          <span className="text-[15px] font-normal text-ink2">Dull all over is the sign; the product&rsquo;s own sheet comes first.</span>
        </p>
      )}
      {layers.hiding && (
        <p className="mt-1 max-w-[70ch] text-ink2" data-testid="hiding">
          {hidingWords(layers.hiding, view.state.coloured ? "it" : "base")}
        </p>
      )}
      {next && (
        <div className="mt-3 space-y-4" data-testid="next-layer">
          <BigFigures figures={nextFigures(next, units)} testId="layer-figures" />
          <p className="max-w-[75ch] text-[14px] text-ink2">{nextNotes(next, units).join(" ")}</p>
          <CoatForm
            key={`${next.layer} ${next.coat.number} ${next.coat.side}`}
            next={next.coat}
            sheet={next.sheet}
            sprayed={next.sprayed}
            formKey={`${view.formKey}-${next.layer}`}
            below={{ layer: next.layer, name: LAYER_NAMES[next.layer] }}
          />
        </div>
      )}
      <AsUsual />
      <Laid />
      {layers.ground && layers.ground.saved_m3 > 0 && (
        <p className="mt-2 max-w-[70ch] text-ink2" data-testid="ground-saves">
          The ground coats save about {ml(layers.ground.saved_m3)} of the dear colour; about {ml(layers.ground.left_m3)} of it are left to
          spray, by the strokes. Common practice: two of them save half.
        </p>
      )}
    </section>
  );
}

/** One tap for a coat whose settings nobody tells. */
function AsUsual() {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const send = (layer: LayerKey) =>
    void fetcher.submit(
      { intent: "colour", layer, formKey: `${view.formKey}-colour-${view.state.colourCoats.length}` },
      { method: "post" },
    );
  return (
    <div className="mt-4">
      <p className="small-label">On, with a usual gun and film</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {layersUnder(view.state.coloured).map((coat) => (
          <button key={coat} type="button" className="press" disabled={fetcher.state !== "idle"} onClick={() => send(coat)}>
            {capital(LAYER_NAMES[coat])} on
          </button>
        ))}
      </div>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </div>
  );
}

/** What is on, coat by coat, and what it comes to. */
function Laid() {
  const { view, base } = usePanel();
  const units = useUnits();
  const now_ms = useNow();
  const { below, addedUnder } = view.state;
  const coats = coatsOfLayers(below).sort((a, b) => a.entry.seq - b.entry.seq);
  if (coats.length === 0) return null;
  const layers = addedUnder.filter((l) => l.how !== "told");
  const film = filmOfLayers(layers);
  return (
    <div className="mt-3 grid items-start gap-x-10 gap-y-3 sm:grid-cols-[1fr_auto]">
      <ol aria-label="Coats below the clear" className="border-t border-hair">
        {coats.map(({ entry, layer, own, told, predicted, sheet }) => {
          const d = told ? showWithUncertainty("film", predicted.dry_m, predicted.u_dry_m, units) : showFilm(predicted.dry_m, units);
          return (
            <li key={entry.id} className="flex items-center justify-between gap-2 border-b border-hair">
              <span>
                <b className="font-semibold">{LAYER_NAMES[layer]}</b>
                {view.panel.sides === 2 && `, ${entry.body.side}`} <span className="text-ink2">{whenText(entry.at_ms, now_ms)}</span>
                <span className="text-[13px] text-ink2">{own ? `, ${sheet.name}` : ""}</span>
              </span>
              <span className="flex items-center">
                {told ? "" : "usual "}
                {d.text} {d.unit}
                <PutRightLink base={base} entryId={entry.id} what={LAYER_NAMES[layer]} from="spray/below" />
                <StrikeButton entryId={entry.id} what={LAYER_NAMES[layer]} />
              </span>
            </li>
          );
        })}
      </ol>
      {film.film_m > 0 && (
        <Figure
          size="middle"
          label="below the clear, forecast"
          shown={showWithUncertainty("film", film.film_m, film.u_m, units)}
          working={{
            title: "Film of the coats below",
            formula:
              "Coats with their settings lay what the gun model says of their sheet; the others a usual film. One hand, one gun: what is off in one is off in all. Not measured: the gauge's reading before clear settles it.",
            inputs: layers.map((l) => withU(`${l.step}, ${l.how}`, "film", l.film_m, l.u_m, units)),
            sources: ["orchard-flow", "common-practice", "product-sheet"],
            changesMost: "A reading before clear, or the film told for the whole layer.",
          }}
        />
      )}
    </div>
  );
}
