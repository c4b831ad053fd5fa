import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import { toast } from "sonner";
import { onAnswer } from "~/lib/answer-event";

export type StrikeAnswer = { ok: true; strikeId: string; what: string } | { ok: false; message: string };
/** One fetcher for every "take out": its answer outlives the button, which goes with its entry. */
export const STRIKE_KEY = "strike";

/** Says once that something was stored or taken out and offers to undo it; lives in the shell, so that no message is lost with its form. */
export function useToasts(): void {
  const { submit } = useFetcher({ key: "undo" });
  const struck = useFetcher<StrikeAnswer>({ key: STRIKE_KEY }).data;
  const seen = useRef<StrikeAnswer | null>(null);
  useEffect(() => {
    const undo = (entryId: string) => () => void submit(null, { method: "post", action: `/do/entries/${entryId}/strike` });
    return onAnswer((answer) => {
      const { ok, message, entryId } = answer;
      if (ok && message) toast.success(message, entryId ? { action: { label: "Undo", onClick: undo(entryId) } } : {});
    });
  }, [submit]);
  useEffect(() => {
    if (!struck || seen.current === struck) return;
    seen.current = struck;
    if (!struck.ok) toast.error(struck.message);
    else
      toast(`${struck.what} taken out`, {
        action: { label: "Undo", onClick: () => void submit(null, { method: "post", action: `/do/entries/${struck.strikeId}/strike` }) },
      });
  }, [struck, submit]);
}
