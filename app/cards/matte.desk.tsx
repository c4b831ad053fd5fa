import { useDraft } from "~/kit/draft/use-draft";
import { Suspense, lazy, useMemo } from "react";
import { Link } from "react-router";
import { CARD_CURES, CARD_ORIENTATIONS, type CardBody, cardDifferences, cardGloss, shownEffects } from "#core/models/cards/card";
import {
  CARDS_LEAST,
  CARDS_WANTED,
  type MatteAnswer,
  type MatteCurve,
  matteCurve,
  matteMix,
  nearestLevel,
  nextCard,
} from "#core/models/gloss/matte-fit";
import { MATTE_TENDENCIES } from "#core/models/gloss/matte-knowledge";
import { seededRandom } from "#core/kernel/stats/random";
import { COVERAGE, show, showWithUncertainty } from "#core/kernel/units/format";
import { parseQuantity } from "#core/kernel/units/parse";
import { useUnits } from "~/kit/root/use-root";
import { Field, SelectField } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { More } from "~/kit/ui/more";
import { matteWorking } from "~/kit/words/matte-working";
import { rowOfShares } from "#core/models/cards/row-of-shares";
import type { FaceAsked } from "./matte-faces";
import { InUnits } from "~/kit/ui/in-units";

/** Drawn with the page, and read, not touched. */
const MatteChart = lazy(() => import("./matte-chart").then((m) => ({ default: m.MatteChart })));

const MatteFaces = lazy(() => import("./matte-faces").then((m) => ({ default: m.MatteFaces })));
const CardRow = lazy(() => import("./card-row").then((m) => ({ default: m.CardRow })));

/** A mix that is taken for a job. */
export interface MatteTaken {
  share: number;
  target_GU: number;
  low: number | null;
  high: number | null;
  from: "cards" | "sheet";
}
export interface MatteCardItem {
  id: string;
  number: number;
  simulated: boolean;
  body: CardBody;
}
const SEED = 7;
const MOVES = { up: "↑ brighter", down: "↓ duller", patchy: "≈ patchy" } as const;

/** The cure that most cards have: a fit wants one only. */
function commonCure(cards: readonly MatteCardItem[]): CardBody["cure"] | "" {
  const forced = cards.filter((c) => c.body.cure === "forced").length;
  return cards.length === 0 ? "" : forced > cards.length / 2 ? "forced" : "air";
}

interface MatteDeskProps {
  cards: readonly MatteCardItem[];
  products: readonly string[];
  levelsOf: (product: string) => readonly { share: number; gloss60_GU: number }[];
  target_GU: number | null;
  targetNote: string;
  orientation: CardBody["orientation"];
  /** Of the job: cards of it go before others. */
  colourCode?: string;
  /** Key of the form of a row of cards. */
  rowKey: string;
  /** Faces of the job whose gloss is foretold. */
  faces?: readonly FaceAsked[];
  /** Clear that is planned. */
  film_m?: number | null;
  /** The mix that was taken for the job, and what takes another. */
  taken?: number | null;
  onTake?: (mix: MatteTaken) => void;
}

/** From the shop's cards and a target gloss: the mix, its span, what stands against it, and the next card worth spraying. */
export function MatteDesk({
  cards,
  products,
  levelsOf,
  target_GU,
  targetNote,
  orientation,
  colourCode = "",
  rowKey,
  faces,
  film_m = null,
  taken,
  onTake,
}: MatteDeskProps) {
  const units = useUnits();
  const draft = useDraft("matte mix", {
    product: products[0] ?? "",
    target: target_GU === null ? "" : target_GU.toFixed(1),
    base: "",
    cure: commonCure(cards),
    side: orientation,
    colour: cards.some((c) => c.body.colourCode !== "" && c.body.colourCode === colourCode) ? colourCode : "",
  });
  const { product, target: targetText, base, colour } = draft.typed;
  const cure = draft.typed.cure;
  const side = draft.typed.side as CardBody["orientation"] | "";
  const bases = [...new Set(cards.filter((c) => c.body.productName === product).map((c) => c.body.base))];
  const ofProduct = cards.filter((c) => c.body.productName === product && c.body.mattingShare !== null && cardGloss(c.body, 60) !== null);
  const ofKind = ofProduct.filter((c) => (!base || c.body.base === base) && (!colour || c.body.colourCode === colour));
  const used = ofKind.filter((c) => (!cure || c.body.cure === cure) && (!side || c.body.orientation === side));
  const colours = [...new Set(ofProduct.map((c) => c.body.colourCode))].filter(Boolean);
  const parsed = parseQuantity("gloss", targetText, "GU");
  const wanted = parsed.ok && parsed.si > 0 && parsed.si <= 100 ? parsed.si : null;
  const usedIds = used.map((c) => c.id).join();
  const points = useMemo(
    () => used.map((c) => ({ id: c.id, label: `card ${c.number}`, share: c.body.mattingShare!, gloss_GU: cardGloss(c.body, 60)! })),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the chosen cards by their ids
    [usedIds],
  );
  const fit = useMemo((): { curve: MatteCurve | null; answer: MatteAnswer | null } => {
    if (new Set(points.map((p) => p.share)).size < CARDS_LEAST) return { curve: null, answer: null };
    return { curve: matteCurve(points), answer: wanted === null ? null : matteMix(points, wanted, { random: seededRandom(SEED) }) };
  }, [points, wanted]);
  const { curve, answer } = fit;
  const differences = cardDifferences(used.map((c) => c.body));
  const effects = shownEffects(ofProduct.map((c) => c.body));
  const level = wanted === null ? null : nearestLevel(levelsOf(product), wanted);
  const next = nextCard(points, answer);
  const against = points.filter((p) => answer?.against.includes(p.id));
  const percent = (s: number) => show("share", s, units).text;
  const share = taken ?? answer?.share ?? level?.share ?? null;
  const dried: CardBody["cure"] = cure === "forced" ? "forced" : "air";
  const middle = answer?.share ?? level?.share ?? next.share;
  const three = rowOfShares(middle);
  const cardAt = (s: number) =>
    `/cards/new/edit?${new URLSearchParams({ product, share: String(s), base, colour: colour || colourCode, side: side || orientation, cure: dried }).toString()}`;
  const take = () => {
    if (wanted === null || !onTake) return;
    if (answer) onTake({ share: answer.share, target_GU: wanted, low: answer.low, high: answer.high, from: "cards" });
    else if (level) onTake({ share: level.share, target_GU: wanted, low: null, high: null, from: "sheet" });
  };
  /** With a card out of order the fit pools it, and what spread it would claim is nobody's. */
  const inOrder = curve !== null && curve.against.length === 0;
  return (
    <>
      <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight" data-testid="matte-sentence">
        {answer && wanted !== null ? (
          <>
            <em className="text-glow-ink not-italic">{percent(answer.share)} % matting component</em> gives {wanted} GU; between{" "}
            {percent(answer.low)} and {percent(answer.high)} % nineteen times in twenty.
          </>
        ) : wanted === null ? (
          "Which gloss is wanted? Type the vehicle’s own reading."
        ) : !curve ? (
          <>
            {points.length === 0 ? "No card" : `${points.length} ${points.length === 1 ? "card" : "cards"}`} of this kind: too few to fit.{" "}
            {level ? `The sheet’s nearest level is ${percent(level.share)} %, ${level.gloss60_GU} GU.` : "The sheet lists no level either."}
          </>
        ) : (
          `No card brackets ${wanted} GU. Spray one further out.`
        )}
      </h2>
      <div className="mt-2 mb-4 flex min-h-8 flex-wrap gap-2">
        {answer?.few && <Tag kind="caution">Only {answer.cards} cards: four are wanted</Tag>}
        {against.map((p) => (
          <Tag key={p.id} kind="caution">
            {p.label} stands against the order
          </Tag>
        ))}
        {differences.map((d) => (
          <Tag key={d} kind="caution">
            Cards differ in {d}
          </Tag>
        ))}
        {used.some((c) => c.simulated) && <Tag kind="simulated">some cards simulated</Tag>}
      </div>
      <div className="grid gap-x-10 gap-y-8 xl:grid-cols-[1.35fr_1fr]">
        <div className="min-w-0">
          <Suspense fallback={<div className="aspect-[16/10]" />}>
            <MatteChart cards={points} curve={curve} answer={answer} target_GU={wanted} />
          </Suspense>
          <div className="mt-3 flex flex-wrap gap-2">
            {used.map((c) => (
              <Link key={c.id} to={`/cards/${c.id}`} className="press">
                Card {c.number}: {percent(c.body.mattingShare!)} %, {cardGloss(c.body, 60)!.toFixed(1)} GU
              </Link>
            ))}
          </div>
        </div>
        <div className="space-y-5">
          <div className="grid grid-cols-2 items-start gap-3">
            <Field
              label="Target at 60°"
              unit="GU"
              value={targetText}
              onChange={draft.field("target").onChange}
              errors={targetText !== "" && wanted === null ? [parsed.ok ? "Between 0 and 100 GU" : parsed.message] : undefined}
              hint={targetNote}
            />
            <SelectField label="Product" value={product} onChange={draft.field("product").onChange}>
              {products.map((p) => (
                <option key={p}>{p}</option>
              ))}
            </SelectField>
            <SelectField label="Substrate or base" value={base} onChange={draft.field("base").onChange}>
              <option value="">any</option>
              {bases.map((b) => (
                <option key={b} value={b}>
                  {b || "not said"}
                </option>
              ))}
            </SelectField>
            {colours.length > 0 && (
              <SelectField label="Colour code" value={colour} onChange={draft.field("colour").onChange}>
                <option value="">any</option>
                {colours.map((code) => (
                  <option key={code}>{code}</option>
                ))}
              </SelectField>
            )}
            <SelectField label="Cure" value={cure} onChange={draft.field("cure").onChange}>
              <option value="">any</option>
              {Object.entries(CARD_CURES).map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
            <SelectField label="Sprayed" value={side} onChange={draft.field("side").onChange}>
              <option value="">any way</option>
              {Object.entries(CARD_ORIENTATIONS).map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
          </div>
          {answer && wanted !== null && (
            <Figure
              label="matting component"
              {...(inOrder
                ? {
                    shown: showWithUncertainty("share", answer.share, answer.u_share, units),
                    note: `so the gloss comes out within ± ${(COVERAGE * answer.u_gloss_GU).toFixed(1)} GU; a point more takes off ${Math.abs(answer.slope_GU_per_point).toFixed(1)} GU`,
                  }
                : {
                    shown: show("share", answer.share, units),
                    note: "no span: a card stands against the order; spray it again, or leave it out",
                  })}
              working={matteWorking(answer, wanted, units)}
            />
          )}
          {onTake && (
            <div className="flex flex-wrap items-center gap-3">
              <button type="button" className="press" data-kind="main" disabled={!(wanted !== null && (answer ?? level))} onClick={take}>
                Take {answer ? percent(answer.share) : level ? percent(level.share) : "this"} % for this job
              </button>
              {taken !== null && taken !== undefined && <WhatMoves {...{ percent, taken }} />}
            </div>
          )}
          <p>
            <b className="font-semibold">Next card: {percent(next.share)} %.</b>{" "}
            <span className="inline-block text-ink2 first-letter:uppercase">{next.why}.</span>
          </p>
          <div className="flex flex-wrap items-center gap-2">
            <span className="text-ink2">Or the charted mix and one either side:</span>
            {three.map((s) => (
              <Link key={s} to={cardAt(s)} className="press">
                Card {percent(s)} %
              </Link>
            ))}
          </div>
          <More label="Read a row of cards">
            <Suspense fallback={<div className="min-h-96" />}>
              <CardRow
                alike={{
                  productName: product,
                  base: base || (ofKind[0]?.body.base ?? ""),
                  colourCode: colour || colourCode,
                  orientation: side || orientation,
                  cure: dried,
                }}
                share={middle}
                formKey={rowKey}
              />
            </Suspense>
          </More>
          {points.length < CARDS_WANTED && curve === null && level && (
            <p className="text-ink2">Until there are four cards, start from the sheet’s level and one card either side of it.</p>
          )}
        </div>
      </div>
      {faces && share !== null && (
        <Suspense fallback={<div className="min-h-40" />}>
          <MatteFaces
            faces={faces}
            cure={dried}
            share={share}
            target_GU={wanted}
            cards={ofKind.map((c) => c.body)}
            levels={levelsOf(product)}
            film_m={film_m}
          />
        </Suspense>
      )}
      <section className="mt-8" aria-labelledby="moves-title">
        <h3 id="moves-title" className="text-lg font-semibold">
          What else will move it
        </h3>
        <ul className="mt-2 grid border-t border-hair md:grid-cols-2 md:gap-x-10">
          {MATTE_TENDENCIES.map((t) => {
            const seen = t.id === "forced" ? effects.filter((e) => e.what === "forced drying") : [];
            const mean = seen.reduce((a, e) => a + e.change_GU, 0) / (seen.length || 1);
            return (
              <li key={t.id} className="grid grid-cols-[6.5em_1fr] gap-x-3 border-b border-hair py-2">
                <span className="font-semibold">{MOVES[t.moves]}</span>
                <span>
                  <InUnits>{t.what}</InUnits> <span className="text-[13px] text-ink2">{t.why}</span>
                  {seen.length > 0 && (
                    <span className="block text-[13px] font-medium text-glow-ink">
                      your cards: {mean > 0 ? "+" : "−"}
                      {Math.abs(mean).toFixed(1)} GU ({seen.map((e) => `${e.from} → ${e.to}`).join(", ")})
                    </span>
                  )}
                </span>
              </li>
            );
          })}
          {effects
            .filter((e) => e.what !== "forced drying")
            .map((e) => (
              <li key={e.from + e.to} className="grid grid-cols-[6.5em_1fr] gap-x-3 border-b border-hair py-2">
                <span className="font-semibold">{e.change_GU >= 0 ? MOVES.up : MOVES.down}</span>
                <span>
                  {e.what}{" "}
                  <span className="block text-[13px] font-medium text-glow-ink">
                    your cards: {e.change_GU >= 0 ? "+" : "−"}
                    {Math.abs(e.change_GU).toFixed(1)} GU ({e.from} → {e.to})
                  </span>
                </span>
              </li>
            ))}
        </ul>
      </section>
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Never convert matte gloss from one angle to another. Compare card and vehicle on a clean, undamaged place near the repair, in
        daylight, and let your eye decide last.
      </p>
    </>
  );
}

/** What moves the gloss of a matte, and what the cards show of it. */
function WhatMoves({ percent, taken }: { percent: (s: number) => string; taken: number }) {
  return <Tag kind="good">{percent(taken)} % taken: it stands in the mix</Tag>;
}
