import { useDraft } from "~/kit/draft/use-draft";
import { GLOSS_ANGLES, type GlossTool, TOOL_ROUGHNESS_M, roughGloss } from "#core/models/gloss/fresnel-gloss";
import { show } from "#core/kernel/units/format";
import { parseQuantity } from "#core/kernel/units/parse";
import { useUnits } from "~/kit/root/use-root";
import { Field } from "~/kit/ui/field";
import { ScrollRegion } from "~/kit/ui/scroll-region";

const CLEAR_INDEX = "1.51";
const TOOLS = Object.keys(TOOL_ROUGHNESS_M) as GlossTool[];

/** What gloss a clear can have at best, and what each tool leaves of it: a model, with its limits said. */
export function GlossModel() {
  const units = useUnits();
  const draft = useDraft("gloss model", { index: CLEAR_INDEX });
  const typed = draft.typed.index;
  const parsed = parseQuantity("count", typed, "");
  const index = parsed.ok && parsed.si >= 1.3 && parsed.si <= 2 ? parsed.si : null;
  return (
    <section className="mt-8" aria-labelledby="model-title">
      <h3 id="model-title" className="text-lg font-semibold">
        What gloss a clear can have
      </h3>
      <p className="max-w-[70ch] text-ink2">
        How much a smooth clear reflects follows from its refractive index; fine scratches take a share of it away. The roughness after each
        tool is a default, not measured here, so read it as an order, not as a promise.
      </p>
      <Field
        className="mt-3 max-w-40"
        label="Refractive index"
        inputMode="decimal"
        value={typed}
        onChange={draft.field("index").onChange}
        errors={index === null ? [parsed.ok ? "Between 1.3 and 2" : parsed.message] : undefined}
      />
      {index !== null && (
        <ScrollRegion label="Gloss by tool" className="mt-3" narrow>
          <table className="w-full max-w-[620px] text-left [&_td]:py-1.5">
            <thead className="small-label border-b border-hair">
              <tr>
                <th className="py-2">After</th>
                <th>roughness, nm</th>
                {GLOSS_ANGLES.map((a) => (
                  <th key={a}>GU at {a}°</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {[
                { name: "perfectly smooth", roughness_m: 0 },
                ...TOOLS.toReversed().map((t) => ({ name: t, roughness_m: TOOL_ROUGHNESS_M[t] })),
              ].map((r) => (
                <tr key={r.name} className="border-b border-hair">
                  <td className="font-semibold">{r.name}</td>
                  <td>{Math.round(r.roughness_m * 1e9)}</td>
                  {GLOSS_ANGLES.map((angle) => (
                    <td key={angle}>{show("gloss", roughGloss({ index, roughness_m: r.roughness_m, angle }), units).text}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollRegion>
      )}
      <p className="mt-2 text-[13px] text-ink2">
        Fresnel reflectance against black glass of index 1.567 (ISO 2813, ASTM D523) times exp(−(4πσcosθ/λ)²) (Bennett &amp; Porteus 1961),
        from memory. It does not hold for matte, whose roughness is as large as the light’s wavelength.
      </p>
    </section>
  );
}
