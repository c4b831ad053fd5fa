import { useState } from "react";
import { Link, data } from "react-router";
import { clearSummary } from "#core/ledger/clear-summary";
import { PHASES, type Phase } from "#core/ledger/kinds";
import { placeInWords } from "#core/panel/shapes";
import { show, showWithUncertainty } from "#core/units/format";
import { serverContext } from "#server/context";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { readingAction } from "~/lib/reading-action.server";
import { useUnits } from "~/lib/use-root";
import { InspectTabs } from "~/panel/inspect-tabs";
import { TextureRating } from "~/panel/texture-rating";
import { ReadingDesk } from "~/panel/reading-desk";
import { Toggle } from "~/ui/choice";
import { ScrollRegion } from "~/ui/scroll-region";
import { Figure, WorkingButton } from "~/ui/figure";
import { StrikeButton } from "~/ui/strike-button";
import { Tag } from "~/ui/tag";
import { meanClearWorking, spotWorking } from "~/words/workings";
import { panelOr404 } from "~/lib/panel.server";
import type { Route } from "./+types/inspect";
import { usePanel } from "./layout";

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const form = await request.formData();
  const { units, by } = await formPrefs(request, form);
  const read = await readingAction(ctx, view, form, { units, by });
  if (read) return read;
  throw data("Not understood", { status: 400 });
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function Inspect() {
  const { view, base } = usePanel();
  const units = useUnits();
  const { state, panel } = view;
  const [phase, setPhase] = useState<Phase>(state.stepsDone.length > 0 ? "recheck" : "after");
  const clear = clearSummary(state);
  const thinnest = clear?.thinnest;
  const flagged = state.spots.flatMap((s) =>
    (["before", "after", "recheck"] as const).flatMap((p) =>
      s.films[p]?.film.flags.includes(true) ? [`spot ${s.name} ${PHASES[p]}`] : [],
    ),
  );
  return (
    <>
      <InspectTabs base={base} />
      <div>
        <h2 className="max-w-[24em] text-[31px] leading-[1.12] font-semibold tracking-tight">
          {clear && thinnest ? (
            <>
              {show("film", clear.mean_m, units).text} {units.film} of clear on average.{" "}
              <em className="text-glow-ink not-italic">
                {showWithUncertainty("film", thinnest.clear_m, thinnest.u_m, units).text} at the thinnest,{" "}
                {placeInWords(thinnest.at, panel.shape)}.
              </em>
            </>
          ) : (
            <>How much clear is there? Read the film after clear, spot by spot.</>
          )}
        </h2>
        <div className="mt-2 flex flex-wrap gap-2">
          {clear &&
            (clear.inferred ? (
              <Tag kind="caution">Inferred, not measured</Tag>
            ) : (
              <Tag kind="good">{`Measured at ${clear.count} spots`}</Tag>
            ))}
          {state.simulated && <Tag kind="simulated">simulated readings</Tag>}
        </div>
      </div>
      {clear?.inferred && (
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
      <div className="mt-5 flex flex-wrap items-center gap-3">
        <Toggle
          label="When the readings are taken"
          value={phase}
          onChange={(v) => setPhase(v === "recheck" ? "recheck" : "after")}
          options={[
            { value: "after", name: "After clear" },
            { value: "recheck", name: "After sanding" },
          ]}
        />
        {thinnest && (
          <Link to={`${base}/correct`} className="press" data-kind="main">
            What may come off?
          </Link>
        )}
      </div>
      <ReadingDesk key={phase} phase={phase} />
      {state.coats.length > 0 && (
        <div className="mt-6">
          <TextureRating of="part" />
        </div>
      )}
      {clear && (
        <section className="mt-8 grid gap-6 md:grid-cols-[auto_1fr]">
          <Figure
            label={clear.inferred ? "clear, inferred" : "clear, mean"}
            shown={showWithUncertainty("film", clear.mean_m, clear.u_spot_m, units)}
            note="± one standard uncertainty at a spot"
            working={meanClearWorking(state, units)}
          />
          <SpotTable />
        </section>
      )}
    </>
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
            <th>
              <span className="sr-only">Take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {view.state.spots.map((s) => {
            const latest = s.films.recheck ?? s.films.after;
            const lastEntry = latest?.entryIds.at(-1);
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
                <td className="text-right">
                  {lastEntry && <StrikeButton entryId={lastEntry} what={`the last reading of spot ${s.name}`} />}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </ScrollRegion>
  );
}
