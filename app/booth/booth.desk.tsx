import { KeptForm } from "~/kit/draft/draft-form";
import { Suspense, lazy, useEffect, useRef, useState } from "react";
import { Link, useFetcher } from "react-router";
import { nextAction } from "#core/models/schedule/next-panel";
import { showSpan } from "#core/kernel/units/format";
import type { BoothPanel } from "#server/views/booth-view";
import { usePrefs, useUnits, useRoot } from "~/kit/root/use-root";
import { maskWords } from "~/kit/words/mask-words";
import { useWakeLock } from "~/kit/shell/use-wake-lock";
import { beep } from "~/kit/shell/beep";
import type { BeforeCoat, NextAction } from "#core/models/schedule/next-panel";
import { beforeWords } from "./before.words";
import { useNow } from "~/kit/shell/now";
import { initial } from "~/kit/form/initial";
import { Field, FieldErrors } from "~/kit/ui/field";
import { whenText } from "~/kit/words/when";
import { PageHeader } from "~/kit/shell/page-header";
import { Tag } from "~/kit/ui/tag";
import type { Route } from "./+types/booth.route";
import type { FormAnswer } from "~/kit/form/answer";

/** Drawn with the page, fetched after it. */
const BoothPath = lazy(() => import("./booth-later").then((m) => ({ default: m.BoothPath })));
const BoothDial = lazy(() => import("./booth-later").then((m) => ({ default: m.BoothDial })));

/** Read at three metres, worked with one finger: what to do next, and how every panel of the job stands. */
export function BoothDesk({ loaderData: { vehicle, panels, jobId, formKey } }: Pick<Route.ComponentProps, "loaderData">) {
  const now_ms = useNow();
  const { sound } = usePrefs();
  const fetcher = useFetcher<FormAnswer>();
  useWakeLock();
  const next = nextAction(panels, now_ms);
  useCall(next.what === "spray" ? `${next.id} ${next.number}` : "", sound);
  const panel = next.what === "done" ? null : panels.find((p) => p.id === next.id)!;
  const send = (intent: "start" | "stop", p: BoothPanel, number: number) =>
    void fetcher.submit({ intent, panelId: p.id, number: String(number), formKey }, { method: "post" });
  const busy = fetcher.state !== "idle";
  const others = panels.filter((p) => p.id !== panel?.id);
  const { shop } = useRoot();
  const lastCoat_ms = panels.reduce<number | null>(
    (a, p) => (p.lastCoat_ms !== null && p.lastCoat_ms > (a ?? 0) ? p.lastCoat_ms : a),
    null,
  );
  const mask = maskWords(lastCoat_ms, shop.airChanges_1_h, now_ms);
  return (
    <>
      <PageHeader title={vehicle} note="Booth view" />
      <main className="grid gap-4 px-4 py-3 sm:gap-6 sm:px-6 sm:py-6 xl:grid-cols-[1.5fr_1fr]">
        <section aria-label="Next" className="space-y-3 sm:space-y-6">
          <Heading {...{ next, panel }} />
          {panel && (next.what === "stop" || next.what === "wait" || next.what === "spray") && (
            <p className="text-[clamp(56px,11vw,128px)] leading-none font-semibold tracking-tight" data-testid="booth-clock">
              {next.what === "stop" && panel.spraying
                ? showSpan((now_ms - panel.spraying.since_ms) / 1000)
                : next.what === "wait"
                  ? showSpan(next.left_s)
                  : "now"}
            </p>
          )}
          {next.what === "spray" && next.why === "ready" && (
            <p className="text-[22px]">Touch test in a hidden place: slightly tacky on the glove, no strings. Then spray.</p>
          )}
          {next.what === "spray" && next.why === "late" && (
            <p className="text-[22px] text-amber-ink">Its window has closed: see its course before the next coat.</p>
          )}
          {next.what === "spray" && next.why === "first" && panel?.coats === 0 && (
            <p className="text-[22px]">Edges and flanges first; tack, blow down, then keep a wet edge.</p>
          )}
          {panel && isBefore(next.what) && (
            <p className="text-[22px]">
              {next.what === "read" && "After clear no gauge tells the layers apart: this cannot be made good later. "}
              {panel.flash && panel.flash.due_ms > now_ms ? `Not before ${whenText(panel.flash.due_ms, now_ms)}. ` : ""}
              <Link to={`/jobs/${jobId}/panels/${panel.id}/course`} className="underline underline-offset-4">
                Its course
              </Link>
            </p>
          )}
          <Presses {...{ panel, next, busy, send }} />
          {panel?.path && (next.what === "stop" || next.what === "spray") && (
            <Suspense>
              <BoothPath path={panel.path} elapsed_s={panel.spraying ? Math.max(0, now_ms - panel.spraying.since_ms) / 1000 : null} />
            </Suspense>
          )}
          {panel && !panel.below && (next.what === "spray" || next.what === "wait") && (
            <Suspense>
              <BoothDial key={`${panel.id} ${next.number}`} {...{ panel, jobId }} />
            </Suspense>
          )}
          <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
          {mask && <p className="max-w-[46ch] text-[18px] font-medium text-amber-ink">{mask}</p>}
        </section>
        <section aria-label="Panels in flight">
          <ul className="border-t border-hair">
            {[...(panel ? [panel] : []), ...others].map((p) => (
              <InFlight key={p.id} {...{ p, jobId, panel, next, busy, send }} />
            ))}
          </ul>
          <p className="mt-6 text-[15px] text-ink2">
            Supplied air, or what the safety data sheet and your local rules require; nothing near that can ignite.
          </p>
        </section>
      </main>
    </>
  );
}

/** What is next, large. */
function Heading({ next, panel }: { next: NextAction; panel: BoothPanel | null }) {
  const now_ms = useNow();
  return (
    <h2 className="text-[clamp(34px,6vw,64px)] leading-[1.05] font-semibold tracking-tight" data-testid="booth-next" aria-live="polite">
      {next.what === "done" || !panel ? (
        "All coats are on."
      ) : next.what === "stop" ? (
        <>
          {panel.name}: {coatName(panel)} <em className="text-glow-ink not-italic">is running.</em>
        </>
      ) : isBefore(next.what) ? (
        <>
          {panel.name}: <em className="text-amber-ink not-italic">{beforeWords(panel, now_ms)}.</em>
        </>
      ) : next.what === "wait" ? (
        <>
          Wait. <em className="text-amber-ink not-italic">{panel.name}</em> flashes.
        </>
      ) : (
        <>
          {panel.name}:{" "}
          <em className="text-glow-ink not-italic">
            {coatName(panel)}, {panel.role}.
          </em>
        </>
      )}
    </h2>
  );
}

/** What can be done now, large. */
function Presses({
  panel,
  next,
  busy,
  send,
}: {
  panel: BoothPanel | null;
  next: NextAction;
  busy: boolean;
  send: (intent: "start" | "stop", p: BoothPanel, number: number) => undefined;
}) {
  const at = `${panel?.id ?? ""} ${next.what} ${"number" in next ? next.number : ""}`;
  const [first] = useState(at);
  return (
    <div key={at} className={`flex flex-wrap gap-3 ${at === first ? "" : "after-a-press"}`}>
      {panel && next.what === "stop" && (
        <button
          type="button"
          className="press min-h-20 w-full text-[24px] sm:min-h-28 sm:text-[30px]"
          data-kind="main"
          disabled={busy}
          onClick={() => send("stop", panel, next.number)}
        >
          Stop {coatName(panel)}
        </button>
      )}
      {panel && next.what === "spray" && (
        <button
          type="button"
          className="press min-h-20 w-full text-[24px] sm:min-h-28 sm:text-[30px]"
          data-kind="main"
          disabled={busy}
          onClick={() => send("start", panel, next.number)}
        >
          Start {coatName(panel)}
        </button>
      )}
      {panel && !panel.below && (next.what === "read" || next.what === "held") && (
        <button
          type="button"
          className="press min-h-16 w-full text-[20px]"
          disabled={busy}
          onClick={() => send("start", panel, next.number)}
        >
          Start {coatName(panel)} all the same
        </button>
      )}
      {panel && next.what === "wait" && (
        <button
          type="button"
          className="press min-h-16 w-full text-[20px]"
          disabled={busy}
          onClick={() => send("start", panel, next.number)}
        >
          Start {coatName(panel)} too soon: the commonest fault
        </button>
      )}
    </div>
  );
}

/** A panel in flight with its clock. */
function InFlight({
  p,
  jobId,
  panel,
  next,
  busy,
  send,
}: {
  p: Route.ComponentProps["loaderData"]["panels"][number];
  jobId: string;
  panel: BoothPanel | null;
  next: NextAction;
  busy: boolean;
  send: (intent: "start" | "stop", p: BoothPanel, number: number) => undefined;
}) {
  const now_ms = useNow();
  return (
    <li className="flex flex-wrap items-center justify-between gap-3 border-b border-hair py-3" data-testid={`booth-${p.name}`}>
      <Link to={`/jobs/${jobId}/panels/${p.id}/course`} className="min-h-11 content-center">
        <b className="block text-[21px] leading-tight font-semibold">{p.name}</b>
        <span className="text-ink2">
          {p.coats} of {p.coatsPlanned} coats, {p.product}
        </span>
      </Link>
      <PanelState panel={p} now_ms={now_ms} />
      {p.lastCoat_ms !== null && now_ms - p.lastCoat_ms < COMB_MS && !p.spraying && <WetComb panel={p} />}
      {p.work && p.work.done < p.work.steps && (
        <Link to={`/jobs/${jobId}/booth/${p.id}`} className="press">
          Work: step {p.work.done + 1} of {p.work.steps}
          <span className="sr-only"> at {p.name}</span>
        </Link>
      )}
      {!p.spraying && !p.before && p.coats < p.coatsPlanned && p.id !== panel?.id && next.what !== "stop" && (
        <button type="button" className="press" disabled={busy} onClick={() => send("start", p, p.coats + 1)}>
          Start {coatName(p)}
        </button>
      )}
    </li>
  );
}

/** The coat to come: "coat 2", or with its face where both are sprayed. */
const coatName = ({ next: { side, number } }: BoothPanel): string => `${side === null ? "" : `${side}, `}coat ${number}`;

const BEFORE: readonly string[] = ["below", "flatten", "turn", "read", "held"] satisfies BeforeCoat[];

const isBefore = (what: string): what is BeforeCoat => BEFORE.includes(what);

/** So long a comb still finds wet clear. */
const COMB_MS = 15 * 60_000;

/** What the comb said in the coat just sprayed. */
function WetComb({ panel: p }: { panel: BoothPanel }) {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const errors =
    fetcher.data?.ok === false ? (fetcher.data.errors.wet ?? (fetcher.data.message ? [fetcher.data.message] : undefined)) : undefined;
  return (
    <KeptForm fetcher={fetcher} place={`comb ${p.id} ${p.coats}`} key={p.coats} className="flex w-full flex-wrap items-end gap-2">
      <input type="hidden" name="intent" value="comb" />
      <input type="hidden" name="panelId" value={p.id} />
      <input type="hidden" name="number" value={p.loggedAs} />
      <Field
        className="w-40"
        label={`Wet comb, coat ${p.coats}`}
        unit={units.film}
        name="wet"
        defaultValue={initial("film", p.wetReading_m, units)}
        errors={errors}
      />
      <button className="press" disabled={fetcher.state !== "idle"}>
        Log<span className="sr-only"> the comb of {p.name}</span>
      </button>
    </KeptForm>
  );
}

function PanelState({ panel: p, now_ms }: { panel: BoothPanel; now_ms: number }) {
  if (p.spraying) return <Tag kind="good">spraying</Tag>;
  if (p.coats >= p.coatsPlanned) return <Tag kind="good">all coats on</Tag>;
  if (p.before) return <Tag kind={p.before === "held" ? "stop" : "caution"}>{beforeWords(p, now_ms)}</Tag>;
  if (p.coats === 0 && p.flash && p.flash.due_ms > now_ms)
    return <Tag kind="open">base flashes {showSpan((p.flash.due_ms - now_ms) / 1000)}</Tag>;
  if (p.coats === 0) return <Tag kind="open">not begun</Tag>;
  if (!p.flash) return <Tag kind="open">no flash clock</Tag>;
  if (p.flash.late_ms !== null && now_ms > p.flash.late_ms) return <Tag kind="caution">past the window</Tag>;
  return p.flash.due_ms <= now_ms ? (
    <Tag kind="good">flashed: touch test</Tag>
  ) : (
    <Tag kind="open">flash {showSpan((p.flash.due_ms - now_ms) / 1000)}</Tag>
  );
}

/** Calls when something new may be sprayed: vibration, and sound where it is on. */
function useCall(key: string, sound: boolean): void {
  const before = useRef(key);
  useEffect(() => {
    if (key !== "" && key !== before.current) {
      navigator.vibrate?.([200, 100, 200]);
      if (sound) beep();
    }
    before.current = key;
  }, [key, sound]);
}
