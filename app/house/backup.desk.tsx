import { Form, Link } from "react-router";
import type { FormAnswer } from "~/kit/form/answer";
import { PageHeader } from "~/kit/shell/page-header";
import { FieldErrors } from "~/kit/ui/field";
import { SurePress } from "~/kit/ui/sure-press";
import { capital } from "~/kit/words/capital";
import { counted } from "~/kit/words/when";
import type { Route } from "./+types/backup.route";

type Copy = Route.ComponentProps["loaderData"];
type Inside = NonNullable<Copy["inside"]>;

/** What would come and go, before anything does. */
export function BackupDesk({ copy: { on, size, what, fault, inside }, answer }: { copy: Copy; answer: FormAnswer | undefined }) {
  return (
    <>
      <PageHeader title={`Backup of ${on}`} note={`${size}, ${what}`} />
      <main className="max-w-[860px] space-y-6 px-4 py-6 sm:px-6">
        <h2 className="text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]" data-testid="inside">
          {inside ? headline(inside) : "This copy cannot be used."}
        </h2>
        {fault && <p className="font-medium text-stop-ink">{fault}</p>}
        {inside && (
          <>
            <Form method="post" className="space-y-2">
              <p className="max-w-[60ch] text-ink2">What is there now is set aside whole, and can be brought back the same way.</p>
              <SurePress
                bordered
                ask="Bring it back"
                sure="Put it in the place of the shop as it is now"
                of={on}
                name="intent"
                value="bringBack"
              />
              <FieldErrors errors={answer?.message ? [answer.message] : undefined} />
            </Form>
            <Jobs jobs={inside.jobs} />
            <Others {...inside} />
          </>
        )}
        <Link to="/house/backups" className="press" data-kind="quiet">
          All backups
        </Link>
      </main>
    </>
  );
}

const jobs = (n: number): string => counted(n, "job", "jobs");

function headline({ jobs: list, same, others }: Inside): string {
  const goes = list.filter((j) => j.then === null).length;
  const comes = list.filter((j) => j.now === null).length;
  const differs = list.length - goes - comes;
  const said = [
    goes > 0 ? `${jobs(goes)} would go` : "",
    comes > 0 ? `${jobs(comes)} would come back` : "",
    differs > 0 ? `${jobs(differs)} would change` : "",
  ].filter((s) => s !== "");
  if (said.length > 0) return `${said.join(", ")}; ${same} would stay as ${same === 1 ? "it is" : "they are"}.`;
  const isSame = others.every((o) => o.then === o.now);
  return isSame ? "The same jobs and entries as now." : "The same jobs; the shelf or the cards differ.";
}

const entries = (n: number | null): string => (n === null ? "not there" : counted(n, "entry", "entries"));

function Jobs({ jobs: list }: { jobs: Inside["jobs"] }) {
  if (list.length === 0) return null;
  return (
    <table className="w-full max-w-[640px] table-fixed" data-figures>
      <caption className="pb-1 text-left font-semibold">Jobs that differ</caption>
      <thead>
        <tr className="text-left">
          <th scope="col">Job</th>
          <th scope="col">In the backup</th>
          <th scope="col">Now</th>
        </tr>
      </thead>
      <tbody>
        {list.map((j) => (
          <tr key={j.id} className="border-t border-hair">
            <th scope="row" className="py-2 text-left font-medium">
              {j.vehicle}
            </th>
            <td>{entries(j.then)}</td>
            <td>{entries(j.now)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Others({ others, newest }: Inside) {
  return (
    <table className="w-full max-w-[640px] table-fixed" data-figures>
      <caption className="pb-1 text-left font-semibold">The rest</caption>
      <thead className="sr-only">
        <tr>
          <th scope="col">What</th>
          <th scope="col">In the backup</th>
          <th scope="col">Now</th>
        </tr>
      </thead>
      <tbody>
        {others.map(({ what, then, now }) => (
          <tr key={what} className="border-t border-hair">
            <th scope="row" className="py-2 text-left font-medium">
              {capital(what)}
            </th>
            <td>{then}</td>
            <td>{now}</td>
          </tr>
        ))}
        <tr className="border-t border-hair">
          <th scope="row" className="py-2 text-left font-medium">
            Last entry
          </th>
          <td>{newest.then}</td>
          <td>{newest.now}</td>
        </tr>
      </tbody>
    </table>
  );
}
