import { useMemo } from "react";
import { useDraft } from "~/kit/draft/use-draft";
import { TEXTURE_LIMITS } from "#core/models/flow/constants";
import type { PartOver } from "#core/models/spray/coat-over";
import { usualStart } from "#core/coat/usual-start";
import { FlowDesk } from "~/stations/spray/window.desk";
import { Toggle } from "~/kit/ui/toggle";
import { SelectField } from "~/kit/ui/field";
import { PageHeader } from "~/kit/shell/page-header";
import { NoClear } from "./no-clear";
import type { Route } from "./+types/run.route";

/** A part of a square metre, for the litres. */
const SQUARE: PartOver = {
  outline: [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ],
};

const UNDER_M = 100e-6;

export function AskRunDesk({ loaderData: { clears } }: Pick<Route.ComponentProps, "loaderData">) {
  const draft = useDraft("ask", { clearId: clears[0]?.id ?? "", coat: "2", tilt: "90" });
  const { clearId, coat, tilt } = draft.typed;
  const clear = clears.find((c) => c.id === clearId);
  const start = useMemo(
    () => clear && usualStart(clear.sheet, { coats: Number(coat), tilt_rad: (Number(tilt) * Math.PI) / 180 }),
    [clear, coat, tilt],
  );
  return (
    <>
      <PageHeader title="Will it run?" note="Settings and climate in, what the coat will do out; nothing is stored" />
      <main className="px-4 py-6 sm:px-6">
        {!clear || !start ? (
          <NoClear />
        ) : (
          <>
            <div className="mb-4 flex flex-wrap items-end gap-4">
              <SelectField label="Clear" value={clearId} onChange={draft.field("clearId").onChange}>
                {clears.map((c) => (
                  <option key={c.id} value={c.id}>
                    {c.sheet.name}
                  </option>
                ))}
              </SelectField>
              <Toggle
                label="Which coat"
                value={coat}
                onChange={(v) => draft.set("coat", v)}
                options={[1, 2, 3].map((n) => ({ value: String(n), name: `coat ${n}` }))}
              />
              <Toggle
                label="How it hangs"
                value={tilt}
                onChange={(v) => draft.set("tilt", v)}
                options={[
                  { value: "90", name: "upright" },
                  { value: "45", name: "sloped" },
                  { value: "5", name: "lying" },
                ]}
              />
            </div>
            <FlowDesk
              key={`${clear.id} ${coat}`}
              sheet={clear.sheet}
              start={start}
              coatNumber={Number(coat)}
              textureLimit={TEXTURE_LIMITS.asSprayed}
              part={SQUARE}
              under_m={UNDER_M}
            />
          </>
        )}
      </main>
    </>
  );
}
