import { Link } from "react-router";
import { Check } from "lucide-react";
import { EXERCISES, type Exercise, EXERCISE_IDS, type ExerciseId, exerciseOutline } from "#core/practice/exercises";
import { ALL_SKILLS } from "#core/practice/mended";
import type { Progress } from "#core/practice/progress";
import { boundingBox } from "#core/kernel/geometry/geometry";
import { MM, svgPath } from "~/kit/ui/svg-path";
import { counted } from "~/kit/words/when";
import { capital, lower } from "~/kit/words/capital";
import { LEVEL_WORDS, SKILL_WORDS } from "./practice.words";

/** All exercises, the next one first in the eye, and how each skill is kept by now. */
export function PracticeDesk({ progress }: { progress: Progress }) {
  const next = EXERCISE_IDS.find((id) => !progress.exercises[id]?.passed) ?? EXERCISE_IDS.at(-1)!;
  const sprayed = Object.keys(progress.exercises).length > 0;
  return (
    <>
      <h2 className="text-[27px] leading-tight font-semibold tracking-tight">
        {sprayed ? `Next: ${lower(EXERCISES[next].name)}.` : "Spray it here first, where it costs nothing."}
      </h2>
      <p className="mt-1 text-ink2">{EXERCISES[next].aim}</p>
      <Link to={`/practice/${next}`} className="press mt-3" data-kind="main">
        Hang the panel
      </Link>
      <Link to="/practice/pattern" className="press mt-3 ml-2">
        Pattern test
      </Link>
      <Link to="/practice/choose" className="press mt-3 ml-2">
        Choose what hangs
      </Link>
      {sprayed && (
        <dl className="mt-6 flex flex-wrap gap-x-8 gap-y-3" data-testid="skills">
          {ALL_SKILLS.map((skill) => (
            <div key={skill}>
              <dt className="text-[13px] text-ink2">{capital(SKILL_WORDS[skill])}</dt>
              <dd className="text-[21px] font-semibold">{keptWords(progress.kept[skill])}</dd>
            </div>
          ))}
        </dl>
      )}
      <ul className="mt-6 grid border-t border-hair lg:grid-cols-2 lg:gap-x-10" data-testid="exercises">
        {EXERCISE_IDS.map((id) => (
          <Row key={id} id={id} exercise={EXERCISES[id]} done={progress.exercises[id]} />
        ))}
      </ul>
      {sprayed && (
        <p className="mt-6">
          <a className="press" href="/do/practice.csv" download>
            Take your sessions as CSV
          </a>
        </p>
      )}
    </>
  );
}

const keptWords = (share: number | null): string => (share === null ? "–" : share === 1 ? "kept" : `kept ${Math.round(100 * share)} %`);

function Row({ id, exercise, done }: { id: ExerciseId; exercise: Exercise; done: Progress["exercises"][ExerciseId] }) {
  const outline = exerciseOutline(exercise);
  const { x1, y1 } = boundingBox(outline);
  return (
    <li className="border-b border-hair">
      <Link to={`/practice/${id}`} className="grid min-h-16 grid-cols-[64px_1fr_auto] items-center gap-4 py-2 hover:bg-panel">
        <svg viewBox={`0 0 ${x1 * MM} ${y1 * MM}`} className="max-h-11 w-14" aria-hidden>
          <path d={`${svgPath(outline)}Z`} fill="var(--bench-coated)" />
        </svg>
        <span>
          <span className="block font-semibold">{exercise.name}</span>
          <span className="block text-[13px] text-ink2">{LEVEL_WORDS[exercise.level]}</span>
        </span>
        <span className="pr-1 text-right text-[13px] text-ink2">
          {done?.passed ? (
            <span className="inline-flex items-center gap-1 font-semibold text-glow-ink">
              <Check size={16} aria-hidden /> passed
            </span>
          ) : done ? (
            counted(done.sprayed, "try", "tries")
          ) : (
            ""
          )}
        </span>
      </Link>
    </li>
  );
}
