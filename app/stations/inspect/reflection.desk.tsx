import { More } from "~/kit/ui/more";
import { useDraft } from "~/kit/draft/use-draft";
import { useState } from "react";
import { useFetcher } from "react-router";
import { type ReflectionReading, type ReflectionSetup, compareReflections } from "#core/models/photo/reflection-check";
import { ChoosePicture } from "~/kit/photo/choose-picture";
import { parseQuantity } from "#core/kernel/units/parse";
import { initial } from "~/kit/form/initial";
import { useTask } from "~/kit/run/use-task";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { StandIn } from "~/kit/shell/stand-in";
import { InUnits } from "~/kit/ui/in-units";
import { inUnits } from "#core/kernel/units/in-units";
import type { FormAnswer } from "~/kit/form/answer";
import { Field, FieldErrors } from "~/kit/ui/field";
import { Tag } from "~/kit/ui/tag";
import { type PictureSource, askPicture, pixelsOf } from "./picture";

type Side = "own" | "neighbour";
interface Look {
  url: string;
  simulated: boolean;
  busy: boolean;
  reading: ReflectionReading | null;
  reason: string | null;
}
const SIDES: { id: Side; name: string }[] = [
  { id: "own", name: "This panel" },
  { id: "neighbour", name: "The neighbour" },
];
const USUAL: ReflectionSetup = { tube_m: 0.038, light_m: 0.75, camera_m: 0.5 };
/** Slopes are shown in thousandths. */
const MRAD = 1000;

/** Keeps the comparison in the panel's ledger. */
function Keep({ own_rad, beside_rad, simulated }: { own_rad: number; beside_rad: number; simulated: boolean }) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const kept = view.state.reflection?.body;
  const same = kept !== undefined && kept.own_rad === own_rad && kept.beside_rad === beside_rad;
  return (
    <fetcher.Form method="post" className="mt-2 flex flex-wrap items-center gap-3">
      <input type="hidden" name="own_rad" value={own_rad} />
      <input type="hidden" name="beside_rad" value={beside_rad} />
      <input type="hidden" name="simulated" value={simulated ? "yes" : ""} />
      <input type="hidden" name="formKey" value={`${view.formKey}-reflection`} />
      <button className="press" data-kind="main" disabled={same || fetcher.state !== "idle"}>
        {same ? "Kept for the verdict" : "Keep it for the verdict"}
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </fetcher.Form>
  );
}

/** A straight tube photographed in both panels at the same distances: which is wavier, and whether that is a difference at all. */
export function ReflectionDesk() {
  const units = useUnits();
  const { compared, own, other, looks, typed, draft, wrong, setup, take } = useReflections();
  return (
    <>
      <h2
        className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
        data-testid="reflection-sentence"
        aria-live="polite"
      >
        {compared
          ? `${compared.differs ? (compared.ratio > 1 ? "This panel is wavier than its neighbour" : "This panel is flatter than its neighbour") : "No difference that two pictures can tell"}: ${compared.ratio.toFixed(2)} times as wavy, ${compared.low.toFixed(2)} to ${compared.high.toFixed(2)}.`
          : "Photograph a straight light tube in both panels, at the same two distances."}
      </h2>
      {own && other && compared && (
        <Keep own_rad={own.long_rad} beside_rad={other.long_rad} simulated={Boolean(looks.own?.simulated || looks.neighbour?.simulated)} />
      )}
      <div className="mt-3 grid max-w-[640px] grid-cols-3 gap-3">
        {(
          [
            ["tube_m", "Tube width"],
            ["light_m", "Panel to tube"],
            ["camera_m", "Panel to camera"],
          ] as const
        ).map(([k, label]) => (
          <Field key={k} label={label} unit={units.length} value={typed[k]} onChange={draft.field(k).onChange} errors={wrong(k)} />
        ))}
      </div>
      <div className="mt-5 grid gap-8 sm:grid-cols-2">
        {SIDES.map(({ id, name }) => {
          const look = looks[id];
          return (
            <section key={id} aria-label={name} className="space-y-3" data-testid={`reflection-${id}`}>
              <h3 className="text-lg font-semibold">{name}</h3>
              {look?.url ? (
                <img src={look.url} alt={`A light tube reflected in ${name.toLowerCase()}`} className="w-full" />
              ) : (
                <div className="grid min-h-[140px] place-content-center rounded-press border border-dashed border-edge text-ink2">
                  No picture yet.
                </div>
              )}
              <p className="min-h-6" aria-live="polite">
                {look?.busy
                  ? "Reading the edge of the tube…"
                  : look?.reading
                    ? inUnits(
                        `${(look.reading.long_rad * MRAD).toFixed(2)} mrad slope in waves of 1.2 to 12 mm, over ${Math.round(look.reading.length_m * MRAD)} mm of panel`,
                        units,
                      )
                    : look?.reason && (
                        <span role="alert" className="font-medium text-stop-ink">
                          {look.reason}.
                        </span>
                      )}
              </p>
              <Choose {...{ name, setup, take, id, look }} />
            </section>
          );
        })}
      </div>
      <More label="How to take the pictures, and what they tell" className="mt-4">
        <p className="max-w-[75ch] text-[13px] text-ink2">
          Focus on the panel with a coin or tape on it, lock the exposure so that the tube is grey and not white, at least{" "}
          <InUnits>120 mm</InUnits> of panel in view. One picture each tells a difference from about 30 % on. It is a slope across the tube
          for comparing two panels, no other instrument’s scale; the check was made on made-up pictures only: hold it against your eye.
        </p>
      </More>
    </>
  );
}

/** The set-up as it is typed, and what was read from each picture. */
function useReflections() {
  const units = useUnits();
  const draft = useDraft(
    "reflection",
    {
      tube_m: initial("length", USUAL.tube_m, units),
      light_m: initial("length", USUAL.light_m, units),
      camera_m: initial("length", USUAL.camera_m, units),
    },
    { tube_m: "length", light_m: "length", camera_m: "length" },
  );
  const { typed } = draft;
  const task = useTask("photo", "readReflection");
  const [looks, setLooks] = useState<Partial<Record<Side, Look>>>({});
  const parsed = Object.fromEntries(Object.entries(typed).map(([k, v]) => [k, parseQuantity("length", v, units.length)])) as Record<
    keyof ReflectionSetup,
    ReturnType<typeof parseQuantity>
  >;
  const limits: Record<keyof ReflectionSetup, [number, number]> = { tube_m: [0.005, 0.3], light_m: [0.1, 10], camera_m: [0.1, 10] };
  const wrong = (k: keyof ReflectionSetup) => {
    const p = parsed[k];
    return !p.ok ? [p.message] : p.si < limits[k][0] || p.si > limits[k][1] ? ["Outside what the check can work with"] : undefined;
  };
  const setup: ReflectionSetup | null =
    parsed.tube_m.ok && parsed.light_m.ok && parsed.camera_m.ok && !wrong("tube_m") && !wrong("light_m") && !wrong("camera_m")
      ? { tube_m: parsed.tube_m.si, light_m: parsed.light_m.si, camera_m: parsed.camera_m.si }
      : null;
  const set = (side: Side, look: Look) => setLooks((l) => ({ ...l, [side]: look }));
  const take = async (side: Side, source: PictureSource) => {
    const { answer, reason } = await askPicture(source);
    if (!answer) return set(side, { url: "", simulated: false, busy: false, reading: null, reason });
    const own = answer.headers.get("X-Setup");
    const at = own === null ? setup : (JSON.parse(own) as ReflectionSetup);
    if (!at) return;
    const blob = await answer.blob();
    const look = {
      url: URL.createObjectURL(blob),
      simulated: answer.headers.get("X-Simulated") === "1",
      busy: true,
      reading: null,
      reason: null,
    };
    set(side, look);
    const read = await task.run(async () => ({ ...(await pixelsOf(blob)), setup: at }));
    if (read.at !== "done") return set(side, { ...look, busy: false, reason: read.at === "failed" ? read.reason : null });
    set(side, { ...look, busy: false, ...(read.output.ok ? { reading: read.output.reading } : { reason: read.output.reason }) });
  };
  const [own, other] = [looks.own?.reading, looks.neighbour?.reading];
  const compared = own && other && own.long_rad > 0 && other.long_rad > 0 ? compareReflections([own.long_rad], [other.long_rad]) : null;
  return { compared, own, other, looks, typed, draft, wrong, setup, take };
}

/** Asked while the camera is held, and not before. */
const judge = () => import("#core/models/photo/reflection-check").then((m) => m.tubeRefused);

/** A picture from the camera, the disk or the stand-in. */
function Choose({
  name,
  setup,
  take,
  id,
  look,
}: {
  name: string;
  setup: ReflectionSetup | null;
  take: (side: Side, source: PictureSource) => Promise<void>;
  id: Side;
  look: Look | undefined;
}) {
  const { view } = usePanel();
  return (
    <div className="flex flex-wrap items-center gap-2">
      <ChoosePicture of={name.toLowerCase()} disabled={setup === null} judge={judge} onTake={(file) => void take(id, { file })} />
      <StandIn>
        <button
          type="button"
          className="press"
          disabled={look?.busy}
          onClick={() => void take(id, { standIn: `/do/panels/${view.panel.id}/stand-in-tube.png?of=${id}` })}
        >
          Stand-in camera<span className="sr-only">, {name.toLowerCase()}</span>
        </button>
      </StandIn>
      {look?.simulated && <Tag kind="simulated">simulated</Tag>}
    </div>
  );
}
