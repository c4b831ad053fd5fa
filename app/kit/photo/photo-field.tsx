import { useId } from "react";
import { FieldErrors } from "~/kit/ui/field";

/** Photographs that a form sends along: one, unless several are asked for. A tablet offers its camera beside its disk by itself. */
export function PhotoField({
  label = "Photograph",
  multiple = false,
  errors,
}: {
  label?: string;
  multiple?: boolean;
  errors: string[] | undefined;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="small-label mb-1 block">
        {label}
      </label>
      <input
        id={id}
        type="file"
        name="photos"
        accept="image/*"
        multiple={multiple}
        className="field"
        aria-describedby={errors?.length ? `${id}-error` : undefined}
      />
      <FieldErrors id={`${id}-error`} errors={errors} />
    </div>
  );
}
