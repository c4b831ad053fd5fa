import { More } from "~/kit/ui/more";
import { SUBSTRATES } from "#core/panel/brief";
import { Fragment } from "react";
import { Link } from "react-router";
import { polygonArea } from "#core/kernel/geometry/geometry";
import { show, showFilm, showWithUncertainty, type Shown } from "#core/kernel/units/format";
import { plannedCoat } from "#core/models/ways/way";
import { COAT_ZONES, FINISHES } from "#core/models/ways/terms";
import { timesAt } from "#core/models/product/sheet";
import { UNLOGGED_AIR_K } from "#core/models/trade-limits";
import { coatsOn } from "#core/panel/coats-on";
import { nextAsked } from "#core/coat/asked";
import { handGun } from "#core/coat/next-coat";
import { planFigures } from "#core/models/ways/plan-figures";
import { clearNow } from "#core/judge/how-known";
import { basisWords, spareWords } from "./plan.words";
import type { Route } from "./+types/plan.route";
import { UsualTag } from "~/kit/first/usual-tag";
import { useUnits } from "~/kit/root/use-root";
import { PanelDrawing } from "~/kit/panel/panel-drawing";
import { PlanTabs } from "./tabs";
import { planWorking } from "~/kit/words/plan-workings";
import { Figure } from "~/kit/ui/figure";
import { usePanel } from "~/kit/panel/use-panel";
import { areaText } from "~/kit/words/area-text";
import { ITSELF } from "~/kit/words/through-words";
import { briefTold } from "~/kit/words/brief-told";

export function PlanDesk({ loaderData: ahead }: Pick<Route.ComponentProps, "loaderData">) {
  const { view, base } = usePanel();
  const units = useUnits();
  const { job, panel, product, state, floor_m } = view;
  const way = job.way;
  const { sheet } = product;
  const area_m2 = polygonArea(panel.shape.outline);
  const gun = handGun(nextAsked(view)).settings;
  const figures = planFigures({
    sheet,
    way,
    coats: panel.coatsPlanned,
    outline: panel.shape.outline,
    rows: panel.rows,
    sides: panel.sides,
    gun,
    floor_m,
  });
  const matte = job.finish === "matte";
  const there = clearNow(state);
  const allOn = ahead.litres.sprayed_m3 === 0;
  const litres = allOn ? ahead.again : ahead.litres;
  /** The figure is of all coats of all faces, as the area's is. */
  const whole = allOn || coatsOn(state) === 0;
  const told = briefTold(job.brief);
  const times = timesAt(sheet, state.climate?.body.air_K ?? UNLOGGED_AIR_K);
  const tilt = Math.round((panel.tilt_rad * 180) / Math.PI);
  const film = (m: number) => showFilm(m, units);
  const sheetFilm = `${film(figures.dryMin_m).text} to ${film(figures.dryMax_m).text} ${film(figures.dryMax_m).unit}`;
  const promised = ahead.clear
    ? showWithUncertainty("film", ahead.clear.clear_m, ahead.clear.u_m, units)
    : { text: `${film(figures.dryMin_m).text} to ${film(figures.dryMax_m).text}`, unit: film(figures.dryMax_m).unit };
  const minutes = (s: number) => show("duration", s, units);
  return (
    <>
      <PlanTabs base={base} />
      <h2 className="max-w-[24em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {panel.coatsPlanned} coats of {sheet.name} give{" "}
        <em className="text-glow-ink not-italic">
          {promised.text}&nbsp;{promised.unit}
        </em>{" "}
        of clear{spareWords(ahead.clear, { matte, floor_m, units })}
      </h2>
      <More>
        {view.state.coloured && <p className="text-ink2">{ITSELF}</p>}
        <p className="text-ink2">
          {basisWords({ known: ahead.clear !== null, there, allOn })} The sheet&rsquo;s own film a coat makes {sheetFilm}.
        </p>
      </More>
      <div className="mt-6 grid gap-8 md:grid-cols-[1.25fr_1fr]">
        <PanelDrawing
          shape={panel.shape}
          spots={view.spotPlan.map((s) => ({ ...s, text: s.name, state: "open" as const }))}
          label={`${panel.name} with ${view.spotPlan.length} places to measure`}
        />
        <div className="space-y-4">
          <Figure
            label={allOn ? "of clear to spray it once more" : "of clear to mix, ready to spray"}
            shown={show("volume", litres.toMix_m3, units)}
            note={`by strokes over ${areaText(area_m2, units)}, with waste and what stays in cup and gun${whole ? `; by area alone ${show("volume", figures.byArea_m3, units).text}` : "; for the coats to come"}`}
            working={planWorking(figures, { litres, area_m2, sheet, coats: panel.coatsPlanned, gun }, units)}
          />
          <Figure
            label="pot life"
            shown={minutes(ahead.potLife_s)}
            note={`flash ${minutes(times.flashMin_s).text} to ${minutes(times.flashMax_s).text} min between coats`}
            working={planWorking(figures, { litres, area_m2, sheet, coats: panel.coatsPlanned, gun }, units)}
          />
          <div className="flex flex-wrap gap-2 pt-1">
            <Link to={`${base}/spray`} className="press" data-kind="main">
              {state.coats.length ? "Go on spraying" : "Go to Spray"}
            </Link>
            <Link to={`${base}/plan/mix`} className="press">
              Work out the mix
            </Link>
          </div>
        </div>
      </div>
      <div className="mt-8 grid gap-8 md:grid-cols-2">
        <WayCoats {...{ minutes, times }} />
        <Brief {...{ matte, told, tilt, film }} />
      </div>
    </>
  );
}

/** The coats of the house way. */
function WayCoats({
  minutes,
  times,
}: {
  minutes: (s: number) => Shown;
  times: { flashMin_s: number; flashMax_s: number; potLife_s: number };
}) {
  const { view } = usePanel();
  const { job, panel } = view;
  const way = job.way;
  return (
    <section>
      <h3 className="text-lg font-semibold">{way.name}</h3>
      <p className="text-ink2">
        {way.goodFor}. {way.price}.
      </p>
      <ol className="mt-3 border-t border-hair">
        {Array.from({ length: panel.coatsPlanned }, (_, i) => {
          const coat = plannedCoat(way, i + 1);
          const last = i === panel.coatsPlanned - 1;
          return (
            <li key={i} className="flex justify-between border-b border-hair py-2.5">
              <span>
                <b className="font-semibold">Coat {i + 1}</b>, {coat.role}
                {coat.zone !== "whole" && `, ${COAT_ZONES[coat.zone]}`}
              </span>
              <span className="text-ink2">
                {last
                  ? "then cure"
                  : coat.sandAfter
                    ? "cure, then sand flat"
                    : `flash ${minutes(times.flashMin_s * Math.max(1, coat.flashFactor)).text} min at least`}
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

/** What was agreed. */
function Brief({
  matte,
  told,
  tilt,
  film,
}: {
  matte: boolean;
  told: [what: string, text: string][];
  tilt: number;
  film: (m: number) => Shown;
}) {
  const { view, base } = usePanel();
  const { job, panel, product, floor_m } = view;
  const { sheet } = product;
  return (
    <section>
      <div className="flex items-center justify-between gap-3">
        <h3 className="text-lg font-semibold">Brief</h3>
        <Link to={`${base}/change`} className="press">
          Change it
        </Link>
      </div>
      <dl className="mt-3 grid grid-cols-[auto_1fr] border-t border-hair [&>*]:border-b [&>*]:border-hair [&>*]:py-2.5 [&>dd]:text-right [&>dt]:text-ink2">
        <dt>Finish</dt>
        <dd>{FINISHES[job.finish]}</dd>
        {matte && (
          <>
            <dt>Gloss wanted</dt>
            <dd>{job.brief.targetGloss_GU === null ? "not said" : `${job.brief.targetGloss_GU} GU at 60°`}</dd>
          </>
        )}
        {told.map(([what, text]) => (
          <Fragment key={what}>
            <dt>{what}</dt>
            <dd>{text}</dd>
          </Fragment>
        ))}
        <dt>How it hangs</dt>
        <dd>{tilt === 90 ? "vertical" : tilt === 0 ? "horizontal" : `${tilt}° from level`}</dd>
        <dt>Below</dt>
        <dd>{SUBSTRATES[panel.substrate].name}</dd>
        <dt>Product</dt>
        <dd>
          {sheet.name}, {sheet.ratio || "ratio not given"}, revision {product.revision} {sheet.usual && <UsualTag />}
        </dd>
        <dt>Minimum clear</dt>
        <dd>
          {film(floor_m).text} {film(floor_m).unit} {sheet.floor_m ? "by the sheet" : "by the house"}
        </dd>
      </dl>
    </section>
  );
}
