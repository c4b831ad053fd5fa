import { KeptForm } from "~/kit/draft/draft-form";
import { useFetcher, type FetcherWithComponents } from "react-router";
import { dewPointMargin } from "#core/models/climate/dew-point";
import { show } from "#core/kernel/units/format";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { StandIn } from "~/kit/shell/stand-in";
import { Field } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { dewWorking } from "~/kit/words/spray-workings";

/** Today's climate: the dew-point margin, what is typed or read from the probe, logged with its time. */
export function ClimatePanel({ action }: { action: string }) {
  const { view } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const climate = view.state.climate?.body;
  const from = view.state.climate?.elsewhere ? view.panels.find((p) => p.id === view.state.climate?.panelId) : undefined;
  const errors = fetcher.data?.errors ?? {};
  const margin =
    climate &&
    dewPointMargin({ air_K: climate.air_K, part_K: climate.part_K ?? climate.air_K, relativeHumidity: climate.relativeHumidity });
  return (
    <section aria-label="Climate" className="space-y-3">
      {margin && climate && (
        <div className="flex flex-wrap items-center gap-3">
          <Figure
            label="above the coldest the part may be"
            shown={show("temperatureDifference", margin.margin_K, units)}
            working={dewWorking(climate, margin, units)}
            size="middle"
            {...(margin.margin_K < 0 ? { tone: "stop" as const } : {})}
          />
          <Tag kind={margin.margin_K < 0 ? "stop" : margin.margin_K < 3 ? "caution" : "good"}>
            {margin.margin_K < 0 ? "Too near the dew point" : margin.margin_K < 3 ? "Close to the dew point" : "Dry enough"}
          </Tag>
        </div>
      )}
      <KeptForm
        fetcher={fetcher}
        place="climate"
        action={action}
        key={view.state.climate?.id ?? ""}
        className="grid grid-cols-2 gap-3 sm:grid-cols-4"
      >
        <input type="hidden" name="intent" value="climate" />
        <Field
          label="Air"
          unit={units.temperature}
          name="air"
          defaultValue={initial("temperature", climate?.air_K, units)}
          errors={errors.air}
        />
        <Field
          label="Part"
          unit={units.temperature}
          name="part"
          defaultValue={initial("temperature", climate?.part_K, units)}
          errors={errors.part}
        />
        <Field
          label="Humidity"
          unit="%"
          name="humidity"
          defaultValue={initial("share", climate?.relativeHumidity, units)}
          errors={errors.humidity}
        />
        <Field
          label="Material"
          unit={units.temperature}
          name="material"
          defaultValue={initial("temperature", climate?.material_K, units)}
          errors={errors.material}
        />
        <button className="press col-span-2 justify-self-start">Log climate</button>
      </KeptForm>
      <ProbeForm {...{ fetcher, from }} />
    </section>
  );
}

/** What the probe reads, and where the climate was logged. */
function ProbeForm({ fetcher, from }: { fetcher: FetcherWithComponents<FormAnswer>; from: { id: string; name: string } | undefined }) {
  const { view, base } = usePanel();
  return (
    <fetcher.Form method="post" action={`${base}/spray/ready`} className="flex flex-wrap items-center gap-3">
      <input type="hidden" name="intent" value="probe" />
      <StandIn>
        <button className="press" disabled={fetcher.state !== "idle"}>
          Read the climate probe
        </button>
      </StandIn>
      {from && (
        <span className="text-[14px] text-ink2">
          Logged on the {from.name.toLowerCase()}; it serves this panel too, until you log another.
        </span>
      )}
      {view.state.climate?.simulated && <Tag kind="simulated">simulated</Tag>}
    </fetcher.Form>
  );
}
