import { Link } from "react-router";
import { sizeWords } from "~/kit/words/size-words";

/** Over every page, before anything is typed: the disk has little room left. */
export function LowDisk({ free_bytes }: { free_bytes: number }) {
  return (
    <div role="status" className="no-print flex flex-wrap items-center justify-between gap-x-4 gap-y-1 bg-amber-wash px-4 py-1 sm:px-6">
      <p className="font-medium">
        The disk of the shop&rsquo;s computer is nearly full: {sizeWords(free_bytes)} left. Make room before you go on.
      </p>
      <Link to="/house/backups" className="press" data-kind="quiet">
        What lies there
      </Link>
    </div>
  );
}
