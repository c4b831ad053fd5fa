import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import { benchCoats } from "#core/practice/bench-setting";
import { type Exercise, LEVELS, type Level, exerciseSetting, judgedMark, marksMet } from "#core/practice/exercises";
import { liesBetween, rowsWanted } from "#core/practice/good-rows";
import { hiddenHand } from "#core/practice/job/hidden-hand";
import { lyingOf } from "#core/models/spray/row-plan";
import type { BenchView } from "#server/views/bench-view";
import { usePrefs } from "~/kit/root/use-root";
import { tick } from "~/kit/shell/beep";
import { useBeat } from "~/kit/shell/use-beat";
import { Toggle } from "~/kit/ui/toggle";
import { BenchClient, type BenchState } from "./bench-client";
import { anySeed } from "./any-seed";
import { type LookedAt, lookOf, lookedAt } from "./bench-look";
import { Presses } from "./bench-presses";
import { Sentence } from "./bench-sentence";
import { DebriefView } from "./debrief-view";
import { GunAtBench, type GunFault, SOUND, useGunAtBench } from "./gun-at-bench";
import { HandFigures } from "./hand-figures";
import { JobDesk } from "./job.desk";
import { judgedWords } from "./job.words";
import { JudgedView } from "./judged-view";
import { LEVEL_WORDS, toldWords } from "./practice.words";
import { Stage } from "./stage";
import { useKeepSession } from "./use-keep-session";

export function ExerciseDesk({ view: now }: { view: BenchView }) {
  // What hangs on the bench stays as it was hung, whatever the shelf comes to hold meanwhile.
  const [view] = useState(now);
  const { exercise } = view;
  const [level, setLevel] = useState<Level>(exercise.level);
  const { bench, state } = useBench(view, exercise, level);
  if (!bench || !state) return null;
  return <Bench {...{ view, exercise, ...bench, state, level, setLevel }} />;
}

function useBench(view: BenchView, exercise: Exercise, level: Level) {
  const { theme } = usePrefs();
  const setting = useMemo(() => exerciseSetting(exercise, view.sheet, view.way), [exercise, view]);
  const [bench, setBench] = useState<{ client: BenchClient; looked: LookedAt } | null>(null);
  const first = useRef(level);
  useEffect(() => {
    const wanted = benchCoats(setting);
    const unseen = exercise.hidden ? hiddenHand(setting, exercise.hidden, anySeed()) : null;
    const looked = lookedAt(setting, wanted);
    const client = new BenchClient(setting, wanted, exercise.laid, lookOf(first.current, looked), unseen);
    setBench({ client, looked });
    return () => client.close();
  }, [setting, exercise.laid, exercise.hidden]);
  const phase = bench?.client.get().phase;
  useEffect(() => {
    if (bench && phase !== "judging") bench.client.looks(lookOf(level, bench.looked));
  }, [bench, level, theme, phase]);
  const state = useSyncExternalStore(
    bench?.client.subscribe ?? nothing,
    () => bench?.client.get() ?? null,
    () => null,
  );
  return { bench, state };
}
const nothing = () => () => {};

/** The metronome beats once for each such way of the hand: about a hand's breadth more than the guides' dots. */
const BEAT_M = 0.2;
/** A gun that nobody has tried yet: as often sound as dirty at the tip or in the cap. */
const gunOfChance = (): GunFault => ({ fault: (["even", "tip", "cap"] as const)[Math.floor(Math.random() * 3)]!, degree: 0.8, seed: 1 });

interface BenchProps {
  view: BenchView;
  exercise: Exercise;
  client: BenchClient;
  looked: LookedAt;
  state: BenchState;
  level: Level;
  setLevel: (level: Level) => void;
}

function Bench({ view, exercise, client, looked, state, level, setLevel }: BenchProps) {
  const { phase, coat, debrief } = state;
  const [turned, setTurned] = useState(false);
  const outline = client.setting.outline;
  const wanted = client.wantedOf(coat);
  const rows = useMemo(
    () =>
      rowsWanted(lyingOf(outline, turned), { fan_m: wanted.fan_m, overlap: wanted.gun.overlap }, liesBetween(client.setting, coat)).length,
    [outline, turned, wanted, client, coat],
  );
  const [given] = useState(() => (exercise.unsure ? gunOfChance() : SOUND));
  const gun = useGunAtBench(wanted, given);
  const [gunShown, setGunShown] = useState(false);
  const [beating, setBeating] = useState(false);
  useBeat(beating && (phase === "spraying" || phase === "ready") ? BEAT_M / wanted.gun.handSpeed_m_s : null, tick);
  const { judged } = client.job.get();
  const marks = debrief && [...(exercise.hidden ? [] : marksMet(exercise, debrief)), ...(judged ? [judgedMark(judged)] : [])];
  useKeepSession(view, { exercise, level, debrief, judged, passed: marks?.every((m) => m.met) ?? false });
  const done = coat > exercise.coats;
  return (
    <div className="grid gap-x-6 gap-y-3 lg:grid-cols-[1fr_216px]">
      <div className="flex flex-wrap items-center justify-between gap-3 lg:col-span-2">
        <h2 className="min-w-0 flex-1 basis-80 text-[23px] leading-tight font-semibold tracking-tight" aria-live="polite">
          <Sentence
            {...{ state, exercise, level, done }}
            rowsWanted={rows}
            told={
              debrief &&
              (judged
                ? judgedWords(
                    judged,
                    marks!.every((m) => m.met),
                  )
                : toldWords(debrief, marks))
            }
            wanted={wanted}
          />
        </h2>
        {!exercise.hidden && phase !== "told" && phase !== "judging" && (
          <Toggle
            label="What is seen"
            value={level}
            onChange={(v) => setLevel(v as Level)}
            options={LEVELS.map((value) => ({ value, name: LEVEL_WORDS[value] }))}
          />
        )}
      </div>
      {phase === "told" && debrief ? (
        <>
          {judged && <JudgedView {...{ client, judged, debrief }} />}
          {!exercise.hidden && (
            <DebriefView
              {...{ client, debrief, marks: marks!, exercise, coats: state.coats, fibres: state.fibres }}
              shown={judged === null}
            />
          )}
        </>
      ) : phase === "judging" ? (
        <JobDesk client={client} lookedAt={looked} onHandOver={(said) => client.handsOver(said, view.floor_m, lookOf("film", looked))} />
      ) : gunShown && phase === "ready" ? (
        <GunAtBench at={gun} />
      ) : (
        <>
          <Stage {...{ client, outline, phase, coat, turned }} lies={state.lies} guided={level === "guided"} />
          <HandFigures {...{ state, level, wanted }} />
        </>
      )}
      <div className="flex flex-wrap items-center gap-3 border-t border-hair pt-3 lg:col-span-2" data-testid="bench-presses">
        <Presses
          {...{ client, state, exercise, done, turned, setTurned, level, looked, gunShown, setGunShown, beating, setBeating }}
          gun={gun.gun}
          wait_s={client.wantedOf(coat - 1).wait_s}
        />
      </div>
    </div>
  );
}
