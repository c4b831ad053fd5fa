import { useState } from "react";
import { type Point, boundingBox, isInside } from "#core/kernel/geometry/geometry";
import { MM } from "~/kit/ui/svg-path";

const STEP_M = 0.01;

/**
 * A place picked on a drawing of a panel in millimetres: by a tap, or by the arrow keys (1 cm, with Shift 5 cm), placed by Enter or, where
 * `byArrow`, by every step. Outside the panel nothing is placed.
 */
export function usePlacePicker(
  outline: readonly Point[],
  { start, onPlace, byArrow = false }: { start: Point | (() => Point); onPlace: (at: Point) => void; byArrow?: boolean },
) {
  const { x0, y0, x1, y1 } = boundingBox(outline);
  const [cursor, setCursor] = useState<Point>(start);
  const [focused, setFocused] = useState(false);
  const place = (at: Point) => {
    setCursor(at);
    if (isInside(at, outline)) onPlace(at);
  };
  /** Where the pointer is on the panel. */
  const placeOf = (e: React.MouseEvent<SVGSVGElement>): Point | null => {
    const matrix = e.currentTarget.getScreenCTM();
    if (!matrix) return null;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    return [p.x / MM, p.y / MM];
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    const step = e.shiftKey ? 5 * STEP_M : STEP_M;
    const moves: Record<string, Point> = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] };
    const move = moves[e.key];
    if (move) {
      e.preventDefault();
      const at: Point = [Math.min(x1, Math.max(x0, cursor[0] + move[0])), Math.min(y1, Math.max(y0, cursor[1] + move[1]))];
      if (byArrow) place(at);
      else setCursor(at);
    } else if (!byArrow && (e.key === "Enter" || e.key === " ")) {
      e.preventDefault();
      place(cursor);
    }
  };
  const keys = { onKeyDown, onFocus: () => setFocused(true), onBlur: () => setFocused(false) };
  return { cursor, focused, place, placeOf, keys };
}
