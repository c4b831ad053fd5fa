import { useFetcher } from "react-router";
import { DEFECTS } from "#core/models/defects/catalogue";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { show } from "#core/kernel/units/format";
import type { Quantity } from "#core/kernel/units/quantities";
import { holdOfMark, seenToOf } from "#core/panel/seen-to";
import type { EntryOf } from "#core/record/entry";
import { SEEN_TO } from "#core/record/kinds";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { StrikeButton } from "~/kit/shell/strike-button";
import { useNow } from "~/kit/shell/now";
import { whenText } from "~/kit/words/when";

/** What is marked on the panel: where, how big, what it holds back and what was done to it since. */
export function MarkList() {
  const { defects } = usePanel().view.state;
  return (
    <ul className="border-t border-hair empty:hidden">
      {defects.map((d) => (
        <Mark key={d.id} mark={d} />
      ))}
    </ul>
  );
}

function Mark({ mark }: { mark: EntryOf<"defect"> }) {
  const { panel, state } = usePanel().view;
  const units = useUnits();
  const now_ms = useNow();
  const { body } = mark;
  const name = DEFECTS[body.kind].name.toLowerCase();
  const told = seenToOf(state, mark);
  const hold = holdOfMark(state, mark);
  const size = (m: number | null, q: Quantity) => (m === null ? null : `${show(q, m, units).text} ${show(q, m, units).unit}`);
  return (
    <li className="border-b border-hair">
      <div className="flex items-center justify-between gap-3">
        {body.photoId && (
          <a href={`/do/photos/${body.photoId}?original`} className="grid min-h-11 place-content-center">
            <img
              src={`/do/photos/${body.photoId}`}
              alt={`Photograph of the ${name}: the original`}
              width={56}
              height={42}
              className="h-[42px] w-14 object-cover"
            />
          </a>
        )}
        <span className="mr-auto">
          <b className="font-semibold">
            {body.count > 1 && `${body.count} × `}
            {name}
          </b>{" "}
          <span className="text-ink2">
            {[placeInWords([body.at.x_m, body.at.y_m], panel.shape), size(body.height_m, "film"), size(body.length_m, "length")]
              .filter(Boolean)
              .join(", ")}
            {body.height_m !== null && !body.measured && " by eye"}
          </span>
        </span>
        <StrikeButton entryId={mark.id} what={`the ${name}`} />
      </div>
      {told ? (
        <p className="flex items-center justify-between gap-3 text-ink2">
          {SEEN_TO[told.body.as]}, {whenText(told.at_ms, now_ms)}
          <StrikeButton entryId={told.id} what={`that the ${name} is ${SEEN_TO[told.body.as]}`} />
        </p>
      ) : (
        hold && <SeeTo mark={mark} until={hold.until} name={name} />
      )}
    </li>
  );
}

const TELL = {
  hard: "It is hard now",
  dry: "It is dry now",
  stripped: "It was taken back to what is sound",
  resprayed: "It was sprayed again below",
} as const satisfies Record<keyof typeof SEEN_TO, string>;

/** Says that what the fault holds back for is done. */
function SeeTo({ mark, until, name }: { mark: EntryOf<"defect">; until: keyof typeof SEEN_TO; name: string }) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  return (
    <fetcher.Form method="post" className="flex flex-wrap items-center gap-x-3 pb-2">
      <input type="hidden" name="intent" value="seenTo" />
      <input type="hidden" name="markId" value={mark.id} />
      <input type="hidden" name="as" value={until} />
      <input type="hidden" name="formKey" value={`${view.formKey}-seen-${mark.id}`} />
      <span className="text-stop-ink">It holds work back.</span>
      <button className="press" disabled={fetcher.state !== "idle"}>
        {TELL[until]}
        <span className="sr-only">: {name}</span>
      </button>
    </fetcher.Form>
  );
}
