import { useFetcher } from "react-router";
import { newestCoat } from "#core/panel/coats-on";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors } from "~/kit/ui/field";
import { More } from "~/kit/ui/more";

/** What a wet comb said of the coat that was just sprayed; nothing where one was told, or none is on. */
export function CombHere() {
  const { view } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const coat = newestCoat(view.state)?.entry;
  if (!coat || coat.body.wetReading_m !== null) return null;
  const { errors = {}, message, ok } = fetcher.data ?? {};
  return (
    <More label={`Wet comb of coat ${coat.body.number}`}>
      <KeptForm fetcher={fetcher} place={`comb ${coat.id}`} className="flex flex-wrap items-end gap-2">
        <input type="hidden" name="intent" value="comb" />
        <input type="hidden" name="panelId" value={view.panel.id} />
        <input type="hidden" name="number" value={coat.body.number} />
        <Field className="w-40" label="Wet film" unit={units.film} name="wet" errors={errors.wet} />
        <button className="press" disabled={fetcher.state !== "idle"}>
          Keep it
        </button>
        <FieldErrors errors={ok === false && message ? [message] : undefined} />
      </KeptForm>
    </More>
  );
}
