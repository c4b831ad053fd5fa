import type { ContainerAge } from "#core/models/product/container";
import { Tag } from "~/kit/ui/tag";

const KIND = { good: "good", soon: "caution", today: "caution", over: "stop", empty: "open" } as const;

/** How an opened can stands, by word, shape and colour. */
export function CanTag({ state, words }: { state: ContainerAge["state"]; words: string }) {
  return <Tag kind={KIND[state]}>{words}</Tag>;
}
