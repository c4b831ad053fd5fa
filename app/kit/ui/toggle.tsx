import { useId } from "react";

/** Two or three short alternatives in one line: the browser's own radio buttons, each as large as its word's field. */
export function Toggle({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: readonly { value: string; name: string }[];
  value: string;
  onChange: (value: string) => void;
}) {
  const name = useId();
  return (
    <div role="radiogroup" aria-label={label} className="inline-flex max-w-full flex-wrap overflow-hidden rounded-press border border-edge">
      {options.map((o) => (
        <label
          key={o.value}
          className="relative grid min-h-11 cursor-pointer place-content-center border-r border-hair px-3.5 text-[14px] text-ink2 last:border-r-0 has-checked:bg-glow-wash has-checked:font-semibold has-checked:text-ink has-focus-visible:outline-3 has-focus-visible:-outline-offset-3 has-focus-visible:outline-glow-ink"
        >
          <input
            type="radio"
            name={name}
            value={o.value}
            checked={o.value === value}
            onChange={() => onChange(o.value)}
            className="absolute inset-0 size-full cursor-pointer opacity-0"
          />
          {o.name}
        </label>
      ))}
    </div>
  );
}

interface Option {
  value: string;
  name: string;
  note?: string;
}

/** One of several ways, each with what it is good for: the browser's own radio buttons with room for a glove. */
export function Choices({
  label,
  name,
  options,
  value,
  onChange,
  columns = 1,
}: {
  label: string;
  name?: string;
  options: readonly Option[];
  value: string;
  onChange: (value: string) => void;
  columns?: 1 | 2 | 3;
}) {
  const own = useId();
  const grid = { 1: "", 2: "sm:grid-cols-2", 3: "sm:grid-cols-3" }[columns];
  return (
    <div role="radiogroup" aria-label={label} className={`grid gap-2 ${grid}`}>
      {options.map((o) => (
        <label key={o.value} className="choice">
          <input
            type="radio"
            name={name ?? own}
            value={o.value}
            checked={o.value === value}
            onChange={() => onChange(o.value)}
            aria-labelledby={`${own}-${o.value}`}
            {...(o.note ? { "aria-describedby": `${own}-${o.value}-note` } : {})}
            className="absolute inset-0 size-full cursor-pointer opacity-0"
          />
          <span id={`${own}-${o.value}`} className="block font-semibold">
            {o.name}
          </span>
          {o.note && (
            <span id={`${own}-${o.value}-note`} className="block text-[13px] text-ink2">
              {o.note}
            </span>
          )}
        </label>
      ))}
    </div>
  );
}
