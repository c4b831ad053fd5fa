/** Over every page of the invented shop: what it is, and the way out of it. */
export function DemoBar() {
  return (
    <form
      method="post"
      action="/do/demo"
      className="no-print flex flex-wrap items-center justify-between gap-x-4 bg-amber-wash px-4 sm:px-6"
    >
      <p className="font-medium">An invented shop, to look at and try; your own is untouched.</p>
      <button className="press" data-kind="quiet" name="intent" value="throwAway">
        Throw it away
      </button>
    </form>
  );
}
