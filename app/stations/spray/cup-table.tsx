import { useEffect, useState } from "react";
import type { CupTyped } from "./gun.form";
import { useUnits } from "~/kit/root/use-root";
import { beep } from "~/kit/shell/beep";
import { FieldErrors } from "~/kit/ui/field";

const CUP_S = 10;
const MOST = 12;

/** Timed cups: what ran out in ten seconds at some turns. A clock counts the ten seconds. */
export function CupTable({
  cups,
  onChange,
  errors,
}: {
  cups: readonly CupTyped[];
  onChange: (cups: CupTyped[]) => void;
  errors: Record<string, string[]>;
}) {
  const units = useUnits();
  const [left, setLeft] = useState<number | null>(null);
  useEffect(() => {
    if (left === null) return;
    const next = setTimeout(() => {
      if (left === 1) beep();
      setLeft(left <= 1 ? null : left - 1);
    }, 1000);
    return () => clearTimeout(next);
  }, [left]);
  const set = (i: number, change: Partial<CupTyped>) => onChange(cups.map((c, k) => (k === i ? { ...c, ...change } : c)));
  const cell = (i: number, name: keyof CupTyped, label: string) => {
    const field = { turns: "cupTurns", volume: "cupVolume", time: "cupTime" }[name];
    return (
      <td>
        <input
          name={field}
          value={cups[i]![name]}
          onChange={(e) => set(i, { [name]: e.target.value })}
          inputMode="decimal"
          autoComplete="off"
          className="field"
          aria-label={`${label}, cup ${i + 1}`}
          aria-invalid={errors[`${field}-${i}`] ? true : undefined}
        />
        <FieldErrors errors={errors[`${field}-${i}`]} />
      </td>
    );
  };
  return (
    <div className="space-y-2">
      <table className="w-full text-left [&_td]:py-1 [&_td]:pr-2 [&_td]:align-top">
        <thead className="small-label">
          <tr>
            <th>Turns out</th>
            <th>Ran out, {units.volume}</th>
            <th>in, s</th>
          </tr>
        </thead>
        <tbody>
          {cups.map((_, i) => (
            <tr key={i}>
              {cell(i, "turns", "Turns out")}
              {cell(i, "volume", `Ran out, ${units.volume}`)}
              {cell(i, "time", "Seconds")}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="press"
          disabled={cups.length >= MOST}
          onClick={() => onChange([...cups, { turns: "", volume: "", time: String(CUP_S) }])}
        >
          One cup more
        </button>
        <button type="button" className="press" disabled={cups.length === 0} onClick={() => onChange(cups.slice(0, -1))}>
          One less
        </button>
        <button type="button" className="press" onClick={() => setLeft(left === null ? CUP_S : null)} aria-live="polite">
          {left === null ? "Count ten seconds" : `${left} s`}
        </button>
      </div>
    </div>
  );
}
