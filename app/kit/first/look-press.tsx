import { useFetcher } from "react-router";
import type { FormAnswer } from "~/kit/form/answer";
import { FieldErrors } from "~/kit/ui/field";

/** To the invented shop, or out of it for good: the whole page comes anew, as another shop's. */
export function LookPress({ intent, busy, children }: { intent: "look" | "throwAway"; busy: string; children: string }) {
  const fetcher = useFetcher<FormAnswer>();
  return (
    <fetcher.Form method="post" action="/do/demo">
      <button className="press" name="intent" value={intent} disabled={fetcher.state !== "idle"}>
        {fetcher.state === "idle" ? children : busy}
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </fetcher.Form>
  );
}
