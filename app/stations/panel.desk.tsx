import { shadeOf } from "#core/models/colour/job-colours";
import { noGaugeReads } from "#core/panel/brief";
import { Suspense, lazy, useMemo, useState } from "react";
import { Outlet, useLocation } from "react-router";
import { FINISHES } from "#core/models/ways/terms";
import type { PanelView } from "#server/views/panel-view";
import { usePrefs } from "~/kit/root/use-root";
import type { SectionPreview } from "~/kit/panel/film-section";
import type { PanelContext } from "~/kit/panel/use-panel";
import { Waterline } from "~/kit/panel/waterline";
import { later, useLater } from "~/kit/root/later";
import { OthersEntries } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/panel.route";

/**
 * Drawn on the server, and looked at before it is touched: what moves it comes after what the page itself asks. Links to the job's other panels, and on a
 * phone to the stations, lead there before their scripts have come.
 */
const late = () => import("./panel-late");
const FilmSection = lazy(() => late().then((m) => ({ default: m.FilmSection })));
const FilmStrip = lazy(() => late().then((m) => ({ default: m.FilmStrip })));
const PanelMenu = lazy(() => late().then((m) => ({ default: m.PanelMenu })));
const OtherPanels = lazy(() => late().then((m) => ({ default: m.OtherPanels })));

/** Needed by hardly any panel: they come when they are. */
const InTheWayNotice = lazy(() => import("~/kit/panel/in-the-way"));
const DoubtfulNotice = lazy(() => import("~/kit/panel/doubtful-notice"));

/** What is one tap away is worked out while a page rests; the models come for it then. */
const ahead = later(() => import("./ask-ahead"));

export function PanelLayoutDesk({ loaderData: view, params }: Pick<Route.ComponentProps, "loaderData" | "params">) {
  const { job, panel, state, standing, floor_m } = view;
  const { by } = usePrefs();
  const [preview, setPreview] = useState<SectionPreview>({});
  const base = `/jobs/${params.jobId}/panels/${params.panelId}`;
  const context = useMemo<PanelContext>(() => ({ view, base, setPreview }), [view, base]);
  const measured = state.film.spots;
  const caption = measured
    ? `Mean of the panel, ${measured} ${measured === 1 ? "spot" : "spots"} read`
    : state.film.how === "forecast" || state.film.how === "by a strip beside it"
      ? state.film.how === "forecast"
        ? "By its coats alone: no gauge reads here"
        : "By a strip beside it: no gauge reads here"
      : state.coats.length
        ? "As sprayed, predicted"
        : "Below the clear";
  const shade = shadeOf(job, panel.colour);
  const section = (
    <Suspense fallback={<div className="aspect-[190/600] max-h-[72dvh] w-full" />}>
      <FilmSection
        layers={state.layers}
        floor_m={floor_m}
        baseColour={shade.css}
        preview={preview}
        caption={caption}
        ground={noGaugeReads(panel.substrate) ? "plastic" : "metal"}
      />
    </Suspense>
  );
  return (
    <div className="flex min-h-full flex-col">
      <PageHeader
        narrow
        title={`${job.vehicle}, ${panel.name.toLowerCase()}`}
        note={
          <>
            <span className="max-lg:hidden">
              {[shade.name, FINISHES[job.finish].toLowerCase(), state.coloured && "single stage", by].filter(Boolean).join(" · ")}
            </span>
            <Suspense>
              <OtherPanels {...view} />
            </Suspense>
          </>
        }
      >
        <div className="no-print hidden flex-1 sm:block lg:max-w-[720px]">
          <Waterline base={base} reached={standing.station} />
        </div>
        <Suspense>
          <PanelMenu {...{ view, base }} />
        </Suspense>
      </PageHeader>
      <div className="flex flex-1 flex-col lg:flex-row">
        <main className="min-w-0 flex-1 px-4 py-2 sm:px-6 lg:py-5">
          <details className="no-print mb-1 lg:hidden">
            <summary
              className="flex min-h-11 cursor-pointer list-none items-center gap-2 text-[13px] font-semibold"
              aria-label="Section of the film"
            >
              <Suspense>
                <FilmStrip layers={state.layers} floor_m={floor_m} baseColour={shade.css} preview={preview} />
              </Suspense>
            </summary>
            <div className="mx-auto max-w-60 pt-3">{section}</div>
          </details>
          <OthersEntries value={view.othersEntries}>
            {state.inTheWay.length > 0 && (
              <Suspense>
                <InTheWayNotice view={view} base={base} />
              </Suspense>
            )}
            {(state.doubtful.length > 0 || state.mixed) && (
              <Suspense>
                <DoubtfulNotice view={view} base={base} />
              </Suspense>
            )}
            {/* Of another panel nothing stays: neither what was chosen nor what was being typed. */}
            <Outlet key={panel.id} context={context} />
          </OthersEntries>
          {state.film.mean !== null && <AskAhead view={view} base={base} />}
        </main>
        <aside aria-label="Section" className="no-print hidden w-[232px] shrink-0 border-l border-hair px-4 py-4 lg:block">
          {section}
        </aside>
      </div>
    </div>
  );
}

/** Only beside the stations from which a verdict is one tap away. */
function AskAhead({ view, base }: { view: PanelView; base: string }) {
  const at = useLocation().pathname.slice(base.length);
  const inspecting = at.startsWith("/inspect");
  const parts = useLater(ahead, false, !inspecting && !at.startsWith("/correct"));
  if (!parts) return null;
  if (inspecting) return <parts.AheadOfInspect view={view} />;
  return at.startsWith("/correct") ? <parts.AheadOfCorrect view={view} /> : null;
}
