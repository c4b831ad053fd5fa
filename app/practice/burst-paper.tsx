import { useEffect, useRef } from "react";
import { burstFigures, lookOfBurst, PAPER } from "#core/practice/pattern";

/** Material of an even burst's mean covers the paper by so much. */
const COVERS = 0.34;
const SCALE = 3;
/** Paper and paint by any theme. */
const PAPER_COLOUR = "oklch(0.95 0.012 95)";
const PAINT_COLOUR = "oklch(0.3 0.06 200)";

/** A burst as it lies on paper. */
export function BurstPaper({ film, label }: { film: Float64Array; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const draw = canvas.current?.getContext("2d");
    if (!draw) return;
    const { columns, rows } = PAPER;
    draw.globalAlpha = 1;
    draw.fillStyle = PAPER_COLOUR;
    draw.fillRect(0, 0, columns * SCALE, rows * SCALE);
    draw.fillStyle = PAINT_COLOUR;
    for (let j = 0; j < rows; j++)
      for (let i = 0; i < columns; i++) {
        draw.globalAlpha = 1 - Math.exp(-COVERS * film[j * columns + i]!);
        draw.fillRect(i * SCALE, j * SCALE, SCALE, SCALE);
      }
  }, [film]);
  return (
    <figure>
      <canvas
        ref={canvas}
        width={PAPER.columns * SCALE}
        height={PAPER.rows * SCALE}
        className="h-72 w-36 border border-hair"
        role="img"
        aria-label={toldOf(film, label)}
        data-testid="burst"
      />
      <figcaption className="mt-1 text-[14px] font-medium">{label}</figcaption>
    </figure>
  );
}

/** A burst for whoever does not see it: its shape, without what is wrong with the gun. */
function toldOf(film: Float64Array, label: string): string {
  const look = lookOfBurst(film);
  const { end, bow } = burstFigures(film);
  const where =
    look === "heavy end"
      ? `, the ${end > 0 ? "lower" : "upper"} one`
      : look === "crescent"
        ? `, its middle to the ${bow > 0 ? "right" : "left"}`
        : "";
  return `${label}: ${look}${where}`;
}
