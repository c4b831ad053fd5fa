import type { WordId } from "./words.texts";

/** A film cut through: steel, base, and clear up to a line. Heights in the drawing's own units, 0 at the top. */
const STEEL = 54;
const BASE = 46;
const FLAT = "M0 28H120";
const WAVES = "M0 28q5-7 10 0t10 0 10 0 10 0 10 0 10 0 10 0 10 0 10 0 10 0 10 0 10 0";

function Film({ top = FLAT, children }: { top?: string; children?: React.ReactNode }) {
  return (
    <>
      <path d={`${top}V${BASE}H0Z`} fill="var(--clear-1)" />
      <rect y={BASE} width="120" height={STEEL - BASE} fill="var(--primer)" />
      <rect y={STEEL} width="120" height="10" fill="var(--steel)" />
      <path d={top} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      {children}
    </>
  );
}

const ink = { fill: "none", stroke: "var(--ink)", strokeWidth: 1.6, strokeLinecap: "round" } as const;
const dotted = { ...ink, strokeDasharray: "2 3" } as const;
const stop = { ...ink, stroke: "var(--stop-ink)", strokeWidth: 2.4 } as const;
const amber = { ...ink, stroke: "var(--amber-ink)", strokeWidth: 2.4 } as const;
const Dots = ({ at, r = 1.8, fill = "var(--ink)" }: { at: readonly (readonly [number, number])[]; r?: number; fill?: string }) =>
  at.map(([cx, cy]) => <circle key={`${cx} ${cy}`} cx={cx} cy={cy} r={r} fill={fill} />);
/** From here to there, both ways. */
const Span = ({ x, from, to }: { x: number; from: number; to: number }) => (
  <path d={`M${x} ${from}V${to}M${x - 3} ${from + 4}l3-4 3 4M${x - 3} ${to - 4}l3 4 3-4`} {...ink} />
);
const Clock = () => (
  <g {...ink}>
    <circle cx="60" cy="13" r="9" fill="var(--paper)" />
    <path d="M60 7v6h5" />
  </g>
);

const DRAWINGS: Record<WordId, React.ReactNode> = {
  layers: <Film />,
  film: (
    <Film>
      <Span x={60} from={28} to={BASE} />
    </Film>
  ),
  minimum: (
    <Film>
      <path d="M0 37H120" {...dotted} />
      <Span x={60} from={37} to={BASE} />
    </Film>
  ),
  wetDry: (
    <>
      <Film top="M0 32H58V32" />
      <Film top="M62 32H120">
        <path d="M0 14H56V30H0Z" fill="var(--clear-2)" opacity="0.6" />
        <path d="M0 14H56" {...dotted} />
      </Film>
    </>
  ),
  plusMinus: (
    <>
      <path d="M10 54C40 54 46 10 60 10S80 54 110 54Z" fill="var(--glow-wash)" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M60 10V54M34 58V50M86 58V50M34 54H86" {...ink} />
    </>
  ),
  spot: (
    <Film>
      <rect x="53" y="4" width="14" height="22" rx="3" fill="var(--steel-2)" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M60 28V54" {...dotted} />
    </Film>
  ),
  flash: (
    <Film>
      <path d="M20 24q-3-4 0-8M32 24q3-4 0-8M88 24q-3-4 0-8M100 24q3-4 0-8" {...ink} />
      <Clock />
    </Film>
  ),
  potLife: (
    <>
      <path d="M40 24H80L75 60H45Z" fill="var(--clear-1)" stroke="var(--ink)" strokeWidth="1.6" />
      <Clock />
    </>
  ),
  dewPoint: (
    <Film>
      <Dots at={[14, 36, 58, 82, 104].map((x) => [x, 24] as const)} r={3.4} fill="var(--glow)" />
    </Film>
  ),
  texture: <Film top={WAVES} />,
  leave: (
    <>
      <Film top={WAVES} />
      <path d="M60 6V62" {...dotted} />
    </>
  ),
  run: (
    <Film top="M0 30H34C44 30 46 12 58 12S70 30 82 30H120">
      <path d="M92 10v12m-4-5 4 6 4-6" {...amber} />
    </Film>
  ),
  window: (
    <>
      <rect x="4" y="26" width="112" height="14" fill="var(--hair)" />
      <rect x="42" y="26" width="36" height="14" fill="var(--glow)" />
      <path d="M8 20q4-6 8 0t8 0" {...ink} />
      <path d="M96 12c6 0 6 10 10 10" {...amber} />
      <circle cx="58" cy="33" r="5" fill="var(--moon)" stroke="var(--ink)" strokeWidth="2" />
    </>
  ),
  nib: (
    <Film top="M0 28H50Q60 14 70 28H120">
      <Dots at={[[60, 27]]} r={3.6} />
    </Film>
  ),
  crater: <Film top="M0 28H42Q48 22 52 32Q60 46 68 32Q72 22 78 28H120" />,
  pop: (
    <Film>
      <Dots at={[22, 37, 61, 70, 95].map((x) => [x, 30] as const)} r={2.2} fill="var(--paper)" />
      <Dots at={[30, 52, 84].map((x) => [x, 38] as const)} r={1.6} fill="var(--paper)" />
    </Film>
  ),
  drySpray: (
    <Film top="M0 28l4-4 3 5 4-6 4 5 3-4 5 6 4-5 3 3 4-6 5 6 4-4 3 5 4-6 4 5 5-4 3 4 4-6 4 6 3-3 5 4 4-6 4 5 3-4 5 5 4-5 3 4 4-5 5 6 4-4 4 4 2-3" />
  ),
  dieBack: (
    <Film top="M0 33q8-3 16 0t16 0 16 0 16 0 16 0 16 0 16 0 8 0">
      <path d="M0 24H120" {...dotted} />
    </Film>
  ),
  cutThrough: (
    <Film top="M0 28H36Q50 28 54 46H66Q70 28 84 28H120">
      <path d="M52 20l16 16M68 20l-16 16" {...stop} />
    </Film>
  ),
  steps: (
    <Film top="M0 28H4l3 7 3-7 3 7 3-7 3 7 3-7 3 7 3-7 3 7 3-7h6l2 4 2-4 2 4 2-4 2 4 2-4 2 4 2-4 2 4 2-4h6l1.5 2 1.5-2 1.5 2 1.5-2 1.5 2 1.5-2 1.5 2 1.5-2H120" />
  ),
  gloss: (
    <Film top="M0 40H120">
      <path d="M12 12 60 40 108 12" {...ink} />
      <path d="M60 40V16" {...dotted} />
    </Film>
  ),
  matting: (
    <Film top={WAVES}>
      <Dots at={[8, 22, 37, 51, 66, 80, 95, 110].map((x, i) => [x, i % 2 ? 38 : 33] as const)} />
    </Film>
  ),
  flowCoat: (
    <>
      <Film top={WAVES} />
      <path
        d="M0 18H120V28q-5 7-10 0t-10 0-10 0-10 0-10 0-10 0-10 0-10 0-10 0-10 0-10 0-10 0Z"
        fill="var(--clear-2)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
    </>
  ),
  tack: (
    <>
      <Film top="M0 40H120" />
      <path d="M0 20H120V40H0Z" fill="var(--clear-2)" stroke="var(--ink)" strokeWidth="1.6" />
      <Dots at={[6, 20, 34, 48, 62, 76, 90, 104].map((x) => [x + 4, 42] as const)} r={1.4} />
    </>
  ),
  predicted: (
    <>
      <Film top="M0 28H60V28" />
      <Film top="M60 28H120">
        <path d="M60 20H120M60 36H120" {...dotted} />
        <path d="M60 6V64" {...ink} />
      </Film>
    </>
  ),
};

/** What a word means, as a film cut through. */
export const WordDrawing = ({ id }: { id: WordId }) => (
  <svg viewBox="0 0 120 64" className="w-30 shrink-0 rounded-press border border-hair bg-paper" aria-hidden>
    {DRAWINGS[id]}
  </svg>
);
