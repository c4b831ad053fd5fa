import { LAYER_NAMES } from "#core/models/prep/layer-names";
import { Link } from "react-router";
import { U_STROKES } from "#core/models/mix/mix-plan";
import { show, showSpan, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { PotView } from "#server/views/pots-view";
import { useUnits } from "~/kit/root/use-root";
import { useNow } from "~/kit/shell/now";
import { OthersEntries } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import { PutRightLink, StrikeButton } from "~/kit/shell/strike-button";
import { WorkingButton } from "~/kit/ui/figure";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { whenText } from "~/kit/words/when";
import { potSentence, potWorking } from "./pots.words";
import type { Route } from "./+types/pots.route";

/** Every pot of a job: how long it lives, what is in it, what it was for, and what each coat took. */
export function PotsDesk({ loaderData: { vehicle, panels, pots, jobId, held } }: Pick<Route.ComponentProps, "loaderData">) {
  const units = useUnits();
  const now_ms = useNow();
  const said = potSentence(pots, now_ms, units);
  return (
    <>
      <PageHeader title={`Pots of ${vehicle}`} note="One mix over its panels, coats and days">
        <Link className="press" to={`/jobs/${jobId}`}>
          The job
        </Link>
      </PageHeader>
      <main className="max-w-[1080px] space-y-8 px-4 py-6 sm:px-6">
        <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight" data-testid="pots-sentence">
          {said.main} <em className="text-glow-ink not-italic">{said.rest}</em>
        </h2>
        <div className="flex flex-wrap gap-2">
          {panels.map((p) => (
            <Link key={p.id} className="press" to={`/jobs/${jobId}/panels/${p.id}/plan/mix`}>
              Mix for {p.name}
            </Link>
          ))}
        </div>
        <OthersEntries value={held}>
          {pots.map((pot) => (
            <Pot key={pot.entry.id} pot={pot} now_ms={now_ms} base={`/jobs/${jobId}/panels/${pot.entry.panelId}`} />
          ))}
        </OthersEntries>
        <p className="max-w-[75ch] text-[13px] text-ink2">
          Hardened mixes never go back into a can: by local rules they are hazardous waste until they have set.
        </p>
      </main>
    </>
  );
}

function Pot({ pot, now_ms, base }: { pot: PotView; now_ms: number; base: string }) {
  const units = useUnits();
  const { body } = pot.entry;
  const ml = (m3: number) => `${show("volume", m3, units).text} ${units.volume}`;
  const used_m3 = body.volume_m3 - pot.left_m3;
  const left = used_m3 > 0 ? showWithUncertainty("volume", pot.left_m3, U_STROKES * used_m3, units) : show("volume", pot.left_m3, units);
  const unknown = pot.taken.some((t) => t.volume_m3 === null);
  const over = pot.until_ms <= now_ms;
  const title = `pot-${pot.entry.id}`;
  return (
    <section aria-labelledby={title} data-testid="pot" data-figures className="border-t border-hair pt-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h3 id={title} className="text-xl font-semibold">
          {pot.product}, {ml(body.volume_m3)}
        </h3>
        {over ? (
          <Tag kind="stop">over since {whenText(pot.until_ms, now_ms)}</Tag>
        ) : (
          <Tag kind="good">lives another {showSpan((pot.until_ms - now_ms) / 1000)}</Tag>
        )}
        {body.settles_s !== null && !over && <Tag kind="open">stir every {showWait(body.settles_s)}</Tag>}
        <span className="ml-auto flex">
          <PutRightLink base={base} entryId={pot.entry.id} what="this pot" from="spray" />
          <StrikeButton entryId={pot.entry.id} what="this pot" />
        </span>
      </div>
      <p className="text-ink2">
        Mixed {whenText(pot.entry.at_ms, now_ms)} for {pot.panels.join(", ")}
        {body.reducer > 0 && `, ${show("share", body.reducer, units).text} % reducer`}
        {body.mattingShare !== null && `, ${show("share", body.mattingShare, units).text} % matting component`}.
      </p>
      <div className="mt-3 grid gap-x-10 gap-y-4 md:grid-cols-2">
        <div>
          <h4 className="small-label">What is in it</h4>
          {body.parts.length === 0 ? <p>Logged by hand: no parts were weighed.</p> : <Recipe {...{ pot }} />}
        </div>
        <div>
          <h4 className="small-label">What was taken</h4>
          <ul className="border-t border-hair">
            {pot.taken.map((t) => (
              <li key={t.coatId} className="flex justify-between gap-3 border-b border-hair py-1.5">
                <span>
                  {t.panel}
                  {t.side && `, ${t.side}`}, {t.layer ? LAYER_NAMES[t.layer] : "coat"} {t.number}{" "}
                  <span className="text-ink2">{whenText(t.at_ms, now_ms)}</span>
                </span>
                <span>{t.volume_m3 === null ? "not known" : ml(t.volume_m3)}</span>
              </li>
            ))}
            <li className="flex items-center justify-between gap-3 font-semibold">
              <WorkingButton working={potWorking(pot, units)} label={`What is left of ${pot.product}: show the working`}>
                <span>{pot.taken.length === 0 ? "Nothing yet: full" : "Left, by the strokes"}</span>
              </WorkingButton>
              <span>
                {unknown && "at most "}
                {left.text} {left.unit}
              </span>
            </li>
          </ul>
        </div>
      </div>
    </section>
  );
}

/** What was weighed into it. */
function Recipe({ pot }: { pot: PotView }) {
  const units = useUnits();
  const { body } = pot.entry;
  return (
    <ScrollRegion label={`Recipe of ${pot.product}`} narrow>
      <table className="w-full text-left [&_td]:py-1.5">
        <thead className="small-label border-b border-hair">
          <tr>
            <th>Part</th>
            <th>{units.volume}</th>
            <th>g</th>
            <th>Can</th>
          </tr>
        </thead>
        <tbody>
          {body.parts.map((p) => (
            <tr key={p.name} className="border-b border-hair">
              <td>{p.name}</td>
              <td>{show("volume", p.volume_m3, units).text}</td>
              <td>{show("mass", p.poured_kg ?? p.mass_kg, units).text}</td>
              <td>{p.batch || "–"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollRegion>
  );
}
