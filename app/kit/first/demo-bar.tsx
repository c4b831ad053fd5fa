import { LookPress } from "./look-press";

/** Over every page of the invented shop: what it is, and the way out of it. */
export function DemoBar() {
  return (
    <div className="no-print flex flex-wrap items-center justify-between gap-x-4 gap-y-1 bg-amber-wash px-4 py-1 sm:px-6">
      <p className="font-medium">An invented shop, to look at and try; your own is untouched.</p>
      <LookPress intent="throwAway" busy="Throwing it away…">
        Throw it away
      </LookPress>
    </div>
  );
}
