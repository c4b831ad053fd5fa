import { useFetcher } from "react-router";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { FieldErrors } from "~/kit/ui/field";
import { type OutReckoned, ReleaseDesk } from "./release-check.desk";

/** Handing over in place: what it goes out by, its report, and that it goes. */
export function ReleaseHere({ reckoned }: { reckoned: OutReckoned }) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const { job, panel } = view;
  const goes = reckoned.out.verdict === "goes" || reckoned.out.verdict === "look";
  return (
    <ReleaseDesk reckoned={reckoned}>
      <KeptForm fetcher={fetcher} place="hand-over" className="mt-3 flex flex-wrap gap-2">
        <input type="hidden" name="intent" value="handOver" />
        <input type="hidden" name="formKey" value={`${view.formKey}-over`} />
        <button
          className="press min-h-14 flex-1 basis-56 text-[17px]"
          {...(goes ? { "data-kind": "main" } : {})}
          disabled={fetcher.state !== "idle"}
        >
          {goes ? "Hand it over" : "Hand it over all the same"}
        </button>
        <a className="press" href={`/do/panels/${panel.id}/report.pdf?for=customer`} download={`${job.vehicle}, ${panel.name}.pdf`}>
          Report, PDF
        </a>
        <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
      </KeptForm>
    </ReleaseDesk>
  );
}
