import { Link } from "react-router";

/** Said where a question needs a clear and the shelf has none. */
export const NoClear = () => (
  <p className="max-w-[60ch] text-ink2">
    No clear is on the shelf yet.{" "}
    <Link to="/shelf/new" className="underline">
      Type one in from its sheet
    </Link>{" "}
    and ask again.
  </p>
);
