import { Pencil, Redo2, Undo2 } from "lucide-react";
import { Link, useFetcher } from "react-router";
import { useIsOthers } from "~/kit/root/use-root";
import { STRIKE_KEY, type StrikeAnswer } from "./use-toasts";

/** Takes an entry, with every version of it, back out of what is shown. The ledger keeps it, and the shell's toast brings it back. */
export function StrikeButton({ entryId, what, shown }: { entryId: string; what: string; shown?: string }) {
  const { submit } = useFetcher<StrikeAnswer>({ key: STRIKE_KEY });
  const isOthers = useIsOthers(entryId);
  if (isOthers) return null;
  const strike = () => void submit({ what, whole: "yes" }, strikeOf(entryId));
  const icon = <Undo2 size={17} aria-hidden />;
  return shown ? (
    <button type="button" className="press" onClick={strike}>
      {icon} {shown}
      <span className="sr-only">: {what}</span>
    </button>
  ) : (
    <EntryButton label={`Take out ${what}`} icon={icon} onClick={strike} />
  );
}

/** Puts an entry back that was taken out: the strike itself is struck. */
export function PutBackButton({ strikeId, what }: { strikeId: string; what: string }) {
  const { submit } = useFetcher({ key: "undo" });
  const isOthers = useIsOthers(strikeId);
  if (isOthers) return null;
  return (
    <EntryButton label={`Put back ${what}`} icon={<Redo2 size={17} aria-hidden />} onClick={() => void submit(null, strikeOf(strikeId))} />
  );
}

/** Leads to where an entry is put right, and back to `from`. */
export function PutRightLink({ base, entryId, what, from }: { base: string; entryId: string; what: string; from: string }) {
  const isOthers = useIsOthers(entryId);
  if (isOthers) return null;
  return (
    <Link to={`${base}/entries/${entryId}?from=${from}`} className="press !px-3" data-kind="quiet" aria-label={`Put right ${what}`}>
      <Pencil size={17} aria-hidden />
    </Link>
  );
}

const strikeOf = (id: string) => ({ method: "post" as const, action: `/do/entries/${id}/strike` });

function EntryButton({ label, icon, onClick }: { label: string; icon: React.ReactNode; onClick: () => void }) {
  return (
    <button type="button" className="press !px-3" data-kind="quiet" aria-label={label} onClick={onClick}>
      {icon}
    </button>
  );
}
