import type { HouseWay } from "#core/models/ways/way";
import { Choices } from "~/kit/ui/choice";

/** House ways to choose from, each with what it is good for and its price. */
export const WayChoice = ({
  ways,
  value,
  onChange,
  name,
}: {
  ways: readonly Pick<HouseWay, "id" | "name" | "goodFor" | "price">[];
  value: string;
  onChange: (id: string) => void;
  name?: string;
}) => (
  <Choices
    label="House way"
    columns={3}
    value={value}
    onChange={onChange}
    options={ways.map((w) => ({ value: w.id, name: w.name, note: [w.goodFor, w.price].filter(Boolean).join(". ") }))}
    {...(name ? { name } : {})}
  />
);
