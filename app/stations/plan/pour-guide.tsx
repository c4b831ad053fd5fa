import { useState } from "react";
import { POUR_TOLERANCE, type WeighedPart, pourState } from "#core/models/mix/weigh";
import { show } from "#core/kernel/units/format";
import { parseQuantity } from "#core/kernel/units/parse";
import { useUnits } from "~/kit/root/use-root";
import { Field } from "~/kit/ui/field";
import { Tag } from "~/kit/ui/tag";
import { useStandIns } from "~/kit/shell/stand-in";
import { useScale } from "./use-scale";

export interface PouredMix {
  poured_kg: number[];
  volume_m3: number;
  simulated: boolean;
}

/** Rate at which the stand-in can pours: a hand's. */
const STAND_IN_RATE_KG_S = 0.045;
const SLOW_RATE_KG_S = 0.006;

interface PourGuideProps {
  parts: readonly WeighedPart[];
  volume_m3: number;
  capacity_m3: number;
  busy: boolean;
  doneLabel?: string;
  onDone?: (poured: PouredMix) => void;
}

/** Follows the scale part by part; after an over-pour it says what to add of the rest and whether the pot still has room. */
export function PourGuide({ parts, volume_m3, capacity_m3, ...keeping }: PourGuideProps) {
  const pour = usePour({ parts, volume_m3, capacity_m3 });
  const { scale, said, part, state } = pour;
  return (
    <div className="mt-4 grid gap-x-10 gap-y-5 border-t border-hair pt-4 md:grid-cols-[1fr_1.1fr]" data-testid="pour-guide">
      <div className="space-y-4">
        <div className="flex flex-wrap items-center gap-2">
          <span className="small-label">
            {scale ? scale.device : said ? "No scale is bridged: type what it shows" : "Looking for the scale…"}
          </span>
          {scale?.simulated && <Tag kind="simulated">simulated</Tag>}
          {scale && !scale.stable && <span className="text-[13px] text-ink2">settling</span>}
        </div>
        {scale?.fault && <p className="font-medium text-stop-ink">{scale.fault}</p>}
        <PourNow pour={pour} raised={state.volume_m3 / volume_m3} />
        {part && <Bar poured_kg={part.poured_kg} target_kg={part.target_kg} />}
        {state.corrected && <Correction pour={pour} />}
        <div className="flex flex-wrap gap-2">{pour.tared ? <Pouring pour={pour} {...keeping} /> : <Tare pour={pour} />}</div>
        {part && (
          <Field
            className="max-w-60"
            label="Or type what the scale shows"
            unit="g"
            value={pour.typed}
            onChange={(e) => pour.setTyped(e.target.value)}
            errors={pour.typedWrong ? [pour.hand.ok ? "Between 0 and 100000 g" : pour.hand.message] : undefined}
          />
        )}
      </div>
      <Poured {...pour} />
    </div>
  );
}

type Pour = ReturnType<typeof usePour>;

/** What the scale says, or was typed, against what is to be poured. */
function usePour({ parts, volume_m3, capacity_m3 }: { parts: readonly WeighedPart[]; volume_m3: number; capacity_m3: number }) {
  const units = useUnits();
  const standIns = useStandIns();
  const { scale: said, command } = useScale();
  const scale = said?.simulated && !standIns ? null : said;
  const [tared, setTared] = useState(false);
  /** Weight of each part already accepted. */
  const [poured, setPoured] = useState<number[]>(() => parts.map(() => 0));
  const [done, setDone] = useState(0);
  const [typed, setTyped] = useState("");
  const hand = parseQuantity("mass", typed, "g");
  const typedWrong = typed !== "" && (!hand.ok || hand.si < 0 || hand.si > 100);
  const total_kg = typed !== "" && hand.ok ? hand.si : scale?.mass_kg;
  const accepted_kg = poured.reduce((a, m) => a + m, 0);
  const open = pourState({ parts, volume_m3, poured_kg: poured, done, capacity_m3 });
  const current = tared ? open.current : null;
  const running_kg = total_kg === null || total_kg === undefined ? 0 : Math.max(0, total_kg - accepted_kg);
  const live = current === null ? poured : poured.map((m, i) => (i === current ? m + running_kg : m));
  const state = pourState({ parts, volume_m3, poured_kg: live, done, capacity_m3 });
  const part = current === null ? null : state.parts[current]!;
  const g = (kg: number) => show("mass", kg, units).text;
  const finished = tared && open.current === null;
  const accept = () => {
    if (current === null) return;
    setPoured(live);
    setDone((d) => Math.min(parts.length, Math.max(d, current + 1)));
    setTyped("");
  };
  const startOver = () => {
    setPoured(parts.map(() => 0));
    setDone(0);
    setTared(false);
    setTyped("");
  };
  const told = { scale, said, command, hand, typed, typedWrong, setTyped };
  return { ...told, tared, setTared, poured, current, part, state, finished, g, accept, startOver };
}

/** The part that is poured now. @param raised factor by which an over-pour has raised the targets */
function PourNow({ pour: { part, g, state, current, finished }, raised }: { pour: Pour; raised: number }) {
  const units = useUnits();
  return (
    <p aria-live="polite" data-testid="pour-now">
      {part ? (
        <>
          <span className="block text-lg font-semibold">{part.role}</span>
          <span
            className={`text-[56px] leading-none font-semibold tracking-tight ${part.state === "over" ? "text-stop-ink" : part.state === "in" ? "text-glow-ink" : ""}`}
          >
            {part.state === "over" ? g(part.poured_kg - state.parts[current!]!.target_kg / raised) : g(part.add_kg)}
          </span>{" "}
          <span className="text-[19px] text-ink2">
            {part.state === "over" ? "g too much" : part.state === "in" ? "g to go: stop here" : "g to go"}
          </span>
        </>
      ) : finished ? (
        <span className="text-[27px] font-semibold">
          All in: {show("volume", state.volume_m3, units).text} {units.volume}.
        </span>
      ) : (
        <span className="text-[27px] font-semibold">Empty pot on the scale, then tare.</span>
      )}
    </p>
  );
}

function Tare({ pour: { command, scale, setTared } }: { pour: Pour }) {
  return (
    <button
      type="button"
      className="press"
      data-kind="main"
      onClick={() => {
        void command({ command: scale?.simulated ? "empty" : "tare" }).then(() => setTared(true));
      }}
    >
      Tare with the pot on
    </button>
  );
}

/** After an over-pour: what to add of the rest, or that the pot is too small for it. */
function Correction({ pour: { state, g } }: { pour: Pour }) {
  const units = useUnits();
  const ml = (m3: number) => show("volume", m3, units).text;
  const more = state.parts.filter((p) => p.state !== "over" && p.add_kg > 0.0005).map((p) => `${p.role} to ${g(p.target_kg)} g`);
  return (
    <p role="alert" className="font-medium text-amber-ink" data-testid="pour-correction">
      {state.over_m3 > 0
        ? `The pot is too small to mend this: the right mix would be ${ml(state.volume_m3)} ${units.volume}, ${ml(state.over_m3)} more than it holds. Pour it into a larger pot, or start again.`
        : `Poured too much. To keep the ratio the mix grows to ${ml(state.volume_m3)} ${units.volume}: ${more.join(", ")}.`}
    </p>
  );
}

/** What is poured, and told to the scale. */
function Pouring({
  pour: { part, accept, typedWrong, typed, scale, command, startOver, finished, state, poured },
  onDone,
  busy,
  doneLabel,
}: { pour: Pour } & Pick<PourGuideProps, "onDone" | "busy" | "doneLabel">) {
  return (
    <>
      {part && (
        <button type="button" className="press" data-kind="main" onClick={accept} disabled={typedWrong || (typed === "" && !scale?.stable)}>
          {part.role} is in
        </button>
      )}
      {scale?.simulated && part && (
        <>
          <button type="button" className="press" onClick={() => void command({ command: "pour", rate_kg_s: STAND_IN_RATE_KG_S })}>
            Pour
          </button>
          <button type="button" className="press" onClick={() => void command({ command: "pour", rate_kg_s: SLOW_RATE_KG_S })}>
            Trickle
          </button>
          <button type="button" className="press" onClick={() => void command({ command: "stop" })}>
            Stop
          </button>
        </>
      )}
      <button type="button" className="press" onClick={startOver}>
        Start over
      </button>
      {finished && onDone && (
        <button
          type="button"
          className="press"
          data-kind="main"
          disabled={busy || state.over_m3 > 0}
          onClick={() => onDone({ poured_kg: poured, volume_m3: state.volume_m3, simulated: scale?.simulated ?? false })}
        >
          {busy ? "Storing…" : doneLabel}
        </button>
      )}
    </>
  );
}

/** The parts as they were poured. */
function Poured({ state, current, g }: Pick<Pour, "state" | "current" | "g">) {
  return (
    <ol className="border-t border-hair" aria-label="Parts poured">
      {state.parts.map((p, i) => (
        <li
          key={p.role}
          className="flex items-center justify-between gap-3 border-b border-hair py-2.5"
          aria-current={i === current ? "step" : undefined}
        >
          <span>
            <b className="font-semibold">{p.role}</b>
            <span className="block text-[13px] text-ink2">target {g(p.target_kg)} g</span>
          </span>
          <span className="flex items-center gap-3">
            {g(Math.max(0, p.poured_kg))} g
            <Tag kind={p.state === "in" ? "good" : p.state === "over" ? "caution" : "open"}>
              {p.state === "in" ? "in" : p.state === "over" ? "over" : "open"}
            </Tag>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** How far a part is in, with the band in which it counts as right. */
function Bar({ poured_kg, target_kg }: { poured_kg: number; target_kg: number }) {
  const most = target_kg * 1.15;
  const at = (kg: number) => `${Math.min(100, Math.max(0, (kg / most) * 100)).toFixed(2)}%`;
  return (
    <div aria-hidden className="relative h-9 border border-edge">
      <i className="absolute inset-y-0 left-0 bg-glow" style={{ width: at(poured_kg) }} />
      <i
        className="absolute inset-y-0 border-x-2 border-ink"
        style={{ left: at(target_kg * (1 - POUR_TOLERANCE)), width: `${((2 * POUR_TOLERANCE * target_kg) / most) * 100}%` }}
      />
    </div>
  );
}
