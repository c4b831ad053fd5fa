import { JSDOM } from "jsdom";
import type { TrialServer } from "./harness";
import { pickBy } from "./harness";

/** A form as a page offers it, filled in: what a press of one of its buttons sends. */
export interface WholeForm {
  /** Page it stands on, where it is sent, and its fields in their order. */
  page: string;
  action: string;
  fields: [name: string, value: string][];
  file: boolean;
}

/** What somebody would type where a page leaves a field empty, by the field's name; metric. */
const TYPICAL: readonly (readonly [RegExp, string])[] = [
  [/^(value|zero)$/, "131 129 130"],
  [/^onFoil$/, "150 151"],
  [/^foil$/, "150"],
  [/^(air|part|material|room|temperature)$/, "21"],
  [/humidity/, "50"],
  [/^(fluidRate)$/, "230"],
  [/turns/i, "2"],
  [/pressure/i, "1.9"],
  [/distance/, "175"],
  [/overlap/, "50"],
  [/speed/i, "0.34"],
  [/^(wet|film|removal|height|dry)/, "40"],
  [/^(width|length|reach)/, "300"],
  [/time|purge|ramp|hold|flash|potLife|sand|bake/i, "15"],
  [/grit/i, "600"],
  [/rating|texture/, "2"],
  [/gloss|target/i, "60"],
  [/volume|amount|size|left/, "500"],
  [/date|opened|at$/, "2026-11-20"],
  [/name|vehicle|batch|place|spot|gauge|meter|plate|customer|code/i, "trial"],
  [/note|text|reason/, "a word"],
];
const typical = (name: string, kind: string): string =>
  kind === "date"
    ? "2026-11-20"
    : kind === "datetime-local"
      ? "2026-11-20T10:00"
      : (TYPICAL.find(([pattern]) => pattern.test(name))?.[1] ?? "1");

/** Every form of a page that is posted, once for each of its buttons, with its empty fields filled in. */
export async function formsOf(server: TrialServer, page: string): Promise<WholeForm[]> {
  const { status, body } = await server.ask(page);
  if (status !== 200) return [];
  const { document } = new JSDOM(body).window;
  const forms: WholeForm[] = [];
  for (const form of document.querySelectorAll("form")) {
    if ((form.getAttribute("method") ?? "get").toLowerCase() !== "post") continue;
    const action = form.getAttribute("action") || page;
    const fields: [string, string][] = [];
    const buttons: [string, string][] = [];
    let file = false;
    for (const el of form.elements) {
      const name = el.getAttribute("name");
      const kind = (el.getAttribute("type") ?? el.tagName).toLowerCase();
      if (el.tagName === "BUTTON") {
        if (name && kind !== "button") buttons.push([name, el.getAttribute("value") ?? ""]);
        continue;
      }
      if (!name) continue;
      const input = el as HTMLInputElement;
      if (kind === "file") file = true;
      else if (kind === "checkbox" || kind === "radio") {
        if (input.checked) fields.push([name, input.value]);
      } else fields.push([name, input.value || (kind === "hidden" ? "" : typical(name, kind))]);
    }
    for (const button of buttons.length > 0 ? buttons : [null])
      forms.push({ page, action, fields: button ? [...fields, button] : fields, file });
  }
  return forms;
}

/** Values far from what a field is for. */
const FAR = [
  "",
  " ",
  "0",
  "-1",
  "1e-9",
  "1e9",
  "131 480 129",
  "1 3000",
  "99999999999999999999",
  "NaN",
  "text",
  "2:1",
  "5,1 mil",
  "70 °F",
  "null",
  "[]",
  "{",
  "2200-01-01",
  "1969-01-01T00:00",
  "\u0000",
  "💧",
  "x".repeat(500),
  "http://elsewhere.test/",
  "//elsewhere.test",
  "/x\r\ny: z",
  "Ł",
  "constructor",
  "__proto__",
] as const;

/** The form with one field changed: far out, tiny, empty, text, other units, another's choice; a field twice, or none of it. */
export function oneFieldChanged(form: WholeForm, random: () => number): WholeForm {
  const pick = pickBy(random);
  if (form.fields.length === 0) return form;
  const at = Math.floor(random() * form.fields.length);
  const [name, value] = form.fields[at]!;
  const number = Number(value.replace(",", "."));
  const scaled =
    Number.isFinite(number) && value !== ""
      ? [number * 10, number * 1000, number / 1000, -number, number * 0.2, number * 3].map(String)
      : [];
  const changed = scaled.length > 0 && random() < 0.5 ? pick(scaled) : pick(FAR);
  const how = random();
  const fields: [string, string][] =
    how < 0.06
      ? form.fields.filter((_, i) => i !== at)
      : how < 0.1
        ? [...form.fields, [name, changed]]
        : form.fields.map((f, i) => (i === at ? [name, changed] : f));
  return { ...form, fields };
}
