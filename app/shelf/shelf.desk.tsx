import { useRef } from "react";
import { Link, useFetcher } from "react-router";
import { UsualClears } from "~/kit/first/usual-clears";
import { PageHeader } from "~/kit/shell/page-header";
import { CanList, PartList, ProductList } from "./shelf-lists";
import type { Route } from "./+types/shelf.route";
import type { action as importAction } from "./shelf-import.do";

export function ShelfDesk({ loaderData: { coats, parts, cans } }: Pick<Route.ComponentProps, "loaderData">) {
  const first = cans.find((c) => c.age.state === "today" || c.age.state === "soon");
  const dead = cans.filter((c) => c.age.state === "over").length;
  return (
    <>
      <PageHeader title="Shelf" note="What is in the shop, as the sheets say" />
      <main className="space-y-8 px-4 py-6 sm:px-6">
        <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
          {first ? (
            <>
              Take the {first.name} first: <em className="text-amber-ink not-italic">{first.age.words}.</em>
            </>
          ) : coats.length === 0 ? (
            "Nothing yet. A usual clear is one press; your own sheet takes its place."
          ) : (
            "Nothing on the shelf is about to die."
          )}
          {dead > 0 && ` ${dead} ${dead === 1 ? "can is" : "cans are"} past it.`}
        </h2>
        {coats.length === 0 && <UsualClears />}
        <section aria-labelledby="cans-title">
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <h3 id="cans-title" className="mr-auto text-xl font-semibold">
              Cans
            </h3>
            <Link to="/shelf/cans/new" className="press">
              Put a can on the shelf
            </Link>
          </div>
          <CanList cans={cans} />
        </section>
        <section aria-labelledby="coats-title">
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <h3 id="coats-title" className="mr-auto text-xl font-semibold">
              Clears and other coats
            </h3>
            <Link to="/shelf/new" className="press" data-kind="main">
              New product
            </Link>
          </div>
          <ProductList coats={coats} />
        </section>
        <section aria-labelledby="parts-title">
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <h3 id="parts-title" className="mr-auto text-xl font-semibold">
              Hardeners, reducers, additives
            </h3>
            <Link to="/shelf/parts/new" className="press">
              New part
            </Link>
          </div>
          <PartList parts={parts} />
        </section>
        <Files />
      </main>
    </>
  );
}

/** The shelf out and in as a file: whole or not at all. */
function Files() {
  const fetcher = useFetcher<typeof importAction>();
  const input = useRef<HTMLInputElement>(null);
  const answer = fetcher.data;
  return (
    <section aria-labelledby="files-title">
      <h3 id="files-title" className="mb-2 text-xl font-semibold">
        As a file
      </h3>
      <div className="flex flex-wrap gap-2">
        <a className="press" href="/do/shelf/file/json" download="shelf.json">
          Save as JSON
        </a>
        <a className="press" href="/do/shelf/file/csv" download="shelf.csv">
          Save as CSV
        </a>
        <button type="button" className="press" onClick={() => input.current?.click()}>
          {fetcher.state === "idle" ? "Read a file" : "Reading…"}
        </button>
        <input
          ref={input}
          type="file"
          accept=".json,.csv"
          className="sr-only"
          tabIndex={-1}
          aria-label="Shelf file"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (!file) return;
            const form = new FormData();
            form.set("file", file);
            void fetcher.submit(form, { method: "post", action: "/do/shelf/import", encType: "multipart/form-data" });
            e.target.value = "";
          }}
        />
      </div>
      {answer && (
        <div role="status" className="mt-3 max-w-[75ch]">
          {answer.ok ? (
            <p className="text-glow-ink">{answer.message}</p>
          ) : !("problems" in answer) ? (
            <p className="font-semibold text-stop-ink">{answer.message}</p>
          ) : (
            <>
              <p className="font-semibold text-stop-ink">Nothing was read. The file was refused whole:</p>
              <ul className="list-disc pl-5 text-stop-ink">
                {answer.problems.map((p, i) => (
                  <li key={i}>
                    Row {p.line}
                    {p.column && `, ${p.column}`}: {p.reason}
                  </li>
                ))}
                {answer.more > 0 && <li>and {answer.more} more</li>}
              </ul>
            </>
          )}
        </div>
      )}
    </section>
  );
}
