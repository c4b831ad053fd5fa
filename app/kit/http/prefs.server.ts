import { createCookie, data } from "react-router";
import { z } from "zod";
import { METRIC } from "#core/kernel/units/quantities";
import { currentActor } from "#server/access/actor";
import { unitPreferences } from "#server/repos/shop-repo";

const shape = {
  theme: z.enum(["booth", "night"]),
  units: unitPreferences,
  sound: z.boolean(),
  by: z.string().trim().min(1).max(40),
};
const prefsSchema = z.object(shape);
/** What a screen may change; a key that is not sent stays as it was. */
export const prefsChange = prefsSchema.partial();
export type Prefs = z.infer<typeof prefsSchema>;
const DEFAULTS: Prefs = { theme: "booth", units: METRIC, sound: false, by: "painter A" };

const cookie = createCookie("yakamoz-prefs", { path: "/", sameSite: "lax", maxAge: 60 * 60 * 24 * 365 });

/** What this screen prefers; the shop's units until it has chosen its own. */
export async function readPrefs(request: Request, shopUnits: Prefs["units"] = METRIC): Promise<Prefs> {
  const raw: unknown = await cookie.parse(request.headers.get("Cookie"));
  const chosen = prefsChange.safeParse(raw ?? {});
  const { name } = currentActor();
  return { ...DEFAULTS, units: shopUnits, ...(chosen.success ? chosen.data : {}), ...(name === null ? {} : { by: name }) };
}

/** The cookie for a change on top of what this screen has chosen before. */
export async function writePrefs(request: Request, change: Partial<Prefs>): Promise<string> {
  const raw: unknown = await cookie.parse(request.headers.get("Cookie"));
  const chosen = prefsChange.safeParse(raw ?? {});
  return cookie.serialize({ ...(chosen.success ? chosen.data : {}), ...change });
}

/** Who is at the screen and the units in which a form was filled in: those it says itself, else the screen's. */
export async function formPrefs(
  request: Request,
  form: FormData,
  shopUnits: Prefs["units"] = METRIC,
): Promise<Pick<Prefs, "by" | "units">> {
  const prefs = await readPrefs(request, shopUnits);
  const sent = form.get("units");
  if (typeof sent !== "string") return prefs;
  try {
    return { by: prefs.by, units: unitPreferences.parse(JSON.parse(sent)) };
  } catch {
    throw data("The form's units are not understood", { status: 400 });
  }
}
