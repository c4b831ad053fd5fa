import { useEffect, useState } from "react";
import type { SourceKey } from "#core/kernel/sources";
import type { Shown } from "#core/kernel/units/format";
import { useLater } from "~/kit/root/later";
import { inPassing } from "./late-parts";

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
  working: WorkingAsked;
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

const BUTTON = "min-h-11 cursor-pointer rounded-press text-left decoration-edge decoration-dotted underline-offset-4 hover:underline";

/** A working, or what makes it once it is asked for: long ones are not fetched before. */
export type WorkingAsked = Working | (() => Promise<Working>);

/** What it stands around opens the working of its figure. */
export function WorkingButton({ working: asked, label, children }: { working: WorkingAsked; label: string; children: React.ReactNode }) {
  const [open, setOpen] = useState(false);
  const part = useLater(inPassing, open);
  const working = useAsked(asked, open);
  if (part && working)
    return (
      <part.WorkingPopover working={working} label={label} className={BUTTON} open={open} onOpenChange={setOpen}>
        {children}
      </part.WorkingPopover>
    );
  return (
    <button type="button" aria-label={label} aria-haspopup="dialog" aria-expanded={open} className={BUTTON} onClick={() => setOpen(true)}>
      {children}
    </button>
  );
}

/** The working that is asked for, made anew with what it is made of while it is open. */
function useAsked(asked: WorkingAsked, open: boolean): Working | null {
  const [made, setMade] = useState<Working | null>(null);
  useEffect(() => {
    if (!open || typeof asked !== "function") return;
    let gone = false;
    void asked().then(
      (working) => {
        if (!gone) setMade(working);
      },
      () => {}, // the server is away: asked again, it is fetched again
    );
    return () => void (gone = true);
  }, [open, asked]);
  return typeof asked === "function" ? made : asked;
}
