import { useEffect, useRef, useState } from "react";
import type { FormAnswer } from "~/kit/form/answer";

/** From so many fields on the one that is refused may be out of sight. */
const LONG = 4;

/**
 * A refused form goes to the first field that is refused; a long one names them all where it was sent from.
 * @returns that it was sent, and the names of what was refused
 */
export function useRefused(form: React.RefObject<HTMLFormElement | null>, answer: FormAnswer | undefined) {
  const sent = useRef(false);
  const [names, setNames] = useState<readonly string[]>([]);
  useEffect(() => {
    if (!sent.current || !form.current) return;
    sent.current = false;
    const refused = answer?.ok === false ? [...form.current.querySelectorAll<HTMLInputElement>("[aria-invalid='true']")] : [];
    refused[0]?.focus();
    const isLong = form.current.querySelectorAll("label").length >= LONG;
    setNames(isLong ? [...new Set(refused.map((field) => field.labels?.[0]?.firstChild?.textContent ?? field.name))] : []);
  }, [answer, form]);
  return { onSubmit: () => void (sent.current = true), names };
}
