import { Link } from "react-router";
import { show, showFilm } from "#core/units/format";
import { serverContext } from "#server/context";
import { listProducts } from "#server/repos/product-repo";
import { useUnits } from "~/lib/use-root";
import { PageHeader } from "~/ui/page-header";
import { ScrollRegion } from "~/ui/scroll-region";
import type { Route } from "./+types/shelf";

export const meta: Route.MetaFunction = () => [{ title: "Shelf · Yakamoz" }];

export async function loader() {
  const { db } = await serverContext();
  return { products: await listProducts(db) };
}

export default function Shelf({ loaderData: { products } }: Route.ComponentProps) {
  const units = useUnits();
  const film = (m: number) => showFilm(m, units).text;
  const minutes = (s: number) => show("duration", s, units).text;
  return (
    <>
      <PageHeader title="Shelf" note="The clears of this shop, as their sheets say" />
      <main className="space-y-5 px-4 py-6 sm:px-6">
        <Link to="/shelf/new" className="press" data-kind="main">
          Put a clear on the shelf
        </Link>
        {products.length === 0 ? (
          <p className="text-ink2">Nothing yet. Take a product’s data sheet and type its figures in; every forecast starts from them.</p>
        ) : (
          <ScrollRegion label="Products">
            <table className="w-full min-w-[640px] text-left">
              <thead className="small-label border-b border-hair">
                <tr>
                  <th className="py-2">Product</th>
                  <th>Ratio</th>
                  <th>Solids</th>
                  <th>Film a coat, {units.film}</th>
                  <th>Flash, min</th>
                  <th>Pot, min</th>
                  <th>Speed</th>
                </tr>
              </thead>
              <tbody>
                {products.map(({ id, sheet, revision }) => (
                  <tr key={id} className="border-b border-hair">
                    <td>
                      <Link to={`/shelf/${id}`} className="flex min-h-11 items-center font-semibold underline-offset-4 hover:underline">
                        {sheet.name}
                        <span className="ml-2 font-normal text-ink2">rev. {revision}</span>
                      </Link>
                    </td>
                    <td>{sheet.ratio || "–"}</td>
                    <td>{show("share", sheet.volumeSolids, units).text} %</td>
                    <td>
                      {film(sheet.filmPerCoatMin_m)}–{film(sheet.filmPerCoatMax_m)}
                    </td>
                    <td>
                      {minutes(sheet.flashMin_s)}–{minutes(sheet.flashMax_s)}
                    </td>
                    <td>{minutes(sheet.potLife_s)}</td>
                    <td>{sheet.speed}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </ScrollRegion>
        )}
      </main>
    </>
  );
}
