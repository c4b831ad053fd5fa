import { type CardBody, cardDifferences, cardGloss, shownEffects } from "#core/models/cards/card";
import { cardBody } from "#core/models/cards/card-schema";
import { testCard } from "#core/models/cards/testing/test-card";

const READ = [
  { angle: 60, gloss_GU: 17 },
  { angle: 60, gloss_GU: 18 },
  { angle: 85, gloss_GU: 40 },
] as const;
const card = (change: Partial<CardBody> = {}) => testCard({ gloss: [...READ], ...change });

test("gloss of a card is the mean at one angle, never mixed with another; not read is null", () => {
  expect(cardGloss(card(), 60)).toBe(17.5);
  expect(cardGloss(card(), 85)).toBe(40);
  expect(cardGloss(card(), 20)).toBeNull();
});
test("cards of one fit that differ in base, cure, orientation or film are named", () => {
  expect(cardDifferences([card(), card({ mattingShare: 0.5 })])).toEqual([]);
  expect(cardDifferences([card(), card({ base: "black", cure: "forced" })])).toEqual([
    "substrate or base: grey, black",
    "cure: air-dried, forced, baked",
  ]);
  expect(cardDifferences([card(), card({ dryFilm_m: 70e-6 })])).toEqual(["film differs by more than a quarter"]);
});
test("the size of an effect comes only from a pair that differs in nothing else", () => {
  const baked = card({ name: "B", cure: "forced", gloss: [{ angle: 60, gloss_GU: 21 }] });
  expect(shownEffects([card(), baked])).toEqual([{ what: "forced drying", change_GU: 3.5, from_GU: 17.5, to_GU: 21, from: "A", to: "B" }]);
  expect(shownEffects([card(), { ...baked, base: "black" }])).toEqual([]);
  expect(shownEffects([card(), { ...baked, mattingShare: 0.5 }])).toEqual([]);
});
test("a card without a name or with gloss below zero is refused", () => {
  expect(cardBody.safeParse(card({ name: " " })).success).toBe(false);
  expect(cardBody.safeParse(card({ gloss: [{ angle: 60, gloss_GU: -1 }] })).success).toBe(false);
});
