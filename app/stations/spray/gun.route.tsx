import { acting } from "~/kit/form/in-words.server";
import { data, useFetcher } from "react-router";
import { z } from "zod";
import { useState } from "react";
import { archiveGun, saveGun, takeUpGun } from "#server/commands/guns";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { loadGuns } from "#server/views/guns-view";
import type { GunBody } from "#core/models/spray/gun";
import { show } from "#core/kernel/units/format";
import { answerForm, textOf, versionIn } from "~/kit/form/answer";
import { checkedBy } from "~/kit/form/fields";
import { gunShown, newGun, readGun } from "./gun.form";
import { GunDesk } from "./gun.desk";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { useUnits } from "~/kit/root/use-root";
import { SprayTabs } from "./tabs";
import { Tag } from "~/kit/ui/tag";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/gun.route";
import { usePanel } from "~/kit/panel/use-panel";

export async function loader() {
  const ctx = await serverContext();
  return { ...(await loadGuns(ctx)), formKey: ctx.newId() };
}

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const clientKey = textOf(form, "formKey") || null;
  const gunId = textOf(form, "gunId") || null;
  switch (textOf(form, "intent")) {
    case "keep":
      return answerForm(
        form,
        checkedBy((typed) => readGun(typed, units)),
        async (body) => {
          await saveGun(ctx, { id: gunId, version: versionIn(form), body, clientKey });
          return { message: `${body.name} kept` };
        },
        (there: GunBody) => gunShown(there, units),
      );
    case "use":
      return answerForm(form, z.object({ gunId: z.string().min(1, "Keep the gun first") }), async (v) => ({
        entryId: await takeUpGun(ctx, { panelId, gunId: v.gunId, by, clientKey: null }),
        message: "Taken up; the next coat starts from it",
      }));
    case "use-worked":
      return answerForm(form, z.object({ entryId: z.string().min(1) }), async (v) => {
        const worked = (await loadGuns(ctx)).worked.find((w) => w.entryId === v.entryId);
        if (!worked) throw data("These settings are no longer there", { status: 404 });
        const body = { name: `as on ${worked.where}`.slice(0, 60), gunId: null, settings: worked.settings };
        return {
          entryId: await recordEntry(ctx, { panelId, kind: "gunSet", body, by }),
          message: "Taken up; the next coat starts from it",
        };
      });
    case "away":
      return answerForm(form, z.object({ gunId: z.string().min(1) }), async (v) => {
        await archiveGun(ctx, v.gunId, true);
        return { message: "Put away" };
      });
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function GunPage({ loaderData: { guns, worked, formKey } }: Route.ComponentProps) {
  const { view, base } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<typeof action>();
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
