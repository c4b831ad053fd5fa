import { useState } from "react";

/** Of what nothing is left after it. */
export const FOR_GOOD = "For good: it cannot come back";

interface SurePressProps extends Omit<React.ComponentProps<"button">, "children" | "onClick" | "onBlur"> {
  ask: string;
  /** What it says when it has been pressed once: the second press is meant. */
  sure: string;
  /** Which one of several, for who does not see the row. */
  of?: string;
  /** It is what the page is for, not beside it. */
  bordered?: boolean;
  /** What the second press does; without it the form is sent. */
  onSure?: () => void;
}

/** A press that cannot be taken back asks once more. */
export function SurePress({ ask, sure, of, bordered = false, onSure, ...button }: SurePressProps) {
  const [asked, setAsked] = useState(false);
  return (
    <button
      className="press"
      data-kind={asked ? "stop" : bordered ? undefined : "quiet"}
      {...button}
      onClick={(e) => {
        if (asked) return onSure?.();
        e.preventDefault();
        setAsked(true);
      }}
      onBlur={() => setAsked(false)}
    >
      {asked ? sure : ask}
      {of && <span className="sr-only">, {of}</span>}
    </button>
  );
}
