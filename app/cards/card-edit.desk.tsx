import { PhotoField } from "~/kit/photo/photo-field";
import { KeptForm } from "~/kit/draft/draft-form";
import { useNavigation } from "react-router";
import { CARD_CURES, CARD_ORIENTATIONS, CARD_VERDICTS, GLOSS_VERDICTS, TEXTURE_VERDICTS } from "#core/models/cards/card";
import { cardTexts } from "./card.texts";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/card-edit.route";

export function CardEditDesk({
  loaderData: { card, last, asked, products, formKey },
  actionData,
}: Pick<Route.ComponentProps, "loaderData" | "actionData">) {
  const units = useUnits();
  const busy = useNavigation().state !== "idle";
  const errors = actionData?.errors ?? {};
  const c = card?.body;
  /** What a new card takes over from the one before it. */
  const same = c ?? { ...last?.body, ...asked };
  const texts = c && cardTexts(c, units);
  const select = (name: string, label: string, options: Record<string, string>, value: string) => (
    <SelectField label={label} name={name} defaultValue={value} errors={errors[name]}>
      {Object.entries(options).map(([id, text]) => (
        <option key={id} value={id}>
          {text}
        </option>
      ))}
    </SelectField>
  );
  const known =
    (asked.productName ? undefined : products.find((p) => p.revisionId === same.productRevisionId)) ??
    products.find((p) => p.name === same.productName);
  return (
    <>
      <PageHeader
        title={card ? `Correct card ${card.number}` : "New card"}
        note={
          card
            ? "The card as it was stays in the file"
            : last
              ? `Product, base, cure and place as on card ${last.number}; a large card, same gun and hand as the job`
              : "A large card, same gun, hand, base and orientation as the job"
        }
      />
      <main className="max-w-[960px] px-4 py-6 sm:px-6">
        <KeptForm
          place="card"
          version={card?.id}
          encType="multipart/form-data"
          className="grid grid-cols-2 items-start gap-4 sm:grid-cols-4"
        >
          <input type="hidden" name="formKey" value={formKey} />
          <input type="hidden" name="productName" value={c?.productName ?? ""} />
          <Field className="col-span-2" label="Name" name="name" defaultValue={c?.name ?? asked.name} errors={errors.name} />
          <SelectField
            className="col-span-2"
            label="Product"
            name="productId"
            defaultValue={known?.revisionId ?? ""}
            errors={errors.productId}
          >
            <option value="">{c?.productName ? `${c.productName}, no longer on the shelf` : "none of the shelf"}</option>
            {products.map((p) => (
              <option key={p.revisionId} value={p.revisionId}>
                {p.name}
              </option>
            ))}
          </SelectField>
          <Field
            className="col-span-2"
            label="Mix in words"
            name="mix"
            placeholder="M 60 : gloss 40, 2:1 + 5 %"
            defaultValue={c?.mix}
            errors={errors.mix}
          />
          <Field
            label="Matting component"
            unit="% by weight"
            name="matting"
            defaultValue={initial("share", c?.mattingShare ?? asked.mattingShare, units)}
            errors={errors.matting}
            hint="empty: not about matte"
          />
          <Field label="Reducer" unit="%" name="reducer" defaultValue={initial("share", c?.reducer, units)} errors={errors.reducer} />
          <Field label="Over: base or substrate" name="base" defaultValue={same.base} errors={errors.base} />
          <Field label="Colour code" name="colourCode" defaultValue={same.colourCode} errors={errors.colourCode} />
          {select("orientation", "Sprayed", CARD_ORIENTATIONS, same.orientation ?? "vertical")}
          <Field label="Coats" name="coats" inputMode="numeric" defaultValue={same.coats ?? 2} errors={errors.coats} />
          <Field
            label="Film, dry"
            unit={units.film}
            name="film"
            defaultValue={initial("film", same.dryFilm_m, units)}
            errors={errors.film}
          />
          {select("cure", "Cure", CARD_CURES, same.cure ?? "air")}
          <Field className="col-span-2" label="Where it hangs" name="place" defaultValue={same.place} errors={errors.place} />
          <Field label="Gloss at 20°" unit="GU" name="gloss20" defaultValue={texts?.gloss20} errors={errors.gloss20} />
          <Field
            label="Gloss at 60°"
            unit="GU"
            name="gloss60"
            defaultValue={texts?.gloss60}
            errors={errors.gloss60}
            hint="several with spaces"
          />
          <Field label="Gloss at 85°" unit="GU" name="gloss85" defaultValue={texts?.gloss85} errors={errors.gloss85} />
          {select("colour", "Colour to the eye", CARD_VERDICTS, c?.colour ?? "open")}
          {select("glossVerdict", "Gloss to the eye", GLOSS_VERDICTS, c?.glossVerdict ?? "open")}
          {select("texture", "Texture to the eye", TEXTURE_VERDICTS, c?.texture ?? "open")}
          <Field className="col-span-2" label="Note" name="note" defaultValue={c?.note} errors={errors.note} />
          <div className="col-span-2">
            <PhotoField label="Photographs, up to 40 MB each" multiple errors={errors.photos} />
          </div>
          <div className="col-span-2 flex flex-wrap items-center gap-3 sm:col-span-4">
            <button className="press" data-kind="main" disabled={busy}>
              {busy ? "Storing…" : card ? "Keep the corrected card" : "Put it in the library"}
            </button>
            <FieldErrors errors={actionData?.ok === false && actionData.message ? [actionData.message] : undefined} />
          </div>
        </KeptForm>
      </main>
    </>
  );
}
