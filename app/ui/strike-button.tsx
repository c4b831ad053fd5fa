import { Undo2 } from "lucide-react";
import { useFetcher } from "react-router";
import { STRIKE_KEY, type StrikeAnswer } from "~/shell/use-toasts";

/** Takes an entry back out of what is shown. The ledger keeps it, and the shell's toast brings it back. */
export function StrikeButton({ entryId, what }: { entryId: string; what: string }) {
  const fetcher = useFetcher<StrikeAnswer>({ key: STRIKE_KEY });
  return (
    <button
      type="button"
      className="press !px-3"
      data-kind="quiet"
      aria-label={`Take out ${what}`}
      onClick={() => void fetcher.submit({ what }, { method: "post", action: `/do/entries/${entryId}/strike` })}
    >
      <Undo2 size={17} aria-hidden />
    </button>
  );
}
