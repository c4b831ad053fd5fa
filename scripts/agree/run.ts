import { testContext } from "#server/testing/fixtures";
import { type Broken, type Disagreement, compareFigures } from "./figures";
import { makePanel } from "./ledgers";

export interface Agreement {
  panels: number;
  figures: number;
  disagreements: Disagreement[];
  broken: Broken[];
}

/** Makes panels with random lives and compares all that their pages say. @param from seed of the first */
export async function agree(
  panels: number,
  { from = 1, onPanel }: { from?: number; onPanel?: (done: number) => void } = {},
): Promise<Agreement> {
  const ctx = await testContext();
  const sum: Agreement = { panels, figures: 0, disagreements: [], broken: [] };
  for (let seed = from; seed < from + panels; seed++) {
    const { said, disagreements, broken } = await compareFigures(ctx, await makePanel(ctx, seed));
    sum.figures += said.length;
    sum.disagreements.push(...disagreements);
    sum.broken.push(...broken);
    onPanel?.(seed - from + 1);
  }
  await ctx.db.destroy();
  return sum;
}
