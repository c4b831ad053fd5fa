import { useRef } from "react";
import { Link, useFetcher } from "react-router";
import { isCoat } from "#core/models/product/sheet";
import { show, showFilm } from "#core/kernel/units/format";
import { serverContext } from "#server/running";
import { listShelf } from "#server/repos/product-repo";
import { loadCans } from "#server/views/cans-view";
import { useUnits } from "~/kit/root/use-root";
import { CanTag } from "~/kit/panel/can-tag";
import { PageHeader } from "~/kit/shell/page-header";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import type { Route } from "./+types/shelf.route";
import type { action as importAction } from "./shelf-import.do";

export const meta: Route.MetaFunction = () => [{ title: "Shelf · Yakamoz" }];

export async function loader() {
  const ctx = await serverContext();
  const shelf = await listShelf(ctx.db);
  return {
    coats: shelf.flatMap((p) => (isCoat(p.sheet) ? [{ ...p, sheet: p.sheet }] : [])),
    parts: shelf.flatMap((p) => (isCoat(p.sheet) ? [] : [{ ...p, sheet: p.sheet }])),
    cans: await loadCans(ctx),
  };
}

export default function Shelf({ loaderData: { coats, parts, cans } }: Route.ComponentProps) {
  const units = useUnits();
  const film = (m: number) => showFilm(m, units).text;
  const minutes = (s: number) => show("duration", s, units).text;
  const first = cans.find((c) => c.age.state === "today" || c.age.state === "soon");
  const dead = cans.filter((c) => c.age.state === "over").length;
  return (
    <>
      <PageHeader title="Shelf" note="What is in the shop, as the sheets say" />
      <main className="space-y-8 px-4 py-6 sm:px-6">
        <h2 className="max-w-[26em] text-[31px] leading-[1.12] font-semibold tracking-tight">
          {first ? (
            <>
              Take the {first.name} first: <em className="text-amber-ink not-italic">{first.age.words}.</em>
            </>
          ) : coats.length === 0 ? (
            "Nothing yet. Take a product’s data sheet and type its figures in; every forecast starts from them."
          ) : (
            "Nothing on the shelf is about to die."
          )}
          {dead > 0 && ` ${dead} ${dead === 1 ? "can is" : "cans are"} past it.`}
        </h2>
        <section aria-labelledby="cans-title">
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <h3 id="cans-title" className="mr-auto text-xl font-semibold">
              Cans
            </h3>
            <Link to="/shelf/cans/new" className="press">
              Put a can on the shelf
            </Link>
          </div>
          {cans.length === 0 ? (
            <p className="text-ink2">No can is kept track of. Put opened hardener here and it tells you when it dies.</p>
          ) : (
            <ul className="grid border-t border-hair lg:grid-cols-2 lg:gap-x-10">
              {cans.map((c) => (
                <li key={c.id} className="border-b border-hair">
                  <Link to={`/shelf/cans/${c.id}`} className="flex min-h-14 items-center gap-3 rounded-press px-1 hover:bg-glow-wash">
                    <span className="min-w-0 flex-1">
                      <b className="font-semibold">{c.name}</b>
                      <span className="block text-[13px] text-ink2">
                        {show("volume", c.left_m3, units).text} of {show("volume", c.size_m3, units).text} {units.volume} left
                        {c.batch && ` · batch ${c.batch}`}
                      </span>
                    </span>
                    <CanTag state={c.age.state} words={c.age.words} />
                  </Link>
                </li>
              ))}
            </ul>
          )}
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
          <ScrollRegion label="Products">
            <table className="w-full text-left">
              <thead className="small-label border-b border-hair">
                <tr>
                  <th className="py-2">Product</th>
                  <th>Kind</th>
                  <th>Ratio</th>
                  <th>Solids</th>
                  <th>Film a coat, {units.film}</th>
                  <th>Flash, min</th>
                  <th>Pot, min</th>
                </tr>
              </thead>
              <tbody>
                {coats.map(({ id, sheet, revision }) => (
                  <tr key={id} className="border-b border-hair">
                    <td>
                      <Link to={`/shelf/${id}`} className="flex min-h-11 items-center font-semibold underline-offset-4 hover:underline">
                        {sheet.name}
                        <span className="ml-2 font-normal text-ink2">rev. {revision}</span>
                      </Link>
                    </td>
                    <td>{sheet.kind}</td>
                    <td>
                      {sheet.ratio || "–"}
                      {sheet.reducerMax > 0 && ` + ${show("share", sheet.reducerMax, units, 0).text} %`}
                    </td>
                    <td>{show("share", sheet.volumeSolids, units, 0).text} %</td>
                    <td>
                      {film(sheet.filmPerCoatMin_m)}–{film(sheet.filmPerCoatMax_m)}
                    </td>
                    <td>
                      {minutes(sheet.flashMin_s)}–{minutes(sheet.flashMax_s)}
                    </td>
                    <td>{minutes(sheet.potLife_s)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </ScrollRegion>
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
          <ul className="grid border-t border-hair sm:grid-cols-2 sm:gap-x-10">
            {parts.map(({ id, sheet }) => (
              <li key={id} className="border-b border-hair">
                <Link
                  to={`/shelf/parts/${id}`}
                  className="flex min-h-11 items-center justify-between gap-3 rounded-press px-1 hover:bg-glow-wash"
                >
                  <b className="font-semibold">{sheet.name}</b>
                  <span className="text-[14px] text-ink2">
                    {[sheet.speed, sheet.kind, sheet.density_kg_m3 && `${show("density", sheet.density_kg_m3, units, 2).text} g/ml`]
                      .filter(Boolean)
                      .join(" · ")}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
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
