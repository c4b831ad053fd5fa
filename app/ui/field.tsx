import { useId } from "react";

interface FieldProps extends Omit<React.ComponentProps<"input">, "id"> {
  label: string;
  unit?: string;
  hint?: string;
  errors?: string[] | undefined;
}

/** Label, input, unit and message, tied together. Numbers open the number pad but stay text, so a comma is as good as a point. */
export function Field({ label, unit, hint, errors, className = "", ...input }: FieldProps) {
  const id = useId();
  const described = [hint && `${id}-hint`, errors?.length && `${id}-error`].filter(Boolean).join(" ");
  return (
    <div className={className}>
      <label htmlFor={id} className="small-label mb-1 block">
        {label}
        {unit && <span className="font-normal">, {unit}</span>}
      </label>
      <input
        {...(unit ? { inputMode: "decimal" as const, autoComplete: "off" } : {})}
        {...input}
        id={id}
        className="field"
        aria-invalid={errors?.length ? true : undefined}
        aria-describedby={described || undefined}
      />
      {hint && (
        <p id={`${id}-hint`} className="mt-1 text-[13px] text-ink2">
          {hint}
        </p>
      )}
      <FieldErrors id={`${id}-error`} errors={errors} />
    </div>
  );
}

export function SelectField({
  label,
  hint,
  errors,
  className = "",
  children,
  ...select
}: Omit<React.ComponentProps<"select">, "id"> & { label: string; hint?: string; errors?: string[] | undefined }) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="small-label mb-1 block">
        {label}
      </label>
      <select
        {...select}
        id={id}
        className="field"
        aria-invalid={errors?.length ? true : undefined}
        aria-describedby={errors?.length ? `${id}-error` : undefined}
      >
        {children}
      </select>
      {hint && <p className="mt-1 text-[13px] text-ink2">{hint}</p>}
      <FieldErrors id={`${id}-error`} errors={errors} />
    </div>
  );
}

export function FieldErrors({ id, errors }: { id?: string; errors: string[] | undefined }) {
  if (!errors?.length) return null;
  return (
    <p id={id} role="alert" className="mt-1 text-sm font-medium text-stop-ink">
      {errors.join(". ")}
    </p>
  );
}
