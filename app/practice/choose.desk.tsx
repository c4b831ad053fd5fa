import { SHAPES, SHAPE_KINDS } from "#core/kernel/geometry/shapes";
import { show } from "#core/kernel/units/format";
import { SPEED_EVAPORATION } from "#core/models/spray/constants";
import { FREE_AIR_K } from "#core/practice/free-air";
import type { freeChoices } from "#server/views/bench-view";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { SelectField } from "~/kit/ui/field";
import { capital } from "~/kit/words/capital";

const COATS = [1, 2, 3];

/** Part, clear, hardener, air, way and coats of a bench of one's own. */
export function ChooseDesk({
  choices: { clears, ways },
  answer,
}: {
  choices: Awaited<ReturnType<typeof freeChoices>>;
  answer: FormAnswer | undefined;
}) {
  const units = useUnits();
  const errors = answer && !answer.ok ? answer.errors : {};
  const select = (name: string, label: string, start: string, options: readonly (readonly [value: string, shown: string])[]) => (
    <SelectField label={label} name={name} defaultValue={start} errors={errors[name]}>
      {options.map(([value, shown]) => (
        <option key={value} value={value}>
          {shown}
        </option>
      ))}
    </SelectField>
  );
  const air = (K: number) => `${show("temperature", K, units).text} ${show("temperature", K, units).unit}`;
  return (
    <KeptForm place="choose" method="post" className="space-y-5">
      <div className="grid gap-4 sm:grid-cols-2">
        {select(
          "part",
          "Part",
          "door",
          SHAPE_KINDS.map((kind) => [kind, SHAPES[kind].name] as const),
        )}
        {select("hangs", "It hangs", "upright", [
          ["upright", "Upright"],
          ["lying", "Lying"],
        ])}
        {select(
          "clear",
          "Clear",
          clears[0]?.id ?? "usual",
          clears.length > 0 ? clears.map((c) => [c.id, c.name] as const) : [["usual", "A usual clear"]],
        )}
        {select(
          "speed",
          "Hardener",
          "medium",
          Object.keys(SPEED_EVAPORATION).map((speed) => [speed, capital(speed)] as const),
        )}
        {select(
          "air_K",
          "Air",
          String(FREE_AIR_K[2]),
          FREE_AIR_K.map((K) => [String(K), air(K)] as const),
        )}
        {select(
          "way",
          "Way",
          ways[0]!.id,
          ways.map((w) => [w.id, w.name] as const),
        )}
        {select(
          "coats",
          "Coats",
          "2",
          COATS.map((n) => [String(n), String(n)] as const),
        )}
      </div>
      <button className="press" data-kind="main">
        Hang it
      </button>
    </KeptForm>
  );
}
