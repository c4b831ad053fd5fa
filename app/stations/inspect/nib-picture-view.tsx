import { useState } from "react";
import { show } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import type { NibMark, NibPicture } from "./use-nib-count";

/** Of the picture's longer side: how near a tap must be to strike a mark, and a key's step. */
const NEAR = 0.025;
const STEP = 0.02;

/** The picture with its marks; a tap on a mark strikes it or takes it back, a tap elsewhere adds one; arrow keys and Enter do the same. */
export function NibPictureView({
  picture,
  marks,
  onChange,
}: {
  picture: NibPicture;
  marks: readonly NibMark[];
  onChange?: (change: (list: NibMark[]) => NibMark[]) => void;
}) {
  const { width, height, url } = picture;
  const unit = Math.max(width, height);
  const [cursor, setCursor] = useState({ x: width / 2, y: height / 2 });
  const [focused, setFocused] = useState(false);
  const touch = (x: number, y: number) =>
    onChange?.((list) => {
      const near = list.findIndex((m) => Math.hypot(m.x - x, m.y - y) < NEAR * unit);
      if (near < 0) return [...list, { x, y, diameter_m: null, atMost: false, by: "added", struck: false }];
      return list.flatMap((m, i) => (i !== near ? [m] : m.by === "added" ? [] : [{ ...m, struck: !m.struck }]));
    });
  const onClick = (e: React.MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    touch(((e.clientX - box.left) / box.width) * width, ((e.clientY - box.top) / box.height) * height);
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    const step = STEP * unit * (e.shiftKey ? 3 : 1);
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const move = moves[e.key];
    if (move) {
      e.preventDefault();
      setCursor(({ x, y }) => ({ x: Math.min(width, Math.max(0, x + move[0])), y: Math.min(height, Math.max(0, y + move[1])) }));
    } else if (e.key === "Enter" || e.key === " ") {
      e.preventDefault();
      touch(cursor.x, cursor.y);
    }
  };
  const r = 0.014 * unit;
  const open = marks.filter((m) => !m.struck).length;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={`block h-auto max-h-[60dvh] w-full ${onChange ? "cursor-crosshair" : ""}`}
      {...(onChange
        ? {
            tabIndex: 0,
            role: "application",
            "aria-roledescription": "picture to mark",
            onClick,
            onKeyDown,
            onFocus: () => setFocused(true),
            onBlur: () => setFocused(false),
          }
        : { role: "img" })}
      aria-label={`Photograph of the panel${onChange ? `, ${open} marks. Arrow keys move the cross, Enter marks or strikes` : ""}`}
    >
      <image href={url} width={width} height={height} />
      {marks.map((m, i) => (
        <Mark key={i} {...{ unit, m, r }} />
      ))}
      {onChange && focused && (
        <path
          d={`M${cursor.x - r} ${cursor.y}H${cursor.x + r}M${cursor.x} ${cursor.y - r}V${cursor.y + r}`}
          stroke="var(--glow)"
          strokeWidth={unit * 0.004}
        />
      )}
    </svg>
  );
}

/** A nib as it was found, added or struck. */
function Mark({ unit, m, r }: { unit: number; m: NibMark; r: number }) {
  const units = useUnits();
  return (
    <g fill="none" strokeWidth={unit * 0.003} data-testid="nib-mark" data-struck={m.struck}>
      <circle cx={m.x} cy={m.y} r={r} stroke="var(--on-ramp-dark)" strokeWidth={unit * 0.005} />
      <circle cx={m.x} cy={m.y} r={r} stroke="var(--stop)" strokeDasharray={m.by === "added" ? `${r * 0.5} ${r * 0.3}` : undefined} />
      {m.struck && <path d={`M${m.x - r} ${m.y + r}L${m.x + r} ${m.y - r}`} stroke="var(--on-ramp-dark)" strokeWidth={unit * 0.005} />}
      {m.diameter_m !== null && !m.struck && (
        <text
          x={m.x + r * 1.3}
          y={m.y + r * 0.4}
          fontSize={unit * 0.018}
          fontWeight="640"
          fill="var(--on-ramp-light)"
          stroke="var(--on-ramp-dark)"
          strokeWidth={unit * 0.005}
          paintOrder="stroke"
        >
          {m.atMost ? "≤ " : ""}
          {show("length", m.diameter_m, units, units.length === "mm" ? 1 : 3).text}
        </text>
      )}
    </g>
  );
}
