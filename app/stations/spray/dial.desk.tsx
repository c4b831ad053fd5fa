import { Suspense, lazy } from "react";
import { usePanel } from "~/kit/panel/use-panel";
import type { Route } from "./+types/dial.route";
import { SprayTabs } from "./tabs";

/** Drawn with the page, fetched after it. */
const Dial = lazy(() => import("./dial-work").then((m) => ({ default: m.Dial })));

/** Pressure, air, mix or nozzle are others than were planned: what the hand and the needle do so that the coat comes out the same. */
export function DialDesk({ loaderData: { dial, formKey } }: Pick<Route.ComponentProps, "loaderData">) {
  const { base } = usePanel();
  return (
    <>
      <SprayTabs base={base} />
      {dial ? (
        <Suspense>
          <Dial {...{ dial, formKey }} />
        </Suspense>
      ) : (
        <h2 className="max-w-[26em] text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]">
          No coat comes next here, or its settings lie beyond the model.
        </h2>
      )}
    </>
  );
}
