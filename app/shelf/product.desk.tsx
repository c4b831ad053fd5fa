import { KeptForm } from "~/kit/draft/draft-form";
import { FLOW_CUPS, FLOW_CUP_IDS, cupReading } from "#core/models/product/flow-cup";
import { SECOND_PARTS } from "#core/models/product/roles";
import { COAT_KINDS } from "#core/models/product/kinds";
import { show } from "#core/kernel/units/format";
import { preferredUnit } from "#core/kernel/units/quantities";
import { sheetTexts } from "./sheet.texts";
import { useUnits } from "~/kit/root/use-root";
import { RatioField } from "./ratio-field";
import { CommonFields } from "./common-fields";
import { Field, FieldErrors, OwnInput, SelectField, TextArea } from "~/kit/ui/field";
import { UsualTag } from "~/kit/first/usual-tag";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/product.route";
import { inUnits } from "#core/kernel/units/in-units";

const NEEDED = "needed";

export function ProductPageDesk({
  loaderData: { product, formKey, parts, partners },
  actionData,
}: Pick<Route.ComponentProps, "loaderData" | "actionData">) {
  const units = useUnits();
  const errors = actionData?.errors ?? {};
  const s = product?.sheet;
  const texts = sheetTexts(s, units);
  const minutes = (name: string, label: string, hint?: string) => (
    <Field label={label} unit="min" name={name} defaultValue={texts[name]} errors={errors[name]} {...(hint ? { hint } : {})} />
  );
  const quantity = (kind: "share" | "film", name: string, label: string, hint?: string) => (
    <Field
      label={label}
      unit={kind === "share" ? "%" : units.film}
      name={name}
      defaultValue={texts[name]}
      errors={errors[name]}
      {...(hint ? { hint } : {})}
    />
  );
  const ofGun = (kind: "pressure" | "length", name: string, label: string) => (
    <Field
      label={label}
      unit={preferredUnit(kind, units)}
      name={name}
      defaultValue={texts[name]}
      errors={errors[name]}
      hint="empty: not on the sheet"
    />
  );
  return (
    <>
      <PageHeader
        title={s?.name ?? "New product"}
        note={
          product
            ? `Revision ${product.revision}; jobs keep the revision they were planned with`
            : "Type the figures of its data sheet; seven are needed, and say so"
        }
      />
      <main className="max-w-[960px] px-4 py-6 sm:px-6">
        {s?.usual && (
          <p className="mb-4">
            <UsualTag /> Every figure below is a usual one of its kind, nobody&rsquo;s product. Saved with your sheet&rsquo;s figures it is
            marked no longer.
          </p>
        )}
        <KeptForm place="sheet" version={product?.revisionId} className="space-y-8">
          <input type="hidden" name="formKey" value={formKey} />
          <Group title="What it is">
            <Field className="col-span-2" label="Name" name="name" defaultValue={texts.name} errors={errors.name} hint={NEEDED} />
            <SelectField label="Kind" name="kind" defaultValue={s?.kind ?? "clear"} errors={errors.kind}>
              {COAT_KINDS.map((k) => (
                <option key={k} value={k}>
                  {k}
                </option>
              ))}
            </SelectField>
            <SelectField label="Hardener speed" name="speed" defaultValue={s?.speed ?? "medium"} errors={errors.speed}>
              <option value="fast">fast</option>
              <option value="medium">medium</option>
              <option value="slow">slow</option>
            </SelectField>
            <RatioField defaultValue={texts.ratio} errors={errors.ratio} />
            <SelectField label="Second in it" name="secondPart" defaultValue={s?.secondPart ?? ""} errors={errors.secondPart}>
              <option value="">as usual for its kind</option>
              {Object.entries(SECOND_PARTS).map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
            {quantity("share", "reducerMin", "Reducer, least", "on top of the activated mix")}
            {quantity("share", "reducerMax", "Reducer, most")}
            {quantity("share", "solids", "Solids by volume, mixed", NEEDED)}
          </Group>
          <Group title="How it is sprayed">
            <Field label="Coats" name="coats" inputMode="numeric" defaultValue={texts.coats} errors={errors.coats} />
            {quantity("film", "filmMin", "Film a coat, least", NEEDED)}
            {quantity("film", "filmMax", "Film a coat, most", NEEDED)}
            {quantity("film", "floor", "Minimum clear by the sheet", "empty: the house's own")}
            {minutes("flashMin", "Flash, least", inUnits("needed; at 20 °C", units))}
            {minutes("flashMax", "Flash, most", NEEDED)}
            {minutes("flashWarm", inUnits("Flash at 30 °C", units), "empty: not on the sheet")}
            {minutes("potLife", "Pot life", inUnits("needed; at 20 °C", units))}
            {minutes("potLifeWarm", inUnits("Pot life at 30 °C", units), "empty: not on the sheet")}
            {minutes("overcoatMin", "Overcoat from", "another product on it; empty: as usual")}
            {minutes("overcoatMax", "Overcoat until", "then it is scuffed first")}
            <SelectField
              label="Thinned with"
              name="carrier"
              defaultValue={s?.carrier ?? ""}
              errors={errors.carrier}
              hint="decides cleaners and drying"
            >
              <option value="">not said</option>
              <option value="solvent">solvent</option>
              <option value="water">water</option>
            </SelectField>
            <SelectField label="Flow cup" name="cup" defaultValue={s?.viscosity?.cup ?? ""} errors={errors.cup}>
              <option value="">not measured</option>
              {FLOW_CUP_IDS.map((c) => (
                <option key={c} value={c}>
                  {FLOW_CUPS[c].name}
                </option>
              ))}
            </SelectField>
            <Field
              label="Runs out in"
              unit="s"
              name="efflux"
              defaultValue={texts.efflux}
              errors={errors.efflux}
              hint={cupHint(s?.viscosity)}
            />
          </Group>
          <Group title="The gun that its sheet asks for">
            <Field
              label="Nozzle size"
              name="nozzle"
              inputMode="decimal"
              defaultValue={texts.nozzle}
              errors={errors.nozzle}
              hint="as on the nozzle: 1.3"
            />
            {ofGun("pressure", "gunPressure", "Pressure at the gun")}
            {ofGun("length", "gunDistance", "Distance")}
            {ofGun("length", "gunFan", "Fan")}
          </Group>
          <Group title={inUnits("How it cures, at 20 °C", units)}>
            {minutes("dustFree", "Out of dust")}
            {minutes("tape", "Tape")}
            {minutes("sandAfter", "Sand", "needed; also 12 h, or overnight")}
            {minutes("polish", "Polish")}
            <Field label="Wax" unit="days" name="waxDays" defaultValue={texts.waxDays} errors={errors.waxDays} />
            <Field
              label="Or bake the part at"
              unit={units.temperature}
              name="bakePart"
              defaultValue={texts.bakePart}
              errors={errors.bakePart}
            />
            {minutes("bakeTime", "for, then sand")}
          </Group>
          <Group title="What it weighs and gives off">
            <CommonFields texts={texts} errors={errors} />
          </Group>
          <TextArea
            className="max-w-[28rem]"
            label="Matte levels of the sheet: per cent matting component = GU at 60°, one a line"
            name="levels"
            rows={3}
            defaultValue={texts.levels}
            errors={errors.levels}
          />
          <Group title="What it is mixed with">
            <fieldset className="col-span-full">
              <legend className="small-label">Hardeners, reducers and additives its sheet names; none ticked: any of the shelf</legend>
              <div className="flex flex-wrap gap-x-6">
                {[...new Set([...parts, ...(s?.goesWith ?? [])])].map((name) => (
                  <label key={name} className="flex min-h-11 items-center gap-2">
                    <OwnInput
                      type="checkbox"
                      name="goesWith"
                      value={name}
                      defaultChecked={s?.goesWith.includes(name)}
                      className="size-6 shrink-0"
                    />
                    {name}
                  </label>
                ))}
              </div>
            </fieldset>
            <SelectField
              className="col-span-2"
              label="Matte: blended with"
              name="blendWith"
              defaultValue={s?.blendWith ?? ""}
              hint="a gloss clear, or a matting agent"
              errors={errors.blendWith}
            >
              <option value="">nothing</option>
              {[...new Set([...partners, s?.blendWith ?? ""])]
                .filter((name) => name !== "" && name !== s?.name)
                .map((name) => (
                  <option key={name}>{name}</option>
                ))}
            </SelectField>
            {minutes("settles", "Pearl settles within", "empty: it does not")}
          </Group>
          <FieldErrors errors={actionData?.ok === false && actionData.message ? [actionData.message] : undefined} />
          <button className="press" data-kind="main">
            {product ? "Save as a new revision" : "Put it on the shelf"}
          </button>
        </KeptForm>
        <p className="mt-6 max-w-[70ch] text-[13px] text-ink2">
          The sheet in your hand goes first; nothing is built in. The safety data sheet, emission limits and waste rules of your place
          apply.
        </p>
      </main>
    </>
  );

  function cupHint(v: NonNullable<typeof s>["viscosity"] | undefined): string {
    if (!v) return inUnits("ready to spray, at 20 °C", units);
    const reading = cupReading(v);
    if (!reading) return "nothing that is sprayed runs out so";
    const nu = show("viscosity", reading.nu_m2_s, units);
    return inUnits(`${nu.text} ${nu.unit} at 20 °C${reading.meant ? "" : "; roughly, outside the cup's own range"}`, units);
  }
}

function Group({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <fieldset>
      <legend className="mb-3 text-lg font-semibold">{title}</legend>
      <div className="grid grid-cols-2 items-start gap-4 sm:grid-cols-4">{children}</div>
    </fieldset>
  );
}
