import { useFetcher } from "react-router";
import type { RemovedPanel } from "#server/repos/removed-panel-repo";
import type { FormAnswer } from "~/kit/form/answer";
import { useMay } from "~/kit/root/use-may";
import { FieldErrors } from "~/kit/ui/field";
import { FOR_GOOD, SurePress } from "~/kit/ui/sure-press";

interface RemovePanelProps {
  panel: { name: string };
  /** It is the job's only panel. */
  alone: boolean;
  removed: readonly RemovedPanel[];
}

/** A panel added by mistake goes, with what was logged on it; it is kept until it is let go. */
export function RemovePanel({ panel, alone, removed }: RemovePanelProps) {
  const fetcher = useFetcher<FormAnswer>();
  if (!useMay("delete")) return null;
  return (
    <section aria-labelledby="remove-title">
      <h2 id="remove-title" className="mb-1 text-xl font-semibold">
        Added by mistake?
      </h2>
      {alone ? (
        <p className="mb-3 text-ink2">It is this job&rsquo;s only panel: archive the job and delete it under Jobs.</p>
      ) : (
        <>
          <p className="mb-3 max-w-[70ch] text-ink2">
            The panel goes with all that was logged on it, and counts nowhere any more. It is kept here until you let it go.
          </p>
          <fetcher.Form method="post">
            <SurePress
              name="intent"
              value="remove"
              disabled={fetcher.state !== "idle"}
              ask={`Remove ${panel.name} from this job`}
              sure={`Yes, remove ${panel.name}`}
            />
          </fetcher.Form>
        </>
      )}
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
      {removed.length > 0 && (
        <ul className="mt-3 border-t border-hair" aria-label="Removed from this job">
          {removed.map((r) => (
            <Removed key={r.panelId} panel={r} />
          ))}
        </ul>
      )}
    </section>
  );
}

function Removed({ panel: { panelId, name, by } }: { panel: RemovedPanel }) {
  const fetcher = useFetcher<FormAnswer>();
  return (
    <li className="border-b border-hair py-1">
      <fetcher.Form method="post" className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <input type="hidden" name="panelId" value={panelId} />
        <span className="min-w-0 flex-1">
          <b className="font-semibold">{name}</b> <span className="text-ink2">removed, {by}</span>
        </span>
        <button className="press" name="intent" value="takeBack" disabled={fetcher.state !== "idle"}>
          Take back<span className="sr-only"> {name}</span>
        </button>
        <SurePress name="intent" value="letGo" disabled={fetcher.state !== "idle"} ask="Let it go" sure={FOR_GOOD} of={name} />
      </fetcher.Form>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </li>
  );
}
