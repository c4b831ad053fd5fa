import { useFetcher } from "react-router";
import { rowOfShares } from "#core/models/cards/row-of-shares";
import { CARD_CURES, CARD_ORIENTATIONS, type CardBody } from "#core/models/cards/card";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors } from "~/kit/ui/field";
import { ROW, rowField } from "./card-row-fields";

interface CardRowProps {
  /** What all cards of the row have in common. */
  alike: Pick<CardBody, "productName" | "base" | "colourCode" | "orientation" | "cure">;
  /** The mix in the middle of the row. */
  share: number;
  formKey: string;
}

/** Cards that were sprayed in one row and are read together: a mix and a gloss each, all else is the same. */
export function CardRow({ alike, share, formKey }: CardRowProps) {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const said = fetcher.data?.ok === false ? fetcher.data : null;
  const { productName, base, colourCode, orientation, cure } = alike;
  const hidden = { formKey, product: productName, base, colour: colourCode, side: orientation, cure };
  return (
    <KeptForm fetcher={fetcher} action="/do/cards/row" place={`card row ${productName}`} className="space-y-3">
      {Object.entries(hidden).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <div className="grid max-w-[34rem] gap-2">
        {rowOfShares(share, ROW).map((s, i) => (
          <div key={i} className="grid grid-cols-2 gap-3">
            <Field
              label={`Card ${i + 1}, matting`}
              unit="%"
              name={rowField("share", i + 1)}
              defaultValue={initial("share", s, units)}
              errors={said?.errors[rowField("share", i + 1)]}
            />
            <Field
              label={`Card ${i + 1}, gloss at 60°`}
              unit="GU"
              name={rowField("gloss", i + 1)}
              defaultValue=""
              errors={said?.errors[rowField("gloss", i + 1)]}
            />
          </div>
        ))}
      </div>
      <p className="text-[13px] text-ink2">
        {[productName, base && `over ${base}`, CARD_ORIENTATIONS[orientation], CARD_CURES[cure]].filter(Boolean).join(", ")}. A card without
        a reading is not kept.
      </p>
      <button className="press" data-kind="main" disabled={fetcher.state !== "idle"}>
        Keep these cards
      </button>
      <FieldErrors errors={said?.message ? [said.message] : (said?.errors.form ?? said?.errors.product)} />
    </KeptForm>
  );
}
