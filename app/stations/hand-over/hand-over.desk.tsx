import type { LedgerList } from "~/kit/panel/ledger-list";
import { Suspense, lazy, useState } from "react";
import { shadeOf } from "#core/models/colour/job-colours";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { FieldErrors, OwnInput } from "~/kit/ui/field";
import { KeptForm } from "~/kit/draft/draft-form";
import { Link, useFetcher, useSearchParams, type SetURLSearchParams, type FetcherWithComponents } from "react-router";
import { show } from "#core/kernel/units/format";
import { FINISHES } from "#core/models/ways/terms";
import { later, useLater } from "~/kit/root/later";
import { useRoot, useUnits } from "~/kit/root/use-root";
import { PanelDrawing } from "~/kit/panel/panel-drawing";
import { Toggle } from "~/kit/ui/toggle";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Tag } from "~/kit/ui/tag";
import { REPORT_FOOT, REPORT_READERS, reportReader } from "./report-reader";
import type { Route } from "./+types/hand-over.route";
import { usePanel } from "~/kit/panel/use-panel";
import type { FormAnswer } from "~/kit/form/answer";

/** What it may go out by asks the models of film, flow and gloss; the report stands there without them. */
const ReleaseDesk = lazy(() => import("./release-check.desk").then((m) => ({ default: m.ReleaseDesk })));

const ledgerList = later(() => import("~/kit/panel/ledger-list"));

export function HandOverDesk({ loaderData: { report, today, log, logged, reckoned } }: Pick<Route.ComponentProps, "loaderData">) {
  const { view } = usePanel();
  const { shop } = useRoot();
  const units = useUnits();
  const [params, setParams] = useSearchParams();
  const reader = reportReader(params.get("for"));
  const fetcher = useFetcher<FormAnswer>();
  const [ledgerWanted, setLedgerWanted] = useState(false);
  const ledger = useLater(ledgerList, ledgerWanted, true);
  const { job, panel, state } = view;
  const nothingYet = state.coats.length === 0 && state.spots.length === 0;
  const digits = units.film === "µm" ? 0 : 1;
  return (
    <article className="max-w-[860px]">
      <Suspense>
        <ReleaseDesk reckoned={reckoned}>
          {state.handedOver ? (
            <div className="flex flex-wrap items-center gap-3">
              {state.handedOver.body.note && <p>{state.handedOver.body.note}</p>}
              <span className="no-print flex items-center text-ink2">
                Handed over by mistake?
                <StrikeButton entryId={state.handedOver.id} what="the hand-over" />
              </span>
            </div>
          ) : (
            <SignForm {...{ fetcher, nothingYet }} />
          )}
        </ReleaseDesk>
      </Suspense>
      <Leads {...{ reader, setParams }} />
      <header className="flex flex-wrap justify-between gap-4 border-y border-hair py-4">
        <div>
          <p className="text-lg font-semibold">
            {job.vehicle}, {panel.name}
          </p>
          <p className="text-ink2">
            {shadeOf(job, panel.colour).name} · {FINISHES[job.finish]} · {job.way.name}
          </p>
        </div>
        <p className="text-right">
          {shop.name}
          <span className="block text-ink2">{today}</span>
        </p>
      </header>
      <PanelFacts {...{ digits, report, reader }} />
      {state.defects.some((d) => d.body.photoId) && (
        <ul className="flex flex-wrap gap-3 pb-4" aria-label="Photographs">
          {state.defects.flatMap((d) =>
            d.body.photoId
              ? [
                  <li key={d.id}>
                    <img
                      src={`/do/photos/${d.body.photoId}`}
                      alt={`${DEFECT_KINDS[d.body.kind].name} on the ${panel.name.toLowerCase()}`}
                      width={180}
                      height={135}
                      className="h-[135px] w-[180px] object-cover"
                    />
                  </li>,
                ]
              : [],
          )}
        </ul>
      )}
      {state.simulated && (
        <p className="pb-3">
          <Tag kind="simulated">Some readings are simulated, not of a real panel</Tag>
        </p>
      )}
      <p className="border-t border-hair py-3 text-[13px] text-ink2">{REPORT_FOOT}</p>
      <LedgerBelow {...{ setLedgerWanted, logged, ledger, log }} />
    </article>
  );
}

/** What can be taken along, and what is next. */
function Leads({ reader, setParams }: { reader: "shop" | "customer"; setParams: SetURLSearchParams }) {
  const { view, base } = usePanel();
  const { job, panel, state } = view;
  const clear = state.film.mean;
  return (
    <div className="no-print mb-5 flex flex-wrap items-center gap-3">
      <h2 className="mr-auto text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
        {state.handedOver ? "Handed over." : clear ? "What the customer gets." : "Not measured yet."}
      </h2>
      <button type="button" className="press" onClick={() => window.print()}>
        Print
      </button>
      <a className="press" href={`/do/panels/${panel.id}/report.pdf?for=${reader}`} download={`${job.vehicle}, ${panel.name}.pdf`}>
        PDF
      </a>
      <Toggle
        label="The report is"
        value={reader}
        onChange={(v) => setParams({ for: v }, { replace: true, preventScrollReset: true })}
        options={Object.entries(REPORT_READERS).map(([value, name]) => ({ value, name }))}
      />
      <a className="press" href={`/do/panels/${panel.id}/readings.csv`} download>
        Readings as CSV
      </a>
      <a className="press" href={`/do/panels/${panel.id}/ledger.csv`} download>
        Ledger as CSV
      </a>
      {state.coats.length >= panel.coatsPlanned && (
        <a className="press" href={`/do/panels/${panel.id}/cure.ics`} download>
          Calendar
        </a>
      )}
      <a className="press" href={`/do/jobs/${job.id}/bundle.json`} download={`${job.vehicle}.yakamoz.json`}>
        Job file
      </a>
      <Link className="press" to={`${base}/hand-over/next-time`}>
        Next time
      </Link>
    </div>
  );
}

/** The panel with its figures. */
function PanelFacts({
  digits,
  report,
  reader,
}: {
  digits: 0 | 1;
  report: { shop: { label: string; value: string }[]; customer: { label: string; value: string }[] };
  reader: "shop" | "customer";
}) {
  const { view } = usePanel();
  const units = useUnits();
  const {
    panel,
    state,
    panel: { shape },
  } = view;
  return (
    <div className="grid gap-8 py-5 sm:grid-cols-[1.1fr_1fr] print:grid-cols-2">
      <PanelDrawing
        shape={shape}
        spots={state.spots.map((s) => ({
          name: s.name,
          at: s.at,
          text: s.clear ? show("film", s.clear.clear_m, units, digits).text : s.name,
          state: "read" as const,
        }))}
        label={`${panel.name}: clear at ${state.film.spots} spots in ${units.film}`}
      />
      <dl className="grid grid-cols-[auto_1fr] content-start">
        {report[reader].map((l) => (
          <div key={l.label} className="contents [&>*]:border-b [&>*]:border-hair [&>*]:py-2">
            <dt className="text-ink2">{l.label}</dt>
            <dd className="pl-4 text-right font-medium">{l.value}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

/** Handed over, by whom. */
function SignForm({ fetcher, nothingYet }: { fetcher: FetcherWithComponents<FormAnswer>; nothingYet: boolean }) {
  const { view } = usePanel();
  return (
    <KeptForm fetcher={fetcher} place="hand-over" className="no-print mt-3 flex flex-wrap items-end gap-3">
      <input type="hidden" name="intent" value="handOver" />
      <input type="hidden" name="formKey" value={`${view.formKey}-over`} />
      {nothingYet && (
        <p className="w-full font-semibold text-amber-ink" data-testid="nothing-yet">
          Nothing is sprayed and nothing is read on this panel: the report is empty.
        </p>
      )}
      <label className="min-w-60 flex-1">
        <span className="small-label mb-1 block">Note for the customer or the next painter</span>
        <OwnInput name="note" className="field" maxLength={400} />
      </label>
      <button className="press" {...(nothingYet ? {} : { "data-kind": "main" })} disabled={fetcher.state !== "idle"}>
        {nothingYet ? "Hand over all the same" : "Hand over"}
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
  );
}

/** All entries, fetched when they are asked for. */
function LedgerBelow({
  setLedgerWanted,
  logged,
  ledger,
  log,
}: {
  setLedgerWanted: React.Dispatch<React.SetStateAction<boolean>>;
  logged: number;
  ledger: { LedgerList: typeof LedgerList } | null;
  log: Route.ComponentProps["loaderData"]["log"];
}) {
  const { view, base } = usePanel();
  const {
    panel: { shape },
  } = view;
  return (
    <details className="no-print mt-8" onToggle={() => setLedgerWanted(true)}>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">The panel’s ledger, {logged} entries</summary>
      {ledger && <ledger.LedgerList log={log} shape={shape} base={base} />}
      {logged > log.length && (
        <p className="mt-3">
          <Link className="press" to={`${base}/ledger`}>
            The whole ledger
          </Link>
        </p>
      )}
    </details>
  );
}
