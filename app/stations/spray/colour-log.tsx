import { capital } from "~/kit/words/capital";
import { useFetcher } from "react-router";
import { COLOUR_COATS, type ColourCoat, USUAL_BASE_COATS, filmOfLayers, groundSaves } from "#core/models/prep/colour-coats";
import { show, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { useNow } from "~/kit/shell/now";
import { StrikeButton } from "~/kit/shell/strike-button";
import { FieldErrors } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { whenText } from "~/kit/words/when";
import { withU } from "~/kit/words/lines";

const MS = 1000;

/** What the models say of colour on this panel: until the next coat and until clear, and what one coat takes. */
export interface ColourReckoned {
  wait: { colour_ms: number; clear_ms: number } | null;
  coat_m3: number;
}

/** The coats below the clear, logged as they are sprayed: each with its flash, and the film they come to. */
export function ColourLog({ wait, coat_m3 }: ColourReckoned) {
  const { view } = usePanel();
  const units = useUnits();
  const now_ms = useNow();
  const fetcher = useFetcher<FormAnswer>();
  const { state } = view;
  const log = state.colourCoats;
  const left_s = (at_ms: number) => Math.max(0, (at_ms - now_ms) / MS);
  const layers = state.addedUnder.filter((l) => l.how === "usual" && log.some((c) => COLOUR_COATS[c.body.coat].layer === l.step));
  const film = filmOfLayers(layers);
  const coats = log.map((c) => c.body.coat);
  const saves = groundSaves(coats, USUAL_BASE_COATS * coat_m3);
  const ml = (m3: number) => `${show("volume", m3, units).text} ${units.volume}`;
  const send = (coat: ColourCoat) =>
    void fetcher.submit({ intent: "colour", coat, formKey: `${view.formKey}-colour-${log.length}` }, { method: "post" });
  return (
    <section aria-labelledby="colour-title" className="mt-4">
      <h3 id="colour-title" className="text-lg font-semibold">
        Colour, coat by coat
      </h3>
      <div className="mt-2 flex flex-wrap gap-2">
        {(Object.keys(COLOUR_COATS) as ColourCoat[]).map((coat) => (
          <button key={coat} type="button" className="press" disabled={fetcher.state !== "idle"} onClick={() => send(coat)}>
            {capital(COLOUR_COATS[coat].name)} on
          </button>
        ))}
      </div>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
      {wait && (
        <p className="mt-2 font-medium" data-testid="colour-wait" aria-live="polite">
          {left_s(wait.colour_ms) > 0 ? `Next coat of colour in ${showWait(left_s(wait.colour_ms))}, ` : "Next coat of colour now, "}
          {left_s(wait.clear_ms) > 0 ? `clear from ${whenText(wait.clear_ms, now_ms)}.` : "clear may go on."}{" "}
          <span className="font-normal text-ink2">Dull all over is the sign; the product&rsquo;s own sheet comes first.</span>
        </p>
      )}
      {log.length > 0 && (
        <div className="mt-2 grid items-start gap-x-10 gap-y-3 sm:grid-cols-[1fr_auto]">
          <ol aria-label="Coats below the clear" className="border-t border-hair">
            {log.map((c) => (
              <li key={c.id} className="flex items-center justify-between gap-2 border-b border-hair">
                <span>
                  {COLOUR_COATS[c.body.coat].name} <span className="text-ink2">{whenText(c.at_ms, now_ms)}</span>
                </span>
                <StrikeButton entryId={c.id} what={COLOUR_COATS[c.body.coat].name} />
              </li>
            ))}
          </ol>
          {film.film_m > 0 && (
            <Figure
              size="middle"
              label="below the clear, as usual"
              shown={showWithUncertainty("film", film.film_m, film.u_m, units)}
              working={{
                title: "Film of the coats below",
                formula: "So many coats, each of a usual film. Not measured: the gauge's reading before clear settles it.",
                inputs: layers.map((l) => withU(l.step, "film", l.film_m, l.u_m, units)),
                sources: ["common-practice"],
                changesMost: "A reading before clear, or the film told for the whole layer.",
              }}
            />
          )}
        </div>
      )}
      {saves.saved_m3 > 0 && (
        <p className="mt-2 max-w-[70ch] text-ink2" data-testid="ground-saves">
          The ground coats save about {ml(saves.saved_m3)} of the dear colour; about {ml(saves.left_m3)} of it are left to spray, by this
          gun&rsquo;s strokes. Common practice: two of them save half.
        </p>
      )}
    </section>
  );
}
