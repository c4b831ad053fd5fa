import { Link } from "react-router";
import { show, showSpan } from "#core/kernel/units/format";
import type { Exercise, Level } from "#core/practice/exercises";
import type { BenchGun } from "#core/practice/hand";
import { useUnits } from "~/kit/root/use-root";
import type { BenchClient, BenchState } from "./bench-client";
import { type LookedAt, lookOf } from "./bench-look";
import { TOUCH_WORDS, liftedWords } from "./practice.words";

/** The longest that a coat is left to flash at a time: by then the next lies on what has set. */
const LONGEST_WAIT_S = 2 * 3600;

/** What can be pressed on the bench now. */
export function Presses({
  client,
  state,
  exercise,
  done,
  turned,
  setTurned,
  level,
  wait_s,
  looked,
  gun,
  gunShown,
  setGunShown,
  beating,
  setBeating,
}: {
  client: BenchClient;
  state: BenchState;
  exercise: Exercise;
  done: boolean;
  turned: boolean;
  setTurned: (turned: boolean) => void;
  level: Level;
  wait_s: number | null;
  looked: LookedAt;
  /** Null where what is typed is no gun. */
  gun: BenchGun | null;
  gunShown: boolean;
  setGunShown: (shown: boolean) => void;
  beating: boolean;
  setBeating: (beating: boolean) => void;
}) {
  const units = useUnits();
  const { phase, coat, seen } = state;
  const begun = coat > exercise.laid + 1;
  const begin = () => {
    if (phase === "waiting") client.stops();
    if (!gun) return;
    setGunShown(false);
    client.begins({ turned, gun });
  };
  const used = show("volume", seen.used_m3, units);
  const metronome = (
    <button className="press" aria-pressed={beating} onClick={() => setBeating(!beating)}>
      Metronome
    </button>
  );
  switch (phase) {
    case "spraying":
      return (
        <>
          <button className="press" data-kind="main" onClick={() => client.on()}>
            The coat is on
          </button>
          <button className="press" onClick={() => client.again()}>
            Clean panel
          </button>
          {metronome}
          <Told>
            {used.text} {used.unit} used
          </Told>
          <Keys />
        </>
      );
    case "ready":
    case "waiting":
      return (
        <>
          {!done && (
            <button className="press" data-kind="main" onClick={begin} disabled={!gun}>
              Spray coat {coat}
            </button>
          )}
          {!done && (
            <button className="press" aria-expanded={gunShown} onClick={() => setGunShown(!gunShown)}>
              The gun
            </button>
          )}
          {phase === "ready" && done && (
            <button className="press" data-kind="main" onClick={() => client.tells(lookOf("film", looked))}>
              Look it over
            </button>
          )}
          {phase === "ready" && done && (
            <button className="press" onClick={() => client.hardens()}>
              Let it harden and judge it
            </button>
          )}
          {phase === "waiting" ? (
            <button className="press" onClick={() => client.stops()}>
              Stop the time
            </button>
          ) : (
            begun && (
              <button className="press" onClick={() => client.waits(LONGEST_WAIT_S)}>
                Let it flash
              </button>
            )
          )}
          {state.lies && (
            <button className="press" onClick={() => client.lifts()}>
              Lift the fibre out
            </button>
          )}
          {state.lifted?.lifted && <Told>{liftedWords(state.lifted.lifted.pit_m, units)}</Told>}
          {!begun && (
            <button className="press" aria-pressed={turned} onClick={() => setTurned(!turned)}>
              {turned ? "Rows go up and down" : "Rows go from side to side"}
            </button>
          )}
          {begun && (
            <button className="press" onClick={() => client.again()}>
              Clean panel
            </button>
          )}
          {begun && seen.touch && (
            <Told>
              A finger on the tape: {TOUCH_WORDS[seen.touch]}
              {level === "guided" && wait_s !== null && !done ? `; the way wants ${showSpan(wait_s)}` : ""}
            </Told>
          )}
          {!begun && metronome}
          {!begun && <Keys />}
        </>
      );
    case "told":
      return (
        <>
          <button className="press" data-kind="main" onClick={() => client.again()}>
            Once more
          </button>
          <Link className="press" to="/practice">
            All exercises
          </Link>
        </>
      );
    case "judging":
      return <Told>Tap the panel; arrow keys and space do the same. The truth is shown once it is handed over.</Told>;
    default:
      return <Told>{phase === "working" ? "The same session is sprayed once more for each thing of the hand" : "…"}</Told>;
  }
}
const Told = ({ children }: { children: React.ReactNode }) => <p className="text-[14px] text-ink2">{children}</p>;

const KEYS = [
  ["hold", "trigger"],
  ["wheel", "distance"],
  ["← →", "along a row"],
  ["↑ ↓", "a quarter fan"],
  ["space", "trigger"],
  ["T", "trigger stays"],
] as const;
const Keys = () => (
  <ul className="ml-auto flex flex-wrap gap-x-4 gap-y-1 text-[13px] text-ink2 max-sm:hidden">
    {KEYS.map(([key, does]) => (
      <li key={key}>
        <kbd className="rounded border border-edge px-1.5 font-sans text-ink">{key}</kbd> {does}
      </li>
    ))}
  </ul>
);
