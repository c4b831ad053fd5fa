import { Link } from "react-router";

/** What stands until the map does, in its place. */
export const MapToCome = () => (
  <div aria-live="polite" data-testid="map-verdict" data-verdict="waiting">
    <h2 className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
      Working out the film between the spots.
    </h2>
  </div>
);

/** Without readings there is no map, and a way to take them. */
export const NothingRead = ({ base }: { base: string }) => (
  <section className="max-w-[60ch] space-y-4">
    <h2 className="text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
      Nothing is read after clear yet, so there is no map.
    </h2>
    <p className="text-ink2">Three spots are the least; six give a wide map, more make it sharp.</p>
    <Link to={`${base}/inspect`} className="press" data-kind="main">
      Read the film
    </Link>
  </section>
);
