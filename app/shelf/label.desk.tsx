import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/label.route";

export function LabelDesk({ loaderData: { title, lines, svg, path } }: Pick<Route.ComponentProps, "loaderData">) {
  return (
    <>
      <div className="no-print contents">
        <PageHeader title="Label" note="Stick it on; the code opens this can or card here" />
      </div>
      <main className="px-4 py-6 sm:px-6">
        <figure className="inline-flex items-center gap-5 border border-ink bg-white p-4 text-black">
          <div className="size-28 [&>svg]:size-full" aria-label={`Code for ${path}`} role="img" dangerouslySetInnerHTML={{ __html: svg }} />
          <figcaption>
            <b className="block text-xl leading-tight">{title}</b>
            {lines.map((l) => (
              <span key={l} className="block">
                {l}
              </span>
            ))}
          </figcaption>
        </figure>
        <div className="no-print mt-5">
          <button type="button" className="press" data-kind="main" onClick={() => window.print()}>
            Print
          </button>
        </div>
      </main>
    </>
  );
}
