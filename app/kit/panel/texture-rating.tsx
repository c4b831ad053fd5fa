import { textureWords } from "~/kit/words/texture-words";
import { KeptForm } from "~/kit/draft/draft-form";
import { useFetcher } from "react-router";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "./use-panel";
import { SelectField } from "~/kit/ui/field";
import { StrikeButton } from "~/kit/shell/strike-button";

const RATINGS = Array.from({ length: 9 }, (_, i) => 1 + i / 2);
const DEFAULT_RATING = 3;

/** How a surface looks along a light tube, on the scale 1 glass … 5 heavy; a rating by eye, never a reading. */
export function TextureRating({ of }: { of: "target" | "part" }) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const last = view.state.texture.findLast((t) => t.body.role === of);
  const label = of === "target" ? "Neighbour's texture" : "Texture as sprayed";
  return (
    <KeptForm
      fetcher={fetcher}
      place={`texture ${of}`}
      key={last?.id ?? ""}
      action={`/do/panels/${view.panel.id}/texture`}
      className="flex flex-wrap items-end gap-2"
    >
      <input type="hidden" name="role" value={of} />
      <SelectField
        className="w-56"
        label={label}
        name="rating"
        defaultValue={String(last?.body.rating ?? DEFAULT_RATING)}
        errors={fetcher.data?.ok === false ? fetcher.data.errors.rating : undefined}
      >
        {RATINGS.map((r) => (
          <option key={r} value={r}>
            {r.toFixed(1)}: {textureWords(r)}
          </option>
        ))}
      </SelectField>
      <button className="press" disabled={fetcher.state !== "idle"}>
        Rate it
      </button>
      {last && (
        <span className="flex items-center text-[14px] text-ink2">
          rated {last.body.rating.toFixed(1)} by eye
          <StrikeButton entryId={last.id} what="the rating" />
        </span>
      )}
    </KeptForm>
  );
}
