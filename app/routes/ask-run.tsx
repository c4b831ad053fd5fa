import { useState } from "react";
import { TEXTURE_LIMITS } from "#core/flow/flow-advice";
import { SHEET_K } from "#core/product/sheet";
import { serverContext } from "#server/context";
import { listClears } from "#server/repos/product-repo";
import { FlowDesk } from "~/flow/flow-desk";
import { USUAL_GUN } from "#core/spray/usual-gun";
import { Toggle } from "~/ui/choice";
import { SelectField } from "~/ui/field";
import { PageHeader } from "~/ui/page-header";
import { NoClear } from "~/shelf/no-clear";
import type { Route } from "./+types/ask-run";

export const meta: Route.MetaFunction = () => [{ title: "Will it run? · Yakamoz" }];

export async function loader() {
  return { clears: (await listClears((await serverContext()).db)).map((p) => ({ id: p.id, sheet: p.sheet })) };
}

const AREA_M2 = 1;
const UNDER_M = 100e-6;
const NO_COATS: [] = [];

export default function AskRun({ loaderData: { clears } }: Route.ComponentProps) {
  const [clearId, setClearId] = useState(clears[0]?.id ?? "");
  const [coat, setCoat] = useState("2");
  const [tilt, setTilt] = useState("90");
  const clear = clears.find((c) => c.id === clearId);
  return (
    <>
      <PageHeader title="Will it run?" note="Settings and climate in, what the coat will do out; nothing is stored" />
      <main className="px-4 py-6 sm:px-6">
        {!clear ? (
          <NoClear />
        ) : (
          <>
            <div className="mb-4 flex flex-wrap items-end gap-4">
              <SelectField label="Clear" value={clearId} onChange={(e) => setClearId(e.target.value)}>
                {clears.map((c) => (
                  <option key={c.id} value={c.id}>
                    {c.sheet.name}
                  </option>
                ))}
              </SelectField>
              <Toggle
                label="Which coat"
                value={coat}
                onChange={setCoat}
                options={[1, 2, 3].map((n) => ({ value: String(n), name: `coat ${n}` }))}
              />
              <Toggle
                label="How it hangs"
                value={tilt}
                onChange={setTilt}
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
              gun={USUAL_GUN}
              laid={NO_COATS}
              coatNumber={Number(coat)}
              air_K={SHEET_K}
              material_K={null}
              reducer={clear.sheet.reducerMin}
              flash_s={clear.sheet.flashMin_s}
              tilt_rad={(Number(tilt) * Math.PI) / 180}
              textureLimit={TEXTURE_LIMITS.asSprayed}
              area_m2={AREA_M2}
              under_m={UNDER_M}
            />
          </>
        )}
      </main>
    </>
  );
}
