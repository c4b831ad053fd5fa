import icon from "./favicon.svg?inline";
import { Links, Meta, Outlet, Scripts, ScrollRestoration, isRouteErrorResponse, useRouteLoaderData } from "react-router";
import type { Route } from "./+types/root";
import { useNonce } from "~/kit/http/nonce";
import { requestContext } from "~/kit/http/request-context.server";
import { turnedAway } from "~/kit/http/turned-away.server";
import { useRoot } from "~/kit/root/use-root";
import { type RootData, loadRoot } from "./kit/http/root-data.server";
import { EARLY_SCRIPT } from "~/kit/root/early-script";
import { Shell } from "~/kit/shell/shell";
import styles from "./app.css?url";
import { unlessListMoved } from "~/kit/list/list-state";

export { unlessListMoved as shouldRevalidate };

/** By its address: a part that is loaded later does not ask for it once more. */
export const links: Route.LinksFunction = () => [{ rel: "stylesheet", href: styles }];

/** Whoever may not see a page is told where to go first, or why not, before any of it is read. */
export const middleware: Route.MiddlewareFunction[] = [turnedAway];

export const loader = ({ request, context }: Route.LoaderArgs) => loadRoot(request, context.get(requestContext).known);

export function Layout({ children }: { children: React.ReactNode }) {
  const nonce = useNonce();
  const root = useRouteLoaderData<RootData>("root");
  return (
    <html lang="en" data-theme={root?.prefs.theme ?? "booth"}>
      <head>
        <meta charSet="utf-8" />
        <script nonce={nonce} dangerouslySetInnerHTML={{ __html: import.meta.env.SSR ? EARLY_SCRIPT : "" }} suppressHydrationWarning />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href={icon} type="image/svg+xml" />
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
  // Whoever has not signed in sees the door alone.
  return useRoot().who === "nobody" ? (
    <Outlet />
  ) : (
    <Shell>
      <Outlet />
    </Shell>
  );
}

const TITLES: Record<number, string> = { 403: "This is not for everybody", 404: "This page is not here" };

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const known = isRouteErrorResponse(error);
  return (
    <main className="mx-auto max-w-xl space-y-4 p-8">
      <h1 className="text-3xl font-semibold">{(known && TITLES[error.status]) ?? "Something went wrong"}</h1>
      <p>
        {known
          ? error.data || error.statusText
          : "This page could not be made; it stands in the log. What the program had answered as stored is stored. Go back to the shop floor and try again."}
      </p>
      <a className="press" data-kind="main" href="/">
        Go to the Floor
      </a>
    </main>
  );
}
