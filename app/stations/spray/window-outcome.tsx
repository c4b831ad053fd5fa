import { DRAWINGS, type WindowOutcome } from "./use-window";
import { textureTold, textureWords } from "~/kit/words/texture-words";
import type { FlowResult } from "#core/models/flow/simulate-coats";
import { CHANCE_WORDS } from "#core/models/flow/run-chance";
import { showFilm } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { Figure } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { CLASS_WORDS } from "~/kit/words/flow-class-words";
import { flowWorking } from "~/kit/words/flow-words";
import { useLater } from "~/kit/root/later";

/** How it would look, whether it runs or peels, and why. */
export function Outcome({
  worked,
  beside,
  textureLimit,
  u_filmLog,
  runs,
  peels,
  around,
}: {
  worked: WindowOutcome["worked"];
  beside: FlowResult | null;
  textureLimit: number;
  u_filmLog: number | undefined;
  runs: { big: string; small: string; tag: "good" | "caution" | "stop"; by: string } | null;
  peels: { big: string; small: string } | null;
  around: WindowOutcome["around"];
}) {
  const units = useUnits();
  return (
    <div className="space-y-4">
      {worked && (
        <>
          <Tube
            result={worked.verdict.result}
            label={`as you would spray it: texture ${textureTold(worked.verdict.result.texture)}, ${textureWords(worked.verdict.result.texture)}`}
          />
          {beside && <Tube result={beside} label={`the neighbour, rated ${beside.texture.toFixed(1)}: ${textureWords(beside.texture)}`} />}
          <div className="flex flex-wrap gap-x-8 gap-y-3">
            <Figure
              size="middle"
              label="wet, this coat"
              shown={showFilm(worked.wet_m, units)}
              working={flowWorking(worked.verdict, textureLimit, units, u_filmLog)}
            />
            <Figure
              size="middle"
              label={`${runs!.small}, at the edges`}
              shown={{ text: runs!.big, unit: "" }}
              note={runs!.by}
              working={flowWorking(worked.verdict, textureLimit, units, u_filmLog)}
              {...(runs!.tag === "stop" ? { tone: "stop" as const } : {})}
            />
            <Figure
              size="middle"
              label={peels!.small}
              shown={{ text: peels!.big, unit: "" }}
              working={flowWorking(worked.verdict, textureLimit, units, u_filmLog)}
              {...(worked.verdict.peelChance >= CHANCE_WORDS.likely ? { tone: "amber" as const } : {})}
            />
          </div>
          {around && around.reasons.length > 0 && (
            <ul className="list-disc pl-5" aria-label="Why" data-testid="flow-reasons">
              {around.reasons.map((r) => (
                <li key={r}>{r}</li>
              ))}
            </ul>
          )}
          <ul className="border-t border-hair" aria-label="Places of the panel">
            {around?.zones.map((z) => (
              <li key={z.id} className="flex items-center justify-between gap-3 border-b border-hair py-1.5">
                {z.name}
                <Tag kind={CLASS_WORDS[z.verdict.class].tag}>{CLASS_WORDS[z.verdict.class].word}</Tag>
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

/** The tube as this surface would reflect it, in the room that it takes. */
export function Tube(shown: { result: Pick<FlowResult, "spectrum">; label: string }) {
  const part = useLater(DRAWINGS, true);
  return part ? <part.LightTube {...shown} /> : <p className="aspect-[330/106] text-[14px] font-medium">{shown.label}</p>;
}
