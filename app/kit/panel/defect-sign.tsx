import type { DefectFacts } from "#core/models/defects/catalogue";

/** Paths of the signs in a box from −1 to 1: own line drawings of what each defect looks like. */
const SIGNS: Record<DefectFacts["sign"], string> = {
  hang: "M-.35-1V.2C-.35.7-.75.55-.6.85S.2 1.1.25.6C.3.3.25 0 .25-.4V-1",
  ripple: "M-1-.5q.25-.4.5 0t.5 0t.5 0t.5 0M-1 .05q.25-.4.5 0t.5 0t.5 0t.5 0M-1 .6q.25-.4.5 0t.5 0t.5 0t.5 0",
  grain: "M-.8-.7h.05M-.2-.85h.05M.5-.6h.05M-.6-.1h.05M.1-.2h.05M.8 0h.05M-.85.5h.05M-.25.45h.05M.4.4h.05M0 .85h.05M.75.75h.05",
  dot: "M.55 0A.55.55 0 1 1-.55 0 .55.55 0 1 1 .55 0M.12 0A.12.12 0 1 1-.12 0 .12.12 0 1 1 .12 0",
  thread: "M-.9.4C-.5-.6-.1.9.2.1S.6-.8.95-.3",
  ring: "M.8 0A.8.8 0 1 1-.8 0 .8.8 0 1 1 .8 0M.4 0A.4.4 0 1 1-.4 0 .4.4 0 1 1 .4 0",
  bubbles:
    "M-.3-.5A.28.28 0 1 1-.86-.5 .28.28 0 1 1-.3-.5M.7-.2A.32.32 0 1 1 .06-.2 .32.32 0 1 1 .7-.2M-.1.55A.26.26 0 1 1-.62.55 .26.26 0 1 1-.1.55M.75.7A.18.18 0 1 1 .39.7 .18.18 0 1 1 .75.7",
  cloud: "M-.8.4C-1.1 0-.7-.3-.4-.25C-.3-.75.4-.75.5-.25C.95-.3 1.1.2.7.4Z",
  patch: "M-.8-.3L-.2-.8L.6-.6L.85.1L.3.75L-.6.6Z",
  lines: "M-.9.7L.3-.9M-.5.85L.65-.7M-.05.9L.9-.4",
  flake: "M-.9.6L-.3-.1L.1.3L.9-.7M-.3-.1L-.1-.7L.5-.5",
  swirl: "M-.8 0A.8.8 0 0 1 .8 0M-.5.15A.5.5 0 0 1 .5.15M-.2.3A.2.2 0 0 1 .2.3",
  hole: "M-.55-.4h.02M.1-.6h.02M.55-.1h.02M-.2.1h.02M.25.5h.02M-.6.55h.02M-.95-.9h1.9v1.8h-1.9Z",
};

/** A defect's sign at a place of a drawing; r is half its size. */
export function DefectSign({ sign, r, long = r }: { sign: DefectFacts["sign"]; r: number; long?: number }) {
  return (
    <path
      d={SIGNS[sign]}
      transform={`scale(${r} ${sign === "hang" ? long : r})`}
      fill="none"
      vectorEffect="non-scaling-stroke"
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}
