import { Link } from "react-router";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { DOUBT_WORDS } from "~/kit/words/doubt-words";
import type { PanelView } from "#server/views/panel-view";

/** Readings that cannot be right together, or are partly simulated, and where to put them right. Shown on every page of the panel: all of them show what was made of these. */
export default function DoubtfulNotice({ view: { panel, state }, base }: { view: PanelView; base: string }) {
  return (
    <section role="alert" data-testid="doubtful" className="no-print mb-5 border-l-4 border-amber-ink pl-4">
      <h2 className="text-lg font-semibold">
        {state.doubtful.length > 0 ? "Look at these readings again before you trust the film" : "Part of these films is simulated"}
      </h2>
      <ul>
        {state.mixed && (
          <li>
            {state.mixed.simulated} of {state.mixed.of} {state.mixed.of === 1 ? "spot" : "spots"} by a stand-in: take those out, or read
            there.
          </li>
        )}
        {state.doubtful.map((d, i) => (
          <li key={i}>
            {d.spot === null ? "" : `Spot ${d.spot}, `}
            {placeInWords(d.at, panel.shape)}: {DOUBT_WORDS[d.why]}
          </li>
        ))}
      </ul>
      <p className="flex flex-wrap gap-x-5">
        <Link to={`${base}/inspect`} className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4">
          Readings over the clear
        </Link>
        {state.hasBefore && (
          <Link to={`${base}/spray`} className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4">
            Readings below the clear
          </Link>
        )}
      </p>
    </section>
  );
}
