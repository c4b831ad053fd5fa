import { useEffect, useRef, useState } from "react";
import { Field } from "~/kit/ui/field";
import { ratioWords } from "~/kit/words/ratio-words";

/** The ratio of a sheet as people write it, its reducer too, read back in words. */
export function RatioField({ defaultValue, errors }: { defaultValue: string | undefined; errors: string[] | undefined }) {
  const [text, setText] = useState(defaultValue ?? "");
  const frame = useRef<HTMLDivElement>(null);
  // What was left half-typed stands there once the form has put it back.
  useEffect(() => setText(frame.current?.querySelector("input")?.value ?? ""), []);
  return (
    <div ref={frame} onInput={(e) => setText((e.target as HTMLInputElement).value)}>
      <Field
        label="Ratio by volume"
        name="ratio"
        placeholder="2:1"
        defaultValue={defaultValue}
        errors={errors}
        hint={ratioWords(text) ?? "as people write it: 2:1, 4-1-1, 2:1 + 10 %"}
      />
    </div>
  );
}
