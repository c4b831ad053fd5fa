import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import { toast } from "sonner";
import type { FormAnswer } from "~/forms/answer";

/** Says once that an entry was made and offers to strike it again. */
export function useUndoToast(answer: FormAnswer | undefined): void {
  const { submit } = useFetcher({ key: "undo" });
  const seen = useRef<string | undefined>(undefined);
  useEffect(() => {
    if (!answer?.ok || !answer.done || answer.done === seen.current) return;
    seen.current = answer.done;
    const { entryId, message } = answer;
    if (!message) return;
    toast.success(
      message,
      entryId
        ? { action: { label: "Undo", onClick: () => void submit(null, { method: "post", action: `/do/entries/${entryId}/strike` }) } }
        : {},
    );
  }, [answer, submit]);
}
