import { useState } from "react";
import type { HouseWay } from "#core/models/ways/way";
import { Choices } from "~/kit/ui/toggle";

type Listed = Pick<HouseWay, "id" | "name" | "goodFor" | "price" | "source">;

/** Of the trade's ways those that are taken most; the rest is one tap away. */
const USUAL = ["two-full", "tack-full", "closed-finish", "three-flat", "three-sand-three", "matte-two"];

/** House ways to choose from, each with what it is good for and its price: the shop's own and the usual ones, then all. */
export function WayChoice({
  ways,
  value,
  onChange,
  name,
}: {
  ways: readonly Listed[];
  value: string;
  onChange: (id: string) => void;
  name?: string;
}) {
  const [all, setAll] = useState(false);
  const shown = all ? ways : ways.filter((w) => w.source === "house-way" || w.id === value || USUAL.includes(w.id));
  return (
    <div className="space-y-2">
      <Choices
        label="House way"
        columns={3}
        value={value}
        onChange={onChange}
        options={shown.map((w) => ({ value: w.id, name: w.name, note: [w.goodFor, w.price].filter(Boolean).join(". ") }))}
        {...(name ? { name } : {})}
      />
      {shown.length < ways.length && (
        <button type="button" className="press" data-kind="quiet" onClick={() => setAll(true)}>
          All {ways.length} ways
        </button>
      )}
    </div>
  );
}
