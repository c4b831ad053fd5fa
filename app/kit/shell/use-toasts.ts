import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import { toast } from "~/kit/ui/toast";
import { onAnswer } from "~/kit/form/answer-event";

export type StrikeAnswer = { ok: true; strikeId: string; what: string } | { ok: false; message: string };
/** One fetcher for every "take out": its answer outlives the button, which goes with its entry. */
export const STRIKE_KEY = "strike";

/** Says once that something was stored or taken out and offers to undo it; lives in the shell, so that no message is lost with its form. */
export function useToasts(): void {
  const { submit } = useFetcher({ key: "undo" });
  const struck = useFetcher<StrikeAnswer>({ key: STRIKE_KEY }).data;
  const seen = useRef<StrikeAnswer | null>(null);
  useEffect(() => {
    const undo = (entryId: string, also: readonly string[]) => () =>
      void submit({ also: also.join(" ") }, { method: "post", action: `/do/entries/${entryId}/strike` });
    return onAnswer((answer) => {
      const { ok, intent, message, entryId, also = [] } = answer;
      // A form that belongs to no page part, or whose page does not show messages, must not fail silently.
      if (!ok && intent === "" && message) toast.error(message, { id: "failed" });
      if (ok && message) toast.success(message, entryId ? { action: { label: "Undo", onClick: undo(entryId, also) } } : {});
    });
  }, [submit]);
  useEffect(() => {
    if (!struck || seen.current === struck) return;
    seen.current = struck;
    if (!struck.ok) toast.error(struck.message);
    else
      toast.plain(`${struck.what} taken out`, {
        action: { label: "Undo", onClick: () => void submit(null, { method: "post", action: `/do/entries/${struck.strikeId}/strike` }) },
      });
  }, [struck, submit]);
}
