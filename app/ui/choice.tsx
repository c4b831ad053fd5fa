import { RadioGroup } from "radix-ui";

export interface Option {
  value: string;
  name: string;
  note?: string;
}

/** One of several ways, each with what it is good for: a radio group with room for a glove. */
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
  const grid = { 1: "", 2: "sm:grid-cols-2", 3: "sm:grid-cols-3" }[columns];
  return (
    <RadioGroup.Root aria-label={label} {...(name ? { name } : {})} value={value} onValueChange={onChange} className={`grid gap-2 ${grid}`}>
      {options.map((o) => (
        <RadioGroup.Item key={o.value} value={o.value} className="choice">
          <span className="block font-semibold">{o.name}</span>
          {o.note && <span className="block text-[13px] text-ink2">{o.note}</span>}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}

/** Two or three short alternatives in one line. */
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
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      onValueChange={onChange}
      className="inline-flex max-w-full flex-wrap overflow-hidden rounded-press border border-edge"
    >
      {options.map((o) => (
        <RadioGroup.Item
          key={o.value}
          value={o.value}
          className="min-h-11 cursor-pointer border-r border-hair px-3.5 text-[14px] text-ink2 last:border-r-0 data-[state=checked]:bg-glow-wash data-[state=checked]:font-semibold data-[state=checked]:text-ink"
        >
          {o.name}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
