import { useState } from "react";
import { Link, data, useFetcher } from "react-router";
import { clearSummary } from "#core/ledger/clear-summary";
import { DEFECT_KINDS, PHASES, type Phase } from "#core/ledger/kinds";
import type { Point } from "#core/panel/geometry";
import { placeInWords } from "#core/panel/shapes";
import { show, showWithUncertainty, showFilm } from "#core/units/format";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/context";
import { loadPanelView } from "#server/views/panel-view";
import { answerForm, textOf } from "~/forms/answer";
import { defectForm } from "~/forms/inspect-forms";
import { initial } from "~/forms/initial";
import { guardedAction } from "~/lib/guarded-action";
import { formPrefs } from "~/lib/prefs.server";
import { readingAction } from "~/lib/reading-action.server";
import { useUnits } from "~/lib/use-root";
import { type DefectMark, PanelDrawing, type SpotMark } from "~/panel/panel-drawing";
import { InspectTabs } from "~/panel/inspect-tabs";
import { TextureRating } from "~/panel/texture-rating";
import { ReadingDesk } from "~/panel/reading-desk";
import { Toggle } from "~/ui/choice";
import { Field, FieldErrors, SelectField } from "~/ui/field";
import { ScrollRegion } from "~/ui/scroll-region";
import { Figure, WorkingButton } from "~/ui/figure";
import { StrikeButton } from "~/ui/strike-button";
import { Tag } from "~/ui/tag";
import { meanClearWorking, spotWorking } from "~/words/workings";
import type { Route } from "./+types/inspect";
import { UnitsField } from "~/ui/units-field";
import { usePanel } from "./layout";

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const view = await loadPanelView(ctx, jobId, panelId);
  if (!view) throw data("This panel is not in the file.", { status: 404 });
  const form = await request.formData();
  const { units, by } = await formPrefs(request, form);
  const read = await readingAction(ctx, view, form, { units, by });
  if (read) return read;
  switch (textOf(form, "intent")) {
    case "defect":
      return answerForm(form, defectForm(units, view.panel.shape.outline), async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "defect", body, by, clientKey: textOf(form, "formKey") || null }),
        message: `${body.kind === "run" ? "Run" : body.kind === "nib" ? "Nib" : "Peel"} placed`,
      }));
    default:
      throw data("Not understood", { status: 400 });
  }
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
      <Defects />
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

function Defects() {
  const { view } = usePanel();
  const units = useUnits();
  const { panel, state } = view;
  const fetcher = useFetcher<typeof action>();
  const errors = fetcher.data?.errors ?? {};
  const [kind, setKind] = useState<keyof typeof DEFECT_KINDS>("run");
  const [place, setPlace] = useState<{ x: string; y: string; at: Point | null }>({ x: "", y: "", at: null });
  const put = (at: Point) => setPlace({ at, x: initial("length", at[0], units), y: initial("length", at[1], units) });
  const size = (m: number | null, q: "length" | "film") => (m === null ? null : `${show(q, m, units).text} ${show(q, m, units).unit}`);
  const marks = state.defects.map((d): DefectMark => ({
    id: d.id,
    kind: d.body.kind,
    at: [d.body.at.x_m, d.body.at.y_m],
    label: `${d.body.kind}${d.body.height_m ? ` ${show("film", d.body.height_m, units).text}` : ""}`,
    length_m: d.body.length_m,
  }));
  const spots = state.spots.map((s): SpotMark => ({
    name: s.name,
    at: s.at,
    text: s.clear ? showFilm(s.clear.clear_m, units).text : s.name,
    state: "read",
  }));
  return (
    <section className="mt-10" aria-labelledby="defects-title">
      <h3 id="defects-title" className="text-lg font-semibold">
        What is wrong with it
      </h3>
      <p className="text-ink2">Look along it with a moving light. Tap the place, or move the mark with the arrow keys and press Enter.</p>
      <div className="mt-3 grid gap-x-8 gap-y-5 md:grid-cols-[1.3fr_1fr]">
        <PanelDrawing
          shape={panel.shape}
          spots={spots}
          defects={marks}
          onPlace={put}
          placed={place.at}
          label={`${panel.name}: place a defect`}
        />
        <div className="space-y-5">
          <fetcher.Form method="post" noValidate className="grid grid-cols-2 gap-3">
            <UnitsField />
            <input type="hidden" name="intent" value="defect" />
            <input type="hidden" name="formKey" value={`${view.formKey}-defect`} />
            <SelectField label="Kind" name="kind" value={kind} onChange={(e) => setKind(e.target.value as keyof typeof DEFECT_KINDS)}>
              <option value="run">Run</option>
              <option value="peel">Peel</option>
              <option value="nib">Nib</option>
            </SelectField>
            <SelectField label="Its size was" name="measured" defaultValue="judged">
              <option value="judged">Judged by eye</option>
              <option value="measured">Measured</option>
            </SelectField>
            <Field
              label="From the left"
              unit={units.length}
              name="x"
              value={place.x}
              onChange={(e) => setPlace((p) => ({ ...p, x: e.target.value }))}
              errors={errors.x}
            />
            <Field
              label="From the top"
              unit={units.length}
              name="y"
              value={place.y}
              onChange={(e) => setPlace((p) => ({ ...p, y: e.target.value }))}
              errors={errors.y}
            />
            <Field label={kind === "peel" ? "Peak to valley" : "Height"} unit={units.film} name="height" errors={errors.height} />
            <Field label={kind === "nib" ? "Across" : "Length"} unit={units.length} name="length" errors={errors.length} />
            <Field label="Width" unit={units.length} name="width" errors={errors.width} />
            <button className="press self-start sm:mt-[23px]" data-kind="main">
              Place it
            </button>
          </fetcher.Form>
          <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
          <ul className="border-t border-hair empty:hidden">
            {state.defects.map((d) => (
              <li key={d.id} className="flex items-center justify-between border-b border-hair">
                <span>
                  <b className="font-semibold">{d.body.kind}</b>{" "}
                  <span className="text-ink2">
                    {[
                      placeInWords([d.body.at.x_m, d.body.at.y_m], panel.shape),
                      size(d.body.height_m, "film"),
                      size(d.body.length_m, "length"),
                    ]
                      .filter(Boolean)
                      .join(", ")}
                    {d.body.height_m !== null && !d.body.measured && " by eye"}
                  </span>
                </span>
                <StrikeButton entryId={d.id} what={`the ${d.body.kind}`} />
              </li>
            ))}
          </ul>
        </div>
      </div>
    </section>
  );
}
