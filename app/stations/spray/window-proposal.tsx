import { FLOW_CHANGES, applyChange } from "#core/models/flow/flow-advice";
import type { WindowOutcome } from "./use-window";
import type { FlowSetting } from "#core/models/flow/flow-window";
import { InUnits } from "~/kit/ui/in-units";

type FlowChange = (typeof FLOW_CHANGES)[number];
interface Taken {
  setting: FlowSetting;
  take: (s: FlowSetting) => void;
}

/** Makes a change to the settings. */
function ChangePress({ change, setting, take, main = false }: Taken & { change: FlowChange; main?: boolean }) {
  return (
    <button
      type="button"
      className="press"
      {...(main ? { "data-kind": "main" } : {})}
      onClick={() => {
        const moved = applyChange(setting, change);
        if (moved) take(moved);
      }}
    >
      <InUnits>{change.words}</InUnits>
    </button>
  );
}

/** The change that a cause asks for. */
export function Proposal({ proposal, ...taken }: Taken & { proposal: FlowChange }) {
  return (
    <p className="mt-2 flex flex-wrap items-center gap-2" data-testid="proposed">
      <span className="font-semibold">The cause asks for it:</span>
      <ChangePress change={proposal} {...taken} main />
    </p>
  );
}

/** Small changes that give more margin. */
export function Margins({ around, ...taken }: Taken & { around: NonNullable<WindowOutcome["around"]> }) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <span className="small-label">More margin:</span>
      {around.changes.length === 0 && <span className="text-ink2">no small change helps more than it costs</span>}
      {around.changes.map((c) => (
        <ChangePress key={c.id} change={FLOW_CHANGES.find((f) => f.id === c.id)!} {...taken} />
      ))}
    </div>
  );
}
