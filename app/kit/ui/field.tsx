import { useId, useRef } from "react";
import { useBeforePaint } from "~/kit/root/before-paint";
import { useOwnField } from "./fields-context";

interface Labelled {
  label: string;
  hint?: string | undefined;
  errors?: string[] | undefined;
  className?: string | undefined;
}
/** What a control gets from its frame, so that label, hint and message belong to it. */
interface Tied {
  id: string;
  className: string;
  "aria-invalid": true | undefined;
  "aria-describedby": string | undefined;
}

/** Label above, hint and message below a control, tied together. */
function Frame({
  label,
  unit,
  hint,
  errors,
  className = "",
  children,
}: Labelled & { unit?: string | undefined; children: (tied: Tied) => React.ReactNode }) {
  const id = useId();
  const described = [hint && `${id}-hint`, errors?.length && `${id}-error`].filter(Boolean).join(" ");
  return (
    <div className={className}>
      <label htmlFor={id} className="small-label mb-1 block">
        {label}
        {unit && <span className="font-normal">, {unit}</span>}
      </label>
      {children({
        id,
        className: "field",
        "aria-invalid": errors?.length ? true : undefined,
        "aria-describedby": described || undefined,
      })}
      {hint && (
        <p id={`${id}-hint`} className="mt-1 text-[13px] text-ink2">
          {hint}
        </p>
      )}
      <FieldErrors id={`${id}-error`} errors={errors} />
    </div>
  );
}

/** An input with its unit. Numbers open the number pad but stay text, so a comma is as good as a point. */
export function Field({
  label,
  unit,
  hint,
  errors,
  className,
  ...input
}: Omit<React.ComponentProps<"input">, "id"> & Labelled & { unit?: string }) {
  const own = useOwnField(input, unit);
  return (
    <Frame {...{ label, unit, hint, errors, className }}>
      {(tied) => <input {...(unit ? { inputMode: "decimal" as const, autoComplete: "off" } : {})} {...input} {...own} {...tied} />}
    </Frame>
  );
}

export function SelectField({ label, hint, errors, className, ...select }: Omit<React.ComponentProps<"select">, "id"> & Labelled) {
  return <Frame {...{ label, hint, errors, className }}>{(tied) => <OwnSelect {...select} {...tied} />}</Frame>;
}

export function TextArea({ label, hint, errors, className, ...area }: Omit<React.ComponentProps<"textarea">, "id"> & Labelled) {
  const own = useOwnField(area);
  return <Frame {...{ label, hint, errors, className }}>{(tied) => <textarea {...area} {...own} {...tied} />}</Frame>;
}

/** A bare input in a form that keeps what it holds: a colour, a tick, a radio button of a group of its own look. */
export function OwnInput(props: React.ComponentProps<"input">) {
  const own = useOwnField(props);
  return <input {...props} {...own} />;
}

/** A bare choice. Its start may change while it stands there: a form that starts again shows the new one, as the other fields do. */
export function OwnSelect(props: React.ComponentProps<"select">) {
  const own = useOwnField(props);
  const element = useRef<HTMLSelectElement>(null);
  const { defaultValue } = props;
  useBeforePaint(() => {
    if (typeof defaultValue !== "string") return;
    for (const option of element.current?.options ?? []) option.defaultSelected = option.value === defaultValue;
  }, [defaultValue]);
  const ref = (el: HTMLSelectElement | null) => {
    element.current = el;
    own.ref?.(el);
  };
  return <select {...props} {...own} ref={ref} />;
}

export function FieldErrors({ id, errors }: { id?: string; errors: string[] | undefined }) {
  if (!errors?.length) return null;
  return (
    <p id={id} role="alert" className="mt-1 text-sm font-medium text-stop-ink">
      {errors.join(". ")}
    </p>
  );
}
