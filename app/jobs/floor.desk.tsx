import { More } from "~/kit/ui/more";
import { Suspense, lazy } from "react";
import { ArrowRight, TriangleAlert } from "lucide-react";
import { Link } from "react-router";
import { STATION_NAMES } from "#core/panel/station";
import { FINISHES } from "#core/models/ways/terms";
import { useRoot } from "~/kit/root/use-root";
import { CanTag } from "~/kit/panel/can-tag";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/floor.route";

/** Of an empty shop alone. */
const FirstHour = lazy(() => import("./first-hour").then((m) => ({ default: m.FirstHour })));

export function FloorDesk({ loaderData: { first, jobs, cans, count, open, wanting } }: Pick<Route.ComponentProps, "loaderData">) {
  const { shop, keeping } = useRoot();
  return (
    <>
      <PageHeader title={shop.name} note="What is on the floor today" />
      <main className="grid gap-x-10 gap-y-8 px-4 py-6 sm:px-6 lg:grid-cols-[1fr_300px]">
        <section>
          <h2 className="text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
            {jobs.length === 0
              ? "No job yet. This leads to the first one."
              : `${open} ${open === 1 ? "job" : "jobs"} open${wanting ? `, ${wanting} ${wanting === 1 ? "panel wants" : "panels want"} you.` : ", nothing waits for you."}`}
          </h2>
          {keeping.fault && (
            <Link to="/house/backups" className="mt-1 inline-flex min-h-11 items-center gap-1.5 font-medium text-amber-ink underline">
              <TriangleAlert size={16} aria-hidden />
              The backups want a look.
            </Link>
          )}
          {first ? (
            <Suspense>
              <FirstHour first={first} />
            </Suspense>
          ) : (
            <Link to="/jobs/new" className="press mt-3 w-full lg:hidden" data-kind="main">
              New job
            </Link>
          )}
          <ul className="mt-3 border-t border-hair empty:hidden lg:mt-6" data-figures>
            {jobs.map((j) => (
              <JobRow key={j.id} {...{ j }} />
            ))}
          </ul>
          {count > jobs.length && (
            <Link to="/jobs" className="press mt-4">
              All {count} jobs
            </Link>
          )}
        </section>
        <Start {...{ cans }} />
      </main>
    </>
  );
}

/** A job with its panels, each with what is next. */
function JobRow({ j }: { j: Route.ComponentProps["loaderData"]["jobs"][number] }) {
  return (
    <li className="grid gap-x-6 border-b border-hair py-3 sm:grid-cols-[minmax(0,220px)_1fr]">
      <Link to={`/jobs/${j.id}`} className="flex min-h-11 items-center gap-3 rounded-press">
        <span aria-hidden className="h-9 w-4 shrink-0" style={{ background: j.colourCss }} />
        <span className="min-w-0">
          <span className="block truncate text-[17px] font-semibold">{j.vehicle}</span>
          <span className="block truncate text-[13px] text-ink2">
            {j.colourName} · {FINISHES[j.finish].toLowerCase()}
          </span>
        </span>
      </Link>
      <ul>
        {j.panels.map((p) => (
          <li key={p.id}>
            <Link
              to={`/jobs/${j.id}/panels/${p.id}/course`}
              className="grid min-h-11 grid-cols-[minmax(0,1fr)_auto_20px] items-center gap-3 rounded-press px-2 hover:bg-glow-wash"
            >
              <span className="truncate">
                <b className="font-semibold">{p.name}</b> <span className="text-ink2">{STATION_NAMES[p.station].toLowerCase()}</span>
              </span>
              <span
                className={`flex items-center gap-1.5 text-right text-[14px] ${p.attention ? "font-semibold text-amber-ink" : "text-ink2"}`}
              >
                {p.attention && <TriangleAlert size={16} aria-label="wants attention" />}
                {p.next}
              </span>
              <ArrowRight size={17} aria-hidden className="text-ink2" />
            </Link>
          </li>
        ))}
      </ul>
    </li>
  );
}

/** Where a day begins: a job, a question, the cans. */
function Start({ cans }: { cans: Route.ComponentProps["loaderData"]["cans"] }) {
  return (
    <aside aria-label="Start" className="space-y-7">
      <Link to="/jobs/new" className="press w-full max-lg:hidden" data-kind="main">
        New job
      </Link>
      <section>
        <h2 className="text-lg font-semibold">Can I sand this?</h2>
        <p className="mt-1 text-ink2">Readings in, the chance of cutting through out.</p>
        <Link to="/ask/sand" className="press mt-3 w-full">
          Ask now
        </Link>
      </section>
      <section className="space-y-2">
        <h2 className="text-lg font-semibold">Before the gun is filled</h2>
        <Link to="/ask/run" className="press w-full">
          Will it run?
        </Link>
        <Link to="/ask/mix" className="press w-full">
          How much do I mix?
        </Link>
        <Link to="/ask/matte" className="press w-full">
          Which matte mix?
        </Link>
      </section>
      {cans.length > 0 && (
        <section>
          <h2 className="text-lg font-semibold">Cans</h2>
          <ul className="mt-1 border-t border-hair">
            {cans.map((c) => (
              <li key={c.id} className="border-b border-hair">
                <Link
                  to={`/shelf/cans/${c.id}`}
                  className="flex min-h-11 items-center justify-between gap-2 rounded-press hover:bg-glow-wash"
                >
                  {c.name}
                  <CanTag state={c.age.state} words={c.age.words} />
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className="text-[13px] text-ink2">
        <h2 className="font-semibold text-ink">Before you spray</h2>
        <p className="mt-1">
          Two-pack clears contain isocyanates: supplied air, or what the safety data sheet and your local rules require.
        </p>
        <More label="More on this">
          <p>A dust mask does not stop vapour. Spray only in a ventilated place with nothing that can ignite it.</p>
        </More>
      </section>
    </aside>
  );
}
