import { data } from "react-router";
import { serverContext } from "#server/running";
import { shelfToCsv, shelfToJson } from "#server/interchange/shelf-file";
import { listShelf } from "#server/repos/product-repo";
import type { Route } from "./+types/shelf-file.do";

/** The shelf as a file, JSON whole or CSV with the main figures. */
export async function loader({ params: { format } }: Route.LoaderArgs) {
  const sheets = (await listShelf((await serverContext()).db)).map((p) => p.sheet);
  if (format === "json") return file(shelfToJson(sheets), "application/json");
  if (format === "csv") return file(shelfToCsv(sheets), "text/csv; charset=utf-8");
  throw data("The shelf comes as json or csv.", { status: 404 });
}

const file = (text: string, type: string) =>
  new Response(text, { headers: { "Content-Type": type, "Content-Disposition": "attachment", "Cache-Control": "no-store" } });
