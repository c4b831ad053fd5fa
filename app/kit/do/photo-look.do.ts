import { acting } from "~/kit/form/in-words.server";
import { data } from "react-router";
import { pictureToLookAt } from "#server/commands/photos";
import { Refusal } from "#server/commands/refusal";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/photo-look.do";

/** A picture made ready to be counted in; nothing is stored. What is no picture is refused in words. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  const sent = (await formOf(request)).get("file");
  if (!(sent instanceof File)) return data({ reason: "No file was sent" }, { status: 422 });
  try {
    const jpeg = await pictureToLookAt({ name: sent.name, bytes: new Uint8Array(await sent.arrayBuffer()) });
    return new Response(new Uint8Array(jpeg), { headers: { "Content-Type": "image/jpeg", "Cache-Control": "no-store" } });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return new Response(JSON.stringify({ reason: error.message }), { status: 422, headers: { "Content-Type": "application/json" } });
  }
});
