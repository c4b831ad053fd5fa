import { type MatteForecast, matteForecast } from "#core/models/cards/matte-forecast";
import { CARD_CURES, CARD_ORIENTATIONS, type CardBody } from "#core/models/cards/card";
import { showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { WorkingButton } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { apartWords, faceWorking, fromWords } from "./matte.words";

/** A face of the job, as it is sprayed. */
export interface FaceAsked {
  name: string;
  orientation: CardBody["orientation"];
}
export interface FaceForecast extends FaceAsked {
  forecast: MatteForecast | null;
}

/** Gloss to expect on each face of the job, and whether two that stand side by side would differ. */
export function MatteFaces({
  faces: asked,
  cure,
  share,
  target_GU,
  ...known
}: {
  faces: readonly FaceAsked[];
  cure: CardBody["cure"];
  share: number;
  target_GU: number | null;
} & Pick<Parameters<typeof matteForecast>[0], "cards" | "levels" | "film_m">) {
  const units = useUnits();
  const faces = asked.map((f): FaceForecast => ({
    ...f,
    forecast: matteForecast({ share, face: { orientation: f.orientation, cure }, ...known }),
  }));
  const apart = apartWords(faces);
  return (
    <section className="mt-8" aria-labelledby="faces-title">
      <h3 id="faces-title" className="text-lg font-semibold">
        Gloss to expect, face by face
      </h3>
      <ul className="mt-2 border-t border-hair" data-testid="matte-faces">
        {faces.map((f) => {
          const shown = f.forecast && showWithUncertainty("gloss", f.forecast.gloss_GU, f.forecast.u_GU, units);
          const off = f.forecast && target_GU !== null && (target_GU < f.forecast.low_GU || target_GU > f.forecast.high_GU);
          return (
            <li key={f.name} className="grid grid-cols-[1fr_auto] items-center gap-x-4 border-b border-hair py-1">
              <span>
                <b className="font-semibold">{f.name}</b>{" "}
                <span className="text-ink2">
                  {CARD_ORIENTATIONS[f.orientation]}, {CARD_CURES[cure]}
                </span>
                {f.forecast && <span className="block text-[13px] text-ink2">{fromWords(f.forecast)}</span>}
              </span>
              <span className="flex items-center gap-2">
                {off && <Tag kind="caution">off the target</Tag>}
                {f.forecast && shown ? (
                  <WorkingButton working={faceWorking(f, { share, cure }, units)} label={`${f.name}: show the working of its gloss`}>
                    <span className="text-[20px] font-semibold">{shown.text}</span> <span className="text-ink2">{shown.unit}</span>
                  </WorkingButton>
                ) : (
                  <span className="text-ink2">no card or level reaches so far</span>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      {apart && <p className="mt-2 max-w-[70ch]">{apart}</p>}
    </section>
  );
}
