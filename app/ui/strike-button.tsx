import { Undo2 } from "lucide-react";
import { useFetcher } from "react-router";
import { toast } from "sonner";
import { useEffect, useRef } from "react";

type StrikeAnswer = { ok: true; strikeId: string } | { ok: false; message: string };

/** Takes an entry back out of what is shown. The ledger keeps it, and the toast brings it back. */
export function StrikeButton({ entryId, what }: { entryId: string; what: string }) {
  const fetcher = useFetcher<StrikeAnswer>();
  const undo = useFetcher({ key: "undo" });
  const seen = useRef<StrikeAnswer | null>(null);
  const answer = fetcher.data;
  const { submit } = undo;
  useEffect(() => {
    if (!answer || seen.current === answer) return;
    seen.current = answer;
    if (!answer.ok) toast.error(answer.message);
    else
      toast(`${what} taken out`, {
        action: { label: "Undo", onClick: () => void submit(null, { method: "post", action: `/do/entries/${answer.strikeId}/strike` }) },
      });
  }, [answer, submit, what]);
  return (
    <button
      type="button"
      className="press !px-3"
      data-kind="quiet"
      aria-label={`Take out ${what}`}
      onClick={() => void fetcher.submit(null, { method: "post", action: `/do/entries/${entryId}/strike` })}
    >
      <Undo2 size={17} aria-hidden />
    </button>
  );
}
