import { InUnits } from "~/kit/ui/in-units";
import { textureTold, textureWords } from "~/kit/words/texture-words";
import { memo, useMemo } from "react";
import { SUBSTRATE_TEXTURE } from "#core/models/flow/constants";
import { chanceWord } from "#core/models/flow/run-chance";
import { textureOf, withTexture } from "#core/models/flow/reflection";
import { flowCoatOptions } from "#core/models/ways/flow-coat-options";
import type { FlowSetting } from "#core/models/flow/flow-window";
import { show, showFilm } from "#core/kernel/units/format";
import type { PartOver } from "#core/models/spray/coat-over";
import type { Trigger } from "#core/models/spray/trigger";
import { useUnits } from "~/kit/root/use-root";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { LightTube } from "~/kit/panel/light-tube";

/** A flow coat in its three meanings against leaving it. */
export const FlowCoats = memo(function FlowCoats({
  setting,
  part,
  trigger,
  under_m,
  sandAfter_h,
  flash_s,
  u_filmLog,
}: {
  setting: FlowSetting;
  part: PartOver;
  trigger: Trigger;
  under_m: number;
  sandAfter_h: number;
  /** Between coats, where the setting has one only. */
  flash_s: number;
  /** Doubt of the film laid, in logarithms. */
  u_filmLog?: number | undefined;
}) {
  const units = useUnits();
  const options = useMemo(
    () => flowCoatOptions(setting, { ...part, trigger, under_m, sandAfter_h, flash_s, u_filmLog }),
    [setting, part, trigger, under_m, sandAfter_h, flash_s, u_filmLog],
  );
  const polished = useMemo(() => {
    const left = options.find((o) => o.id === "leave");
    return left ? withTexture(left.result, textureOf(SUBSTRATE_TEXTURE.polished)) : null;
  }, [options]);
  return (
    <section className="mt-8" aria-labelledby="flow-coat-title">
      <h3 id="flow-coat-title" className="text-lg font-semibold">
        Is a flow coat worth it?
      </h3>
      <div className="mt-3 grid gap-4 sm:grid-cols-2 xl:grid-cols-5">
        {options.map((o) => (
          <LightTube key={o.id} result={o.result} label={`${o.name}: ${textureTold(o.texture)}, ${textureWords(o.texture)}`} />
        ))}
        {polished && (
          <LightTube
            result={polished}
            label={`Leave it, then flat and polish: ${textureTold(polished.texture)}, ${textureWords(polished.texture)}`}
          />
        )}
      </div>
      <ScrollRegion label="Flow coat compared" className="mt-3">
        <table className="w-full text-left [&_td]:py-2" data-testid="flow-coats">
          <thead className="small-label border-b border-hair">
            <tr>
              <th className="py-2">What</th>
              <th>Texture</th>
              <th>Clear, {units.film}</th>
              <th>All film, {units.film}</th>
              <th>Hours</th>
              <th>{units.volume}</th>
              <th>Danger</th>
            </tr>
          </thead>
          <tbody>
            {options.map((o) => (
              <tr key={o.id} className="border-b border-hair">
                <td>
                  <b className="font-semibold">{o.name}</b> <span className="block text-[13px] text-ink2">{o.how}</span>
                </td>
                <td>{textureTold(o.texture)}</td>
                <td>{showFilm(o.clear_m, units).text}</td>
                <td>{showFilm(o.total_m, units).text}</td>
                <td>{o.hours.toFixed(1)}</td>
                <td>{show("volume", o.volume_m3, units).text}</td>
                <td>
                  {o.against ? (
                    <Tag kind="stop">
                      <InUnits>{o.against}</InUnits>
                    </Tag>
                  ) : chanceWord(o.runChance) === "may" ? (
                    <Tag kind="caution">it may run at an edge</Tag>
                  ) : (
                    "a run is unlikely"
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollRegion>
    </section>
  );
});
