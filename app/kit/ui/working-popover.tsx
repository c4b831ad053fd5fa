import * as Popover from "@radix-ui/react-popover";
import { SOURCES } from "#core/kernel/sources";
import type { Working } from "./figure";
import { InUnits } from "~/kit/ui/in-units";

/** The button with its working: fetched with the first one that is opened. */
export function WorkingPopover({
  working,
  label,
  className,
  open,
  onOpenChange,
  children,
}: {
  working: Working;
  label: string;
  className: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: React.ReactNode;
}) {
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger aria-label={label} className={className}>
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
          <p>
            <InUnits>{working.formula}</InUnits>
          </p>
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
            <InUnits>{working.changesMost}</InUnits>
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
