/** What was chosen or typed before the scripts had taken a page over, with the control it was done at. */
interface Early {
  control: HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;
  value: string;
  checked: boolean;
}
declare global {
  interface Window {
    /** Filled by the document's own script until the page is taken over, then null. */
    early?: Map<Element, Early> | null;
  }
}

const LOOK_MS = 50;
/** A part that has not been taken over by then is not coming. */
const LATEST_MS = 20_000;
/** So often in a row a control has to show what was done at it: the scripts mark it a moment before they hold it. */
const HELD = 4;

/** Does again at each control what was done too early, once the scripts have taken it over, until it stays. */
export function replayEarly(): void {
  const since = performance.now();
  const held = new Map<Early, number>();
  const look = () => {
    const { early: kept } = window;
    if (!kept) return;
    for (const [key, early] of kept) {
      if (!early.control.isConnected) early.control = inItsPlace(early) ?? early.control;
      if (!early.control.isConnected || !isTakenOver(early.control)) continue;
      const seen = shows(early) ? (held.get(early) ?? 0) + 1 : 0;
      if (seen > HELD) kept.delete(key);
      else if (seen === 0 || !held.has(early)) redo(early);
      held.set(early, seen);
    }
    if (performance.now() - since < LATEST_MS) setTimeout(look, LOOK_MS);
    else window.early = null;
  };
  look();
}

/** The control that the scripts have drawn anew where one stood. */
const inItsPlace = ({ control }: Early): Early["control"] | null =>
  document.querySelector<HTMLInputElement>(`${control.tagName}[name="${CSS.escape(control.name)}"]:not([type=hidden])`);

const isTakenOver = (control: Element): boolean => Object.keys(control).some((key) => key.startsWith("__reactProps"));
const isTicked = (control: Early["control"]): control is HTMLInputElement =>
  control instanceof HTMLInputElement && (control.type === "checkbox" || control.type === "radio");

const shows = ({ control, value, checked }: Early): boolean => (isTicked(control) ? control.checked === checked : control.value === value);

function redo({ control, value, checked }: Early): void {
  if (isTicked(control)) {
    if (control.checked !== checked) control.click();
    return;
  }
  if (control instanceof HTMLInputElement && control.type === "file") return; // the browser holds it
  // By the browser's own setter: the scripts have put theirs before it, to know what they wrote themselves. A field that shows the text already is
  // moved off it first, so that it is told as a change.
  const own = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(control), "value")!;
  if (control.value === value && !(control instanceof HTMLSelectElement)) own.set!.call(control, "");
  own.set!.call(control, value);
  for (const kind of ["input", "change"]) control.dispatchEvent(new Event(kind, { bubbles: true }));
}
