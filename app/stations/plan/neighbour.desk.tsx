import { PhotoField } from "~/kit/photo/photo-field";
import { More } from "~/kit/ui/more";
import { useFetcher } from "react-router";
import { neighbourOf, type Neighbour } from "#core/panel/neighbour";
import { showFilm } from "#core/kernel/units/format";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { StrikeButton } from "~/kit/shell/strike-button";
import { BigFigures } from "~/kit/ui/big-figures";
import { Field, FieldErrors } from "~/kit/ui/field";
import { textureWords } from "~/kit/words/texture-words";

/** The panel beside: what this one has to match, read and seen before the gun is filled. */
export function NeighbourDesk() {
  const { view } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  const { state } = view;
  const beside = neighbourOf(state);
  const figures = beside
    ? [
        ...(beside.film_m === null
          ? []
          : [{ big: `${showFilm(beside.film_m, units).text} ${units.film}`, small: "all its layers, by the gauge" }]),
        ...(beside.rating === null ? [] : [{ big: beside.rating.toFixed(1), small: `its texture by eye: ${textureWords(beside.rating)}` }]),
        ...(beside.gloss60_GU === null ? [] : [{ big: `${beside.gloss60_GU.toFixed(1)} GU`, small: "its gloss at 60°" }]),
      ]
    : [];
  return (
    <section aria-labelledby="neighbour-title">
      <Heading {...{ figures, beside }} />
      {figures.length > 0 && <BigFigures figures={figures} testId="neighbour-figures" />}
      {beside?.photoId && (
        <a href={`/do/photos/${beside.photoId}?original`} className="mt-4 inline-block">
          <img
            src={`/do/photos/${beside.photoId}`}
            alt="Photograph of the panel beside: the original"
            width={240}
            height={180}
            className="h-[180px] w-[240px] object-cover"
          />
        </a>
      )}
      <KeptForm
        fetcher={fetcher}
        place="neighbour"
        className="mt-6 grid max-w-[760px] grid-cols-2 items-start gap-3 sm:grid-cols-4"
        encType="multipart/form-data"
      >
        <input type="hidden" name="formKey" value={`${view.formKey}-neighbour`} />
        <Field
          className="col-span-2"
          label="Panel beside"
          name="name"
          defaultValue={beside?.name ?? ""}
          inputMode="text"
          errors={errors.name}
        />
        <Field
          className="col-span-2"
          label="Film, several with spaces"
          unit={units.film}
          name="films"
          errors={errors.films}
          hint="on an undamaged, clean place"
        />
        <Field label="Texture, 1 glass to 5 heavy" name="rating" errors={errors.rating} hint="along a light tube" />
        <Field label="Gloss at 60°" unit="GU" name="gloss" errors={errors.gloss} />
        <div className="col-span-2">
          <PhotoField errors={errors.photos} />
        </div>
        <button className="press col-span-2 sm:col-span-4" data-kind="main" disabled={fetcher.state !== "idle"}>
          Keep it as the neighbour
        </button>
      </KeptForm>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
      {state.neighbours.length > 0 && <Noted />}
      <More className="mt-4">
        <p className="max-w-[75ch] text-[13px] text-ink2">
          A flat panel beside a textured one looks as wrong as the reverse. A rating by eye is no reading; the newest counts. Daylight, side
          by side, after clear and after polishing decides.
        </p>
      </More>
    </section>
  );
}

/** How the neighbour stands to this panel. */
function Heading({ figures, beside }: { figures: { big: string; small: string }[]; beside: Neighbour | null }) {
  const { view } = usePanel();
  const { job } = view;
  return (
    <h2
      id="neighbour-title"
      className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
      data-testid="neighbour-sentence"
    >
      {figures.length > 0 ? (
        <>
          {beside?.name ?? "The panel beside"} is what this one has to match.{" "}
          <em className="text-glow-ink not-italic">{job.finish === "match" ? "Its texture decides." : "It stands beside the verdict."}</em>
        </>
      ) : (
        "Read the panel beside before the gun is filled: what this one has to match."
      )}
    </h2>
  );
}

/** Neighbours as they were noted. */
function Noted() {
  const { view } = usePanel();
  const { state } = view;
  return (
    <ul className="mt-5 max-w-[760px] border-t border-hair" aria-label="Neighbours noted">
      {state.neighbours.map((n) => (
        <li key={n.id} className="flex items-center justify-between gap-3 border-b border-hair">
          <span>
            <b className="font-semibold">{n.body.name}</b>{" "}
            <span className="text-ink2">
              {[
                n.body.readings.map((r) => `${r.entered} ${r.unit}`).join(", "),
                n.body.rating === null ? "" : `texture ${n.body.rating.toFixed(1)} by eye`,
                n.body.gloss60_GU === null ? "" : `${n.body.gloss60_GU} GU`,
              ]
                .filter(Boolean)
                .join(" · ")}
            </span>
          </span>
          <StrikeButton entryId={n.id} what={n.body.name} />
        </li>
      ))}
    </ul>
  );
}
