import { useId } from "react";

export interface Option {
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
