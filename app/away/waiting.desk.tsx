import { useEffect } from "react";
import { Link, useFetcher } from "react-router";
import { pagePath } from "#server/http/page-path";
import type { Clash, Waiting } from "~/kit/away/device-store";
import type { loader as standsLoader } from "~/kit/do/stands.do";
import { useKeptHere } from "~/kit/away/use-kept-here";
import { useNow } from "~/kit/shell/now";
import { PageHeader } from "~/kit/shell/page-header";
import { SurePress } from "~/kit/ui/sure-press";
import { counted, whenText } from "~/kit/words/when";

/** Entries of this device that are not with the shop yet, and those that the shop did not take: there a person decides. */
export function WaitingDesk() {
  const { kept, again, leaveOut, sendNow } = useKeptHere();
  if (kept === null) return <Frame title="Looking at what this device keeps." />;
  const { waiting, clashes } = kept;
  const parts = [
    ...(waiting.length > 0 ? [`${counted(waiting.length, "entry", "entries")} not yet with the shop`] : []),
    ...(clashes.length > 0 ? [`${clashes.length} not taken as entered`] : []),
  ];
  const title = parts.length === 0 ? "Everything of this device is with the shop." : `${parts.join("; ")}.`;
  return (
    <Frame title={title}>
      {clashes.length > 0 && (
        <section aria-labelledby="clashes" className="space-y-3">
          <h3 id="clashes" className="text-xl font-semibold">
            You decide
          </h3>
          <ul className="border-t border-hair" aria-label="Not taken">
            {clashes.map((c) => (
              <ClashRow key={c.key} clash={c} onAgain={() => again(c)} onLeaveOut={() => leaveOut(c)} />
            ))}
          </ul>
        </section>
      )}
      {waiting.length > 0 && (
        <section aria-labelledby="waiting" className="space-y-3">
          <h3 id="waiting" className="text-xl font-semibold">
            In this order
          </h3>
          <ol className="border-t border-hair" aria-label="Not yet with the shop">
            {waiting.map((w) => (
              <li key={w.key} className="border-b border-hair py-2">
                <Said of={w} />
              </li>
            ))}
          </ol>
          <button type="button" className="press" data-kind="main" onClick={sendNow}>
            Try to send now
          </button>
        </section>
      )}
    </Frame>
  );
}

function Frame({ title, children }: { title: string; children?: React.ReactNode }) {
  return (
    <>
      <PageHeader title="Not yet with the shop" />
      <main className="max-w-[860px] space-y-6 px-4 py-6 sm:px-6">
        <h2 className="text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]" data-testid="kept-here">
          {title}
        </h2>
        {children}
        <Link to="/" className="press" data-kind="quiet">
          Shop floor
        </Link>
      </main>
    </>
  );
}

/** What was entered, when and by whom. */
function Said({ of: { words, happened_ms, personName, path } }: { of: Waiting }) {
  return (
    <>
      <span className="block font-medium">{words.length > 0 ? words.join("; ") : pageWords(path)}</span>
      <span className="block text-[13px] text-ink2">
        {whenText(happened_ms, useNow())}
        {personName && `, ${personName}`}
      </span>
    </>
  );
}

/** By where it was entered, for what no ledger says. */
const PLACES: readonly [RegExp, string][] = [
  [/^\/booth-plan/, "The day's plan of the booth"],
  [/^\/shelf/, "A can or a sheet on the shelf"],
  [/^\/cards/, "A card of the matte series"],
  [/^\/jobs\/new/, "A new job"],
  [/^\/jobs/, "A change of a job"],
  [/^\/do\/clocks/, "A clock stopped"],
  [/^\/do\/entries/, "An entry taken out"],
];
const pageWords = (path: string): string => PLACES.find(([at]) => at.test(path))?.[1] ?? "An entry";

/** The entry that it was to change. */
const entryOf = (path: string): string | null => /\/entries\/([\w-]+)/.exec(path)?.[1] ?? null;

/** What the shop has in the entry's place now, and by whom: beside what was to become of it here. */
function ThereNow({ entryId }: { entryId: string }) {
  const now_ms = useNow();
  const { load, data } = useFetcher<typeof standsLoader>();
  useEffect(() => void load(`/do/entries/${entryId}/stands`), [load, entryId]);
  if (!data) return <p className="min-h-11 text-ink2">Looking…</p>;
  const { stands } = data;
  if (!stands) return <p className="font-medium">Its panel is not there any more.</p>;
  return (
    <>
      <p className="font-medium">{stands.words}</p>
      <p className="text-[13px] text-ink2">
        {whenText(stands.at_ms, now_ms)}
        {stands.by && `, ${stands.by}`}
      </p>
      <Link to={stands.ledger} className="press -ml-[17px]" data-kind="quiet">
        Its ledger
      </Link>
    </>
  );
}

/** The page it was entered on. */
const pageOf = (path: string): string | null => (path.startsWith("/do/") ? null : pagePath(path.replace(/\?.*$/, "")));

function ClashRow({ clash, onAgain, onLeaveOut }: { clash: Clash; onAgain: () => void; onLeaveOut: () => void }) {
  const page = pageOf(clash.path);
  const entryId = entryOf(clash.path);
  return (
    <li className="grid gap-x-6 gap-y-3 border-b border-hair py-3 sm:grid-cols-2">
      <div>
        <p className="small-label">Entered here</p>
        <Said of={clash} />
      </div>
      <div>
        <p className="small-label">The shop says</p>
        <p className="font-medium text-stop-ink">{clash.message}</p>
        {entryId && (
          <>
            <p className="small-label mt-2">There now</p>
            <ThereNow entryId={entryId} />
          </>
        )}
        {!entryId && page && (
          <Link to={page} className="press -ml-[17px]" data-kind="quiet">
            See what stands there now
          </Link>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 sm:col-span-2">
        <button type="button" className="press" data-kind="main" onClick={onAgain}>
          {clash.version === null ? "Send it again" : "Send it upon what is there now"}
        </button>
        <SurePress
          type="button"
          ask="Leave it out"
          sure="For good, it was never with the shop"
          of={clash.words[0] ?? pageWords(clash.path)}
          onSure={onLeaveOut}
        />
      </div>
    </li>
  );
}
