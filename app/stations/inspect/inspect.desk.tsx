import { inferredWords } from "~/kit/words/how-words";
import { Suspense, lazy, useState } from "react";
import { Link } from "react-router";
import { PHASES, type Phase } from "#core/record/kinds";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { showFilm, showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { InspectTabs } from "./tabs";
import { TextureRating } from "~/kit/panel/texture-rating";
import { noGaugeReads } from "#core/panel/brief";
import { StripLater } from "~/kit/readings/strip-later";
import { Toggle } from "~/kit/ui/toggle";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Figure, WorkingButton } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { meanClearWorking, spotWorking } from "~/kit/words/film-workings";
import { usePanel } from "~/kit/panel/use-panel";

const ReadingDesk = lazy(() => import("~/kit/readings/reading-desk").then((m) => ({ default: m.ReadingDesk })));

export function InspectDesk() {
  const { view, base } = usePanel();
  const units = useUnits();
  const { state, panel } = view;
  // Of the newest build; a part whose coats nobody logged has none, and its plan says it.
  const sanded = (state.builds.at(-1)?.thinning ?? state.stepsDone).length > 0;
  const [phase, setPhase] = useState<Phase>(sanded ? "recheck" : "after");
  const { mean: clear, inferred } = state.film;
  const blind = noGaugeReads(panel.substrate);
  const flagged = state.spots.flatMap((s) =>
    (["before", "after", "recheck"] as const).flatMap((p) =>
      s.films[p]?.film.flags.includes(true) ? [`spot ${s.name} ${PHASES[p]}`] : [],
    ),
  );
  return (
    <>
      <InspectTabs base={base} />
      <Heading {...{ blind }} />
      {inferred && !blind && (
        <p className="mt-2 max-w-[70ch] text-amber-ink">
          There is no reading before clear, so the layers below are guessed from usual stacks. More readings now cannot mend that; take them
          before coat 1 next time.
        </p>
      )}
      {flagged.length > 0 && (
        <p className="mt-2 max-w-[70ch] text-amber-ink">
          One reading stands far from its neighbours at {flagged.join(", ")}. Read it again; nothing has been left out.
        </p>
      )}
      <WhatIsRead {...{ blind, phase, setPhase }} />
      {blind ? (
        <div className="mt-5">
          <StripLater />
        </div>
      ) : (
        <Suspense fallback={<div className="min-h-96" />}>
          <ReadingDesk key={phase} phase={phase} />
        </Suspense>
      )}
      {state.coats.length > 0 && (
        <div className="mt-6">
          <TextureRating of="part" />
        </div>
      )}
      {clear && (
        <section className="mt-8 grid gap-6 md:grid-cols-[auto_1fr]">
          <Figure
            label={blind ? "clear, predicted" : inferred ? "clear, inferred" : "clear, mean of the panel"}
            shown={showWithUncertainty("film", clear.clear_m, clear.u_m, units)}
            note="± is 95 %, here and on every page"
            working={meanClearWorking(state, units)}
          />
          {!blind && <SpotTable />}
        </section>
      )}
    </>
  );
}

/** The clear that is there, and where it is thinnest. */
function Heading({ blind }: { blind: boolean }) {
  const { view } = usePanel();
  const units = useUnits();
  const { state, panel } = view;
  const { mean: clear, thinnest, inferred, spots: readAt } = state.film;
  return (
    <div>
      <h2 className="max-w-[24em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {clear && thinnest ? (
          <>
            {showFilm(clear.clear_m, units).text} {units.film} of clear on average.{" "}
            <em className="text-glow-ink not-italic">
              {showWithUncertainty("film", thinnest.clear_m, thinnest.u_m, units).text} at the thinnest,{" "}
              {placeInWords(thinnest.at, panel.shape)}.
            </em>
          </>
        ) : (
          <>
            {blind
              ? "No gauge reads here: log the coats, or read a strip beside the part."
              : "How much clear is there? Read the film after clear, spot by spot."}
          </>
        )}
      </h2>
      <div className="mt-2 flex flex-wrap gap-2">
        {clear &&
          (inferred ? (
            <Tag kind="caution">{inferredWords(view.state.film.how)}</Tag>
          ) : (
            <Tag kind="good">{`Measured at ${readAt} ${readAt === 1 ? "spot" : "spots"}`}</Tag>
          ))}
        {state.simulated && <Tag kind="simulated">simulated readings</Tag>}
      </div>
    </div>
  );
}

/** Which film is read, and the mean that it comes to. */
function WhatIsRead({
  blind,
  phase,
  setPhase,
}: {
  blind: boolean;
  phase: "before" | "after" | "recheck";
  setPhase: React.Dispatch<React.SetStateAction<"before" | "after" | "recheck">>;
}) {
  const { view, base } = usePanel();
  const { state } = view;
  const { thinnest } = state.film;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-3 sm:mt-5">
      {!blind && (
        <Toggle
          label="When the readings are taken"
          value={phase}
          onChange={(v) => setPhase(v === "recheck" ? "recheck" : "after")}
          options={[
            { value: "after", name: "After clear" },
            { value: "recheck", name: "After sanding" },
          ]}
        />
      )}
      {thinnest && (
        <Link to={`${base}/correct`} className="press" data-kind="main">
          What may come off?
        </Link>
      )}
    </div>
  );
}

function SpotTable() {
  const { view } = usePanel();
  const units = useUnits();
  return (
    <ScrollRegion label="Spots">
      <table className="w-full text-left">
        <thead className="small-label border-b border-hair">
          <tr>
            <th className="py-2">Spot</th>
            <th>Place</th>
            <th>Before</th>
            <th>After</th>
            <th>Clear, {units.film}</th>
          </tr>
        </thead>
        <tbody>
          {view.state.spots.map((s) => {
            const latest = s.latest?.film;
            const cell = (f: typeof latest) => (f ? showWithUncertainty("film", f.film.mean_m, f.film.u_m, units).text : "–");
            return (
              <tr key={s.name} className="border-b border-hair">
                <td className="font-semibold">{s.name}</td>
                <td className="text-ink2">{placeInWords(s.at, view.panel.shape)}</td>
                <td>{cell(s.films.before)}</td>
                <td>{cell(latest)}</td>
                <td>
                  <WorkingButton working={spotWorking(s, units)} label={`Working of spot ${s.name}`}>
                    <b className="font-semibold">{s.clear ? showWithUncertainty("film", s.clear.clear_m, s.clear.u_m, units).text : "–"}</b>
                    {s.clear && s.clear.how !== "measured" && <span className="text-[13px] text-ink2"> {s.clear.how}</span>}
                  </WorkingButton>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </ScrollRegion>
  );
}
