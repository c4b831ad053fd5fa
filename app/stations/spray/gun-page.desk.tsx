import { useFetcher } from "react-router";
import { useState } from "react";
import { show } from "#core/kernel/units/format";
import { newGun } from "./gun.form";
import { GunDesk } from "./gun.desk";
import { useUnits } from "~/kit/root/use-root";
import { SprayTabs } from "./tabs";
import { Tag } from "~/kit/ui/tag";
import type { Route } from "./+types/gun.route";
import { usePanel } from "~/kit/panel/use-panel";
import type { FormAnswer } from "~/kit/form/answer";

export function GunPageDesk({ loaderData: { guns, worked, formKey } }: Pick<Route.ComponentProps, "loaderData">) {
  const { view, base } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const taken = view.state.gunSet;
  const [chosen, setChosen] = useState<string | null>(() => taken?.body.gunId ?? guns[0]?.id ?? null);
  const gun = guns.find((g) => g.id === chosen) ?? null;
  return (
    <>
      <SprayTabs base={base} />
      <div className="mb-4 flex flex-wrap items-center gap-2" role="group" aria-label="Guns of the shop">
        {guns.map((g) => (
          <button
            key={g.id}
            type="button"
            className="press aria-pressed:bg-glow-wash"
            aria-pressed={g.id === gun?.id}
            onClick={() => setChosen(g.id)}
          >
            {g.body.name}
            {taken?.body.gunId === g.id && <Tag kind="good">in hand</Tag>}
          </button>
        ))}
        <button type="button" className="press aria-pressed:bg-glow-wash" aria-pressed={gun === null} onClick={() => setChosen(null)}>
          Another gun
        </button>
      </div>
      <GunDesk key={gun?.id ?? "new"} gun={gun} start={gun?.body ?? newGun} formKey={formKey} />
      {worked.length > 0 && (
        <section className="mt-8" aria-labelledby="worked-title">
          <h3 id="worked-title" className="text-lg font-semibold">
            Settings that worked here
          </h3>
          <p className="text-ink2">Last coats of panels that came out without a run or peel.</p>
          <ul className="mt-2 border-t border-hair">
            {worked.map((w) => (
              <li key={w.entryId} className="flex flex-wrap items-center justify-between gap-x-6 border-b border-hair py-1">
                <span>
                  <b className="font-semibold">{w.where}</b>{" "}
                  <span className="text-ink2">
                    {w.product}
                    {w.air_K !== null && `, ${show("temperature", w.air_K, units).text} ${units.temperature}`}:{" "}
                    {(
                      [
                        ["fluidRate", w.settings.fluidRate_m3_s],
                        ["pressure", w.settings.pressure_Pa],
                        ["length", w.settings.distance_m],
                        ["speed", w.settings.handSpeed_m_s],
                      ] as const
                    )
                      .map(([q, v]) => {
                        const s = show(q, v, units);
                        return `${s.text} ${s.unit}`;
                      })
                      .join(" · ")}
                  </span>
                </span>
                <fetcher.Form method="post">
                  <input type="hidden" name="intent" value="use-worked" />
                  <input type="hidden" name="entryId" value={w.entryId} />
                  <button className="press" data-kind="quiet" disabled={fetcher.state !== "idle"}>
                    Use for the next coat
                  </button>
                </fetcher.Form>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
