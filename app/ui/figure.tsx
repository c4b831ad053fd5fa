import { Popover } from "radix-ui";
import { SOURCES, type SourceKey } from "#core/sources";
import type { Shown } from "#core/units/format";

/** How a figure came about: always one tap away. */
export interface Working {
  title: string;
  formula: string;
  inputs: { name: string; shown: string }[];
  sources: SourceKey[];
  changesMost: string;
}

/** A big number with a small unit; tapping it opens its working. */
export function Figure({
  label,
  shown,
  note,
  working,
  size = "big",
  tone,
}: {
  label: string;
  shown: Shown;
  note?: string;
  working: Working;
  size?: "big" | "middle";
  tone?: "stop" | "amber" | "glow";
}) {
  const colour = tone === "stop" ? "text-stop-ink" : tone === "amber" ? "text-amber-ink" : tone === "glow" ? "text-glow-ink" : "text-ink";
  return (
    <div>
      <WorkingButton working={working} label={`${label}: ${shown.text} ${shown.unit}. Show the working`}>
        <span className={`${size === "big" ? "text-[38px]" : "text-[27px]"} font-semibold leading-none tracking-tight ${colour}`}>
          {shown.text}
        </span>{" "}
        <span className="text-[17px] text-ink2">
          {shown.unit} {label}
        </span>
      </WorkingButton>
      {note && <p className="text-sm text-ink2">{note}</p>}
    </div>
  );
}

export function WorkingButton({ working, label, children }: { working: Working; label: string; children: React.ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={label}
        className="min-h-11 cursor-pointer rounded-press text-left decoration-edge decoration-dotted underline-offset-4 hover:underline"
      >
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="bottom"
          align="start"
          collisionPadding={12}
          className="z-40 max-h-[70vh] w-[min(430px,92vw)] space-y-3 overflow-y-auto rounded-press border border-edge bg-paper p-5 text-ink shadow-lg"
        >
          <h3 className="text-lg font-semibold">{working.title}</h3>
          <p>{working.formula}</p>
          <dl className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 border-y border-hair py-2">
            {working.inputs.map((i) => (
              <div key={i.name} className="contents">
                <dt className="text-ink2">{i.name}</dt>
                <dd className="text-right font-medium">{i.shown}</dd>
              </div>
            ))}
          </dl>
          <p>
            <span className="small-label block">What would change it most</span>
            {working.changesMost}
          </p>
          <div>
            <span className="small-label">Where it comes from</span>
            <ul className="list-disc pl-5 text-sm">
              {working.sources.map((s) => (
                <li key={s}>{SOURCES[s].text}</li>
              ))}
            </ul>
          </div>
          <Popover.Close className="press">Close</Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
