import { Tag } from "~/kit/ui/tag";

/** At figures that are common practice of their kind and no product's own. */
export const UsualTag = ({ className = "" }: { className?: string }) => (
  <span className={className}>
    <Tag kind="open">usual: replace by your sheet</Tag>
  </span>
);
