import { format } from "date-fns";
import { data } from "react-router";
import QRCode from "qrcode";
import { containerAge } from "#core/models/product/container";
import { cardGloss } from "#core/models/cards/card";
import { serverContext } from "#server/running";
import { getCard } from "#server/repos/card-repo";
import { getContainer } from "#server/repos/container-repo";
import { listShelf } from "#server/repos/product-repo";
import type { Route } from "./+types/label.route";
import { LabelDesk } from "./label.desk";

export const meta: Route.MetaFunction = () => [{ title: "Label · Yakamoz" }];

export async function loader({ request, params: { kind, id } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const { origin } = new URL(request.url);
  const label = kind === "can" ? await canLabel(id) : kind === "card" ? await cardLabel(id) : null;
  if (!label) throw data("There is nothing by this name to label.", { status: 404 });
  return { ...label, svg: await QRCode.toString(`${origin}${label.path}`, { type: "svg", margin: 0, errorCorrectionLevel: "M" }) };

  async function canLabel(canId: string) {
    const can = await getContainer(ctx.db, canId);
    if (!can) return null;
    const product = (await listShelf(ctx.db)).find((p) => p.id === can.productId);
    const age = containerAge({ ...can, keepsDays: product?.sheet.keepsDays ?? null }, ctx.now_ms());
    return {
      path: `/shelf/cans/${can.id}`,
      title: product?.sheet.name ?? "Can",
      lines: [
        can.opened_ms === null ? "not opened" : `opened ${format(can.opened_ms, "d MMM yyyy")}`,
        Number.isFinite(age.keepsUntil_ms) ? `use by ${format(age.keepsUntil_ms, "d MMM yyyy")}` : "",
        can.batch && `batch ${can.batch}`,
      ].filter(Boolean),
    };
  }

  async function cardLabel(cardId: string) {
    const card = await getCard(ctx.db, cardId);
    if (!card) return null;
    const gloss = cardGloss(card.body, 60);
    return {
      path: `/cards/${card.id}`,
      title: `Card ${card.number}: ${card.body.name}`,
      lines: [
        card.body.mix,
        gloss === null ? "" : `${gloss.toFixed(1)} GU at 60°${card.simulated ? ", simulated" : ""}`,
        `${format(card.at_ms, "d MMM yyyy")} · ${card.by}`,
      ].filter(Boolean),
    };
  }
}
export default function Label({ loaderData }: Route.ComponentProps) {
  return <LabelDesk loaderData={loaderData} />;
}
