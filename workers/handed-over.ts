import type { OpName, Ops } from "./ops";

/** What of a question is handed to the worker and not copied: pictures, which nobody needs afterwards. */
export const HANDED_OVER: { [K in OpName]?: (input: Ops[K]["in"]) => Transferable[] } = {
  findInclusions: ({ rgba }) => [rgba.buffer],
  readReflection: ({ rgba }) => [rgba.buffer],
};
