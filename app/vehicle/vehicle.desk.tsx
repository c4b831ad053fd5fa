import { Suspense, lazy, useState } from "react";
import { Link, useFetcher } from "react-router";
import { VEHICLES, VEHICLE_KINDS, type Vehicle, type VehicleKind, placeKey, placeOfKey, placesOf } from "#core/vehicle/vehicles";
import type { VehicleView } from "#server/views/vehicle-view";
import { DraftForm, KeptForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { useNow } from "~/kit/shell/now";
import { PageHeader } from "~/kit/shell/page-header";
import { FieldErrors, OwnSelect, SelectField } from "~/kit/ui/field";
import { useScripted } from "~/kit/ui/use-scripted";
import { actionWords } from "~/kit/words/step-words";
import { counted } from "~/kit/words/when";
import type { Route } from "./+types/vehicle.route";

const MINUTE_MS = 60_000;

/** Drawn with the page, fetched after it. */
const VehicleMap = lazy(() => import("./vehicle-map").then((m) => ({ default: m.VehicleMap })));

/** A job's panels where they lie on their vehicle, each with what it waits for; whole vehicles are laid out here in one go. */
export function VehicleDesk({ loaderData: { view, formKey } }: Pick<Route.ComponentProps, "loaderData">) {
  const now_ms = Math.floor(useNow() / MINUTE_MS) * MINUTE_MS;
  const placed = view.panels.flatMap((p) => placeOfKey(p.place) ?? []);
  const [chosen, setKind] = useState<VehicleKind | null>(null);
  const kind = chosen ?? placed[0]?.vehicle ?? "car5";
  const vehicle: Vehicle = VEHICLES[kind];
  const on = new Map(view.panels.flatMap((p) => (p.place ? [[p.place, p] as const] : [])));
  const [open, setOpen] = useState(false);
  const places = placesOf(vehicle).filter((p) => open || !p.of || on.has(placeKey(kind, p.id)));
  const free = places.filter((p) => !on.has(placeKey(kind, p.id)));
  const draft = useDraft(`parts of ${kind}`, { add: [] as readonly string[] });
  const add = draft.typed.add.filter((id) => free.some((p) => p.id === id));
  const toggle = (id: string) => draft.set("add", (now) => (now.includes(id) ? now.filter((x) => x !== id) : [...now, id]));
  const done = view.panels.filter((p) => p.standing?.done).length;
  return (
    <>
      <PageHeader title={view.job.vehicle} note={`${view.job.colourName} · where its panels lie`} />
      <main className="px-4 py-6 sm:px-6">
        <h2 className="max-w-[26em] text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]" data-testid="vehicle-sentence">
          {counted(view.panels.length, "panel", "panels")}, {done === 0 ? "none handed over" : `${done} handed over`}.{" "}
          <em className="text-glow-ink not-italic">{nextOf(view, now_ms)}</em>
        </h2>
        <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[1.1fr_1fr]">
          <div>
            <Suspense>
              <VehicleMap {...{ vehicle, places, kind, on, add, toggle, now_ms }} job={view.job} />
            </Suspense>
          </div>
          <div className="space-y-6">
            <p className="flex flex-wrap gap-3">
              <Link to={`/jobs/${view.job.id}/vehicle/wet-edge`} className="press" data-kind="main">
                Wet edge: in which order?
              </Link>
              <Link to={`/jobs/${view.job.id}/vehicle/colours`} className="press">
                Colours and joints
              </Link>
            </p>
            <PanelsList {...{ view, kind, vehicle, now_ms }} />
            <AddParts
              {...{ draft, add, free, kind, setKind, toggle, formKey }}
              shuts={vehicle.shuts && { open, toggle: () => setOpen(!open) }}
            />
          </div>
        </div>
      </main>
    </>
  );
}

/** What comes next anywhere on it. */
function nextOf(view: VehicleView, now_ms: number): string {
  const next = view.panels.find((p) => p.standing && !p.standing.done);
  return next ? `Next: ${next.name.toLowerCase()}, ${actionWords(next.standing!, now_ms).toLowerCase()}.` : "Nothing is left to do.";
}

interface PanelsListProps {
  view: VehicleView;
  kind: VehicleKind;
  vehicle: Vehicle;
  now_ms: number;
}

/** Every panel with its standing, and where it lies. */
function PanelsList({ view, kind, vehicle, now_ms }: PanelsListProps) {
  const taken = new Set(view.panels.map((p) => p.place));
  return (
    <section aria-labelledby="panels-title">
      <h3 id="panels-title" className="mb-1 text-lg font-semibold">
        Panels of this job
      </h3>
      <ul>
        {view.panels.map((p) => (
          <li key={p.id} className="flex flex-wrap items-center justify-between gap-x-4 border-b border-hair py-1.5">
            <Link
              to={`/jobs/${view.job.id}/panels/${p.id}/course`}
              className="flex min-h-11 flex-col justify-center underline-offset-4 hover:underline"
            >
              <b className="font-semibold">{p.name}</b>
              <span className="text-[14px] text-ink2">{p.standing ? actionWords(p.standing, now_ms) : "not worked out"}</span>
            </Link>
            <PlaceOf {...{ p, kind, vehicle, taken }} version={view.version} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Where a panel lies: chosen, it is stored. */
function PlaceOf({
  p,
  kind,
  vehicle,
  taken,
  version,
}: Pick<PanelsListProps, "kind" | "vehicle"> & {
  p: VehicleView["panels"][number];
  taken: ReadonlySet<string | undefined>;
  version: string;
}) {
  const fetcher = useFetcher<FormAnswer>();
  const scripted = useScripted();
  const there = placeOfKey(p.place);
  const elsewhere = there && there.vehicle !== kind;
  return (
    <KeptForm fetcher={fetcher} place={`place of ${p.id}`} version={version}>
      <input type="hidden" name="intent" value="place" />
      <input type="hidden" name="panelId" value={p.id} />
      <OwnSelect
        name="place"
        disabled={!scripted}
        aria-label={`Where ${p.name} lies`}
        defaultValue={p.place ?? ""}
        className="field !w-auto max-w-44"
        onChange={(e) => e.target.form?.requestSubmit()}
      >
        <option value="">lies nowhere yet</option>
        {elsewhere && <option value={p.place}>{there.place.name}</option>}
        {placesOf(vehicle)
          .map((place) => ({ ...place, key: placeKey(kind, place.id) }))
          .filter((place) => place.key === p.place || !taken.has(place.key))
          .map((place) => (
            <option key={place.key} value={place.key}>
              {place.name}
            </option>
          ))}
      </OwnSelect>
      <FieldErrors
        errors={
          fetcher.data?.ok === false
            ? (fetcher.data.errors.place ?? (fetcher.data.message ? [fetcher.data.message] : undefined))
            : undefined
        }
      />
    </KeptForm>
  );
}

/** Parts by their number on the vehicle, a sign each: a form's key is short, however many there are. */
const shortly = (kind: VehicleKind, ids: readonly string[]): string => {
  const all = placesOf(VEHICLES[kind]).map((p) => p.id);
  return ids.map((id) => all.indexOf(id).toString(36)).join("");
};

interface AddPartsProps {
  draft: ReturnType<typeof useDraft<{ add: readonly string[] }>>;
  add: readonly string[];
  free: Vehicle["places"];
  kind: VehicleKind;
  setKind: (kind: VehicleKind) => void;
  toggle: (id: string) => void;
  formKey: string;
  /** Whether shuts and jambs are offered too; undefined: the vehicle has none. */
  shuts: { open: boolean; toggle: () => void } | undefined;
}

/** Parts that are not in the job yet, added in one go. */
function AddParts({ draft, add, free, kind, setKind, toggle, formKey, shuts }: AddPartsProps) {
  const fetcher = useFetcher<FormAnswer>();
  return (
    <section aria-labelledby="add-title">
      <h3 id="add-title" className="mb-1 text-lg font-semibold">
        Add parts
      </h3>
      <DraftForm draft={draft} fetcher={fetcher} className="space-y-3">
        <input type="hidden" name="intent" value="add" />
        <input type="hidden" name="formKey" value={`${formKey}-parts-${kind}-${shortly(kind, add)}`} />
        <SelectField label="Kind of vehicle" name="vehicle" value={kind} onChange={(e) => setKind(e.target.value as VehicleKind)}>
          {VEHICLE_KINDS.map((k) => (
            <option key={k} value={k}>
              {VEHICLES[k].name}
            </option>
          ))}
        </SelectField>
        {add.map((id) => (
          <input key={id} type="hidden" name="place" value={id} />
        ))}
        <div className="flex flex-wrap gap-2">
          {free.map((p) => (
            <button
              key={p.id}
              type="button"
              className="press !px-3 aria-pressed:border-glow-ink aria-pressed:bg-glow-wash"
              aria-pressed={add.includes(p.id)}
              onClick={() => toggle(p.id)}
            >
              {p.name}
            </button>
          ))}
        </div>
        <div className="flex flex-wrap gap-2">
          <button className="press" disabled={add.length === 0 || fetcher.state !== "idle"}>
            {add.length === 0 ? "Tick parts to add" : `Add ${counted(add.length, "part", "parts")}`}
          </button>
          {free.length > add.length && (
            <button
              type="button"
              className="press"
              data-kind="quiet"
              onClick={() =>
                draft.set(
                  "add",
                  free.map((p) => p.id),
                )
              }
            >
              All of it
            </button>
          )}
          {shuts && (
            <button
              type="button"
              className="press aria-pressed:border-glow-ink aria-pressed:bg-glow-wash"
              aria-pressed={shuts.open}
              onClick={shuts.toggle}
            >
              Shuts and jambs too
            </button>
          )}
        </div>
        <p className="max-w-[60ch] text-[13px] text-ink2">
          Usual sizes, sprayed as the job&rsquo;s last panel is; each is put right on its own page.
        </p>
        <FieldErrors
          errors={
            fetcher.data?.ok === false
              ? (fetcher.data.errors.place ?? (fetcher.data.message ? [fetcher.data.message] : undefined))
              : undefined
          }
        />
      </DraftForm>
    </section>
  );
}
