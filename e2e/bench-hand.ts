import type { Page } from "@playwright/test";

export interface RowOfHand {
  x0: number;
  x1: number;
  y: number;
  /** Stands still so long in the middle of the row, s. */
  stands?: number;
  /** m/s; the way's own without it. */
  speed?: number;
}

/** Rows over a part of this size, past both edges, every other one back. */
export const rowsOver = (width: number, height: number, rows: number): RowOfHand[] =>
  Array.from({ length: rows }, (_, k) => {
    const y = (height * k) / (rows - 1);
    return k % 2 === 0 ? { x0: -0.1, x1: width + 0.1, y } : { x0: width + 0.1, x1: -0.1, y };
  });

/**
 * A steady hand with a mouse over the bench, sixty times a second by the page's own clock, told at each frame with the times of what lay between, as a browser
 * tells it: however slow the machine, no two frames pass without what the hand did. The trigger is pulled along a row and let go in the turn.
 */
export async function sprayRows(page: Page, rows: readonly RowOfHand[], { speed = 0.34 } = {}): Promise<void> {
  await page.getByTestId("stage").evaluate(
    async (at, { rows, speed }) => {
      const { x, y, width, height } = at.querySelector("svg")!.viewBox.baseVal;
      at.setPointerCapture = () => {}; // no such pointer is down
      const send = (type: string, at_ms: number, x_m: number, y_m: number) => {
        const box = at.getBoundingClientRect();
        const clientX = box.left + ((x_m * 1000 - x) / width) * box.width;
        const clientY = box.top + ((y_m * 1000 - y) / height) * box.height;
        const event = new PointerEvent(type, { clientX, clientY, pointerType: "mouse", pointerId: 1, bubbles: true });
        Object.defineProperty(event, "timeStamp", { value: at_ms });
        at.dispatchEvent(event);
      };
      const STEP_MS = 1000 / 60;
      const TURN_MS = 300;
      /** When the hand was told last: it goes on from there, a step at a time, up to now. */
      let told_ms = performance.now();
      let frame_ms = told_ms;
      const next = async () => {
        while (frame_ms < told_ms + STEP_MS) frame_ms = await new Promise<number>((done) => requestAnimationFrame(done));
        told_ms += STEP_MS;
        return told_ms;
      };
      for (const row of rows) {
        send("pointermove", await next(), row.x0, row.y);
        const from = told_ms;
        send("pointerdown", from, row.x0, row.y);
        const takes = (Math.abs(row.x1 - row.x0) / (row.speed ?? speed)) * 1000;
        const stands = (row.stands ?? 0) * 1000;
        for (let gone = 0; gone < takes + stands;) {
          gone = (await next()) - from;
          const goes = Math.min(takes, gone <= takes / 2 ? gone : Math.max(takes / 2, gone - stands));
          send("pointermove", told_ms, row.x0 + ((row.x1 - row.x0) * goes) / takes, row.y);
        }
        send("pointerup", told_ms, row.x1, row.y);
        for (const turned = told_ms; told_ms < turned + TURN_MS;) send("pointermove", await next(), row.x1, row.y);
      }
    },
    { rows, speed },
  );
}
