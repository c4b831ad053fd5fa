import { agree } from "./run";

test("a few panels in short: pages agree, and the comparison is not empty (all 300: `npm run agree`)", async () => {
  const { figures, disagreements, broken } = await agree(3, { from: 901 });
  expect(disagreements).toEqual([]);
  expect(broken).toEqual([]);
  expect(figures).toBeGreaterThan(60);
});
