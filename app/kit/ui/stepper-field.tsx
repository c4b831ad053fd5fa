import { Minus, Plus } from "lucide-react";
import { useId } from "react";
import { FieldErrors } from "./field";

/** A figure that is mostly right: two large presses for a small change, and a field that takes typing all the same. */
export function StepperField({
  label,
  unit,
  by,
  value,
  onChange,
  errors,
  name,
}: {
  label: string;
  unit: string;
  /** So much a press, in the unit shown. */
  by: number;
  name: string;
  value: string;
  onChange: (text: string) => void;
  errors?: string[] | undefined;
}) {
  const id = useId();
  const step = (sign: 1 | -1) => onChange(stepped(value, sign * by));
  return (
    <div>
      <div className="flex items-center gap-2">
        <label htmlFor={id} className="min-w-28 flex-1 font-semibold">
          {label}
          <span className="font-normal text-ink2">, {unit}</span>
        </label>
        <button type="button" className="press !px-0" onClick={() => step(-1)} aria-label={`${label}: less`}>
          <Minus size={18} aria-hidden />
        </button>
        <input
          id={id}
          name={name}
          value={value}
          onChange={(e) => onChange(e.target.value)}
          inputMode="decimal"
          autoComplete="off"
          className="field !w-24 text-center !text-[20px] font-semibold"
          aria-invalid={errors?.length ? true : undefined}
          aria-describedby={errors?.length ? `${id}-error` : undefined}
        />
        <button type="button" className="press !px-0" onClick={() => step(1)} aria-label={`${label}: more`}>
          <Plus size={18} aria-hidden />
        </button>
      </div>
      <FieldErrors id={`${id}-error`} errors={errors} />
    </div>
  );
}

/** A typed figure with so much more or less, written with as many places as the change has; what is no number stays as it was typed, and nothing goes below zero. */
export function stepped(text: string, by: number): string {
  const now = Number(text.replace(",", "."));
  if (text.trim() === "" || !Number.isFinite(now)) return text;
  const places = (String(Math.abs(by)).split(".")[1] ?? "").length;
  return Math.max(0, now + by).toFixed(Math.max(places, (text.split(/[.,]/)[1] ?? "").length));
}
