import type { ColumnDef } from "@tanstack/react-table";
import { Link } from "react-router";
import { FINISHES, type Finish } from "#core/models/ways/terms";
import { ListFoot, ListTable, ListTools } from "~/kit/list/list-view";
import { ONE_COLUMN, useList } from "~/kit/list/use-list";
import { useMay } from "~/kit/root/use-may";
import { FOR_GOOD, SurePress } from "~/kit/ui/sure-press";
import type { JobIntent } from "./use-job-actions";

/** Jobs of one page. */
export const JOBS_A_PAGE = 40;
/** So many are seen at a glance, without a search. */
const FEW = 8;
const FINISH_VALUES = Object.entries(FINISHES).map(([value, name]) => ({ value, name }));

interface JobLine {
  id: string;
  vehicle: string;
  colourName: string;
  finish: Finish;
  from: string;
}
type Act = (intent: JobIntent, job: { id: string; vehicle: string }) => void;

/** Jobs on the floor or put away; the server has searched, sorted and cut them to a page. */
export function JobList({
  id,
  caption,
  listed,
  archived,
  act,
}: {
  id: string;
  caption: string;
  listed: { all: number; found: number; jobs: readonly JobLine[] };
  archived: boolean;
  act: Act;
}) {
  const button = (job: JobLine, intent: JobIntent, label: string) => (
    <button type="button" className="press" data-kind="quiet" onClick={() => act(intent, job)}>
      {label}
      <span className="sr-only"> {job.vehicle}</span>
    </button>
  );
  const columns: ColumnDef<JobLine>[] = [
    {
      id: "vehicle",
      accessorKey: "vehicle",
      header: "Vehicle",
      cell: ({ row: { original: j } }) => (
        <Link to={`/jobs/${j.id}`} className="flex min-h-11 items-center font-semibold underline-offset-4 hover:underline">
          {j.vehicle}
        </Link>
      ),
    },
    { id: "colour", accessorKey: "colourName", header: "Colour", meta: { cell: "hidden sm:table-cell" } },
    { id: "finish", accessorFn: (j) => FINISHES[j.finish], header: "Finish", meta: { cell: "hidden sm:table-cell" } },
    { id: "from", accessorKey: "from", header: "From" },
    {
      id: "put",
      header: () => <span className="sr-only">{archived ? "Restore or delete" : "Archive"}</span>,
      enableSorting: false,
      meta: { cell: "text-right" },
      cell: ({ row: { original: j } }) =>
        archived ? (
          <span className="flex flex-wrap justify-end">
            {button(j, "bringBack", "Restore")}
            {button(j, "delete", "Delete")}
          </span>
        ) : (
          button(j, "putAway", "Archive")
        ),
    },
  ];
  const shown = useMay("delete") ? columns : columns.filter((c) => c.id !== "put");
  const list = useList({ id, rows: listed.jobs, columns: shown, text: () => "", most: JOBS_A_PAGE, onServer: { found: listed.found } });
  const what = archived ? "archived jobs" : "jobs on the floor";
  return (
    <section aria-label={caption} className="space-y-3">
      {(listed.all > FEW || list.state.search || list.state.only) && (
        <ListTools list={list} label={`Search the ${what}`} only={{ label: "Finish", values: FINISH_VALUES }} />
      )}
      <ListTable list={list} caption={caption} />
      <ListFoot list={list} what={what} none="No job is on the floor." />
    </section>
  );
}

interface RemovedLine {
  jobId: string;
  vehicle: string;
  on: string;
  by: string;
}

/** Deleted jobs: what is left of each is its job file, to be taken back in, saved elsewhere or let go. */
export function RemovedList({ removed, act }: { removed: readonly RemovedLine[]; act: Act }) {
  const deletes = useMay("delete");
  const list = useList({
    id: "deleted",
    rows: removed,
    columns: ONE_COLUMN,
    text: (r) => `${r.vehicle} ${r.on} ${r.by}`,
    most: JOBS_A_PAGE,
  });
  if (!deletes) return null;
  return (
    <section aria-label="Deleted" className="space-y-3">
      <h2 className="text-lg font-semibold">Deleted</h2>
      <p className="max-w-[60ch] text-ink2">
        Of these only the job file is left. Nothing of them counts any more, in no list and no learnt figure.
      </p>
      {removed.length > FEW && <ListTools list={list} label="Search the deleted jobs" />}
      <ul className="border-t border-hair">
        {list.table.getRowModel().rows.map(({ original: { jobId, vehicle, on, by } }) => {
          const job = { id: jobId, vehicle };
          return (
            <li key={jobId} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-1">
              <span className="min-w-0 flex-1">
                <b className="font-semibold">{vehicle}</b>
                <span className="block text-[13px] text-ink2">
                  {on}, {by}
                </span>
              </span>
              <button type="button" className="press" onClick={() => act("takeBack", job)}>
                Restore<span className="sr-only"> {vehicle}</span>
              </button>
              <a className="press" href={`/do/jobs/${jobId}/bundle.json`} download={`${vehicle}.yakamoz.json`}>
                Job file<span className="sr-only"> of {vehicle}</span>
              </a>
              <SurePress type="button" ask="Let the file go too" sure={FOR_GOOD} of={vehicle} onSure={() => act("forget", job)} />
            </li>
          );
        })}
      </ul>
      <ListFoot list={list} what="deleted jobs" none="" />
    </section>
  );
}
