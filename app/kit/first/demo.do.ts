import { createCookie, data, redirectDocument } from "react-router";
import { demoShop, dropDemo } from "#server/looking";
import { textOf } from "~/kit/form/answer";
import { acting } from "~/kit/form/in-words.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { LOOK_COOKIE } from "~/kit/http/look-cookie";
import type { Route } from "./+types/demo.do";

const cookie = createCookie(LOOK_COOKIE, { path: "/", sameSite: "lax", httpOnly: true });

/** Goes to look at the invented shop, or throws it away and comes back. */
export const action = acting(async ({ request }: Route.ActionArgs) => {
  switch (textOf(await formOf(request), "intent")) {
    case "look":
      await demoShop();
      return redirectDocument("/", { headers: { "Set-Cookie": await cookie.serialize("demo") } });
    case "throwAway":
      await dropDemo();
      return redirectDocument("/", { headers: { "Set-Cookie": await cookie.serialize("", { maxAge: 1 }) } });
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
