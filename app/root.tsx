import { Links, Meta, Outlet, Scripts, ScrollRestoration, isRouteErrorResponse, useRouteLoaderData } from "react-router";
import { serverContext } from "#server/context";
import { listClocks } from "#server/repos/clock-repo";
import { listJobs } from "#server/repos/job-repo";
import { getShop } from "#server/repos/shop-repo";
import type { Route } from "./+types/root";
import { useNonce } from "./lib/nonce";
import { readPrefs } from "./lib/prefs.server";
import { Shell } from "./shell/shell";
import "./app.css";

export async function loader({ request }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const now_ms = ctx.now_ms();
  const [shop, clocks, jobs] = await Promise.all([getShop(ctx.db), listClocks(ctx.db, now_ms), listJobs(ctx.db, { most: 30 })]);
  return {
    prefs: await readPrefs(request, shop.units),
    shop,
    clocks,
    now_ms,
    jobs: jobs.map((j) => ({ id: j.id, vehicle: j.vehicle, colourName: j.colourName })),
  };
}

export function Layout({ children }: { children: React.ReactNode }) {
  const nonce = useNonce();
  const root = useRouteLoaderData<typeof loader>("root");
  return (
    <html lang="en" data-theme={root?.prefs.theme ?? "booth"}>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href="/favicon.svg" type="image/svg+xml" />
        <Meta />
        <Links nonce={nonce} />
      </head>
      <body className="font-sans">
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function App() {
  return (
    <Shell>
      <Outlet />
    </Shell>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const known = isRouteErrorResponse(error);
  return (
    <main className="mx-auto max-w-xl space-y-4 p-8">
      <h1 className="text-3xl font-semibold">{known && error.status === 404 ? "This page is not here" : "Something went wrong"}</h1>
      <p>{known ? error.data || error.statusText : "What you had saved is safe in the file. Go back to the Floor and try again."}</p>
      <a className="press" data-kind="main" href="/">
        Go to the Floor
      </a>
    </main>
  );
}
