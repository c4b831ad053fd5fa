import { Link, useFetcher } from "react-router";
import { USUAL_NAMES } from "#core/models/product/usual-names";
import type { FormAnswer } from "~/kit/form/answer";
import { FieldErrors } from "~/kit/ui/field";

/**
 * A first clear in one press, with its hardener and reducer, by usual figures that the product's own sheet replaces later.
 * @param asked the page that wants a clear: a sheet that is stored leads back there
 */
export function UsualClears({ asked }: { asked?: "floor" | "job" }) {
  const fetcher = useFetcher<FormAnswer>();
  return (
    <fetcher.Form method="post" action="/do/usual" className="space-y-2" data-testid="usual-clears">
      <div className="flex flex-wrap gap-2">
        {Object.entries(USUAL_NAMES).map(([id, name]) => (
          <button key={id} className="press" name="usual" value={id} disabled={fetcher.state !== "idle"}>
            {name}
          </button>
        ))}
        <Link to={asked ? `/shelf/new?for=${asked}` : "/shelf/new"} className="press" data-kind="quiet">
          From its sheet
        </Link>
      </div>
      <p className="text-[14px] text-ink2">Usual figures, nobody&rsquo;s product: replace them by your sheet.</p>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </fetcher.Form>
  );
}
