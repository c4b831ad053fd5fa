import { Plus, Undo2 } from "lucide-react";
import { SHAPE_KINDS, type ShapeKind } from "#core/kernel/geometry/shapes";
import { numbered } from "#core/panel/usual-hang";
import { useUnits } from "~/kit/root/use-root";
import { partName } from "~/kit/words/part-name";
import { useRegion } from "~/kit/words/use-region";
import { type PanelDraft, chooseShape } from "./panel-fields";

interface PartsDraft {
  typed: PanelDraft["typed"] & { parts: readonly string[] };
  set: PanelDraft["set"] & ((name: "parts", value: readonly string[]) => void);
}

/** The parts of a job, a tap each: the first is the panel described below, the others are of usual size and sprayed as it is. */
export function PartsPick({ draft }: { draft: PartsDraft }) {
  const units = useUnits();
  const region = useRegion();
  const parts = draft.typed.parts as readonly ShapeKind[];
  const take = (kind: ShapeKind) => {
    if (parts.length === 0) chooseShape(draft, kind, units);
    draft.set("parts", [...parts, kind]);
  };
  const names = numbered(parts.map((k) => partName(k, region)));
  return (
    <fieldset>
      <legend className="small-label mb-1">Parts, a tap each</legend>
      <div className="flex flex-wrap gap-2">
        {SHAPE_KINDS.map((k) => (
          <button key={k} type="button" className="press !px-3" onClick={() => take(k)}>
            <Plus size={15} aria-hidden /> {partName(k, region)}
          </button>
        ))}
      </div>
      <p className="mt-2 flex min-h-11 flex-wrap items-center gap-2" aria-live="polite" data-testid="parts">
        {names.join(", ")}
        {parts.length > 0 && (
          <button type="button" className="press" data-kind="quiet" onClick={() => draft.set("parts", parts.slice(0, -1))}>
            <Undo2 size={16} aria-hidden /> Take the last back
          </button>
        )}
      </p>
      {parts.slice(1).map((k, i) => (
        <span key={i}>
          <input type="hidden" name="more" value={k} />
          <input type="hidden" name="moreName" value={partName(k, region)} />
        </span>
      ))}
    </fieldset>
  );
}
