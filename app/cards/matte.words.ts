import { type MatteForecast, chanceApart } from "#core/models/cards/matte-forecast";
import { CARD_CURES, CARD_ORIENTATIONS, type CardBody } from "#core/models/cards/card";
import { show } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { Working } from "~/kit/ui/figure";
import { line, withU } from "~/kit/words/lines";
import type { FaceForecast } from "./matte-faces";

const FILM = { thicker: "; thicker than the cards: brighter", thinner: "; thinner than the cards: duller" } as const;

/** What a forecast rests on. */
export function fromWords({ from, cards, film }: Pick<MatteForecast, "from" | "cards" | "film">): string {
  const base = {
    cards: `by ${cards} cards sprayed and dried so`,
    "moved cards": `by ${cards} cards sprayed otherwise, moved by what pairs of cards show`,
    "other cards": `by ${cards} cards sprayed otherwise; what that moves no card shows yet`,
    sheet: "by the sheet's levels, no card",
  }[from];
  return `${base}${film ? FILM[film] : ""}`;
}

/** The two faces that are likeliest to differ, in words; null with fewer than two. */
export function apartWords(faces: readonly FaceForecast[]): string | null {
  const known = faces.flatMap((f) => (f.forecast ? [{ name: f.name, forecast: f.forecast }] : []));
  const pairs = known.flatMap((a, i) => known.slice(i + 1).map((b) => ({ a, b, chance: chanceApart(a.forecast, b.forecast) })));
  const worst = pairs.sort((p, q) => q.chance - p.chance)[0];
  if (!worst) return null;
  const { a, b, chance } = worst;
  const how = chance < 0.1 ? "seldom differ" : chance < 0.5 ? "may differ" : "will likely differ";
  return `Side by side, ${a.name} and ${b.name} ${how} so that it shows, by more than 2 GU and 15 % (about ${Math.round(100 * chance)} in 100, by this model).`;
}

export function faceWorking(f: FaceForecast, { share, cure }: { share: number; cure: CardBody["cure"] }, units: UnitPreferences): Working {
  const { forecast } = f;
  return {
    title: `Gloss of ${f.name}`,
    formula:
      "The monotone curve through the cards of this product, at the share that is mixed. A face sprayed or dried otherwise than the cards is moved by the ratio that pairs of cards show; where no pair does, the span opens by 15 %. The hand adds 5 %, a film more than a sixth off the cards' 6 %.",
    inputs: forecast
      ? [
          line("matting component", "share", share, units),
          { name: "sprayed", shown: CARD_ORIENTATIONS[f.orientation] },
          { name: "dried", shown: CARD_CURES[cure] },
          { name: "rests on", shown: fromWords(forecast) },
          withU("gloss at 60°", "gloss", forecast.gloss_GU, forecast.u_GU, units),
          {
            name: "nineteen times in twenty",
            shown: `${show("gloss", forecast.low_GU, units).text} to ${show("gloss", forecast.high_GU, units).text} GU`,
          },
        ]
      : [],
    sources: ["shop-cards", "isotonic-1972", "common-practice", "yakamoz-default"],
    changesMost: "A card sprayed by the same hand, held as the part is, and dried as it will be.",
  };
}
