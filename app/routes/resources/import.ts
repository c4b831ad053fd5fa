import { data } from "react-router";
import { z } from "zod";
import { PHASES, type Phase } from "#core/ledger/kinds";
import { importReadings } from "#server/commands/import-readings";
import { keepProfile, profileFor } from "#server/commands/import-profiles";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/context";
import { type FilePreview, type Problem, ROLES, previewReadings, readReadings } from "#server/interchange/readings-csv";
import { readPrefs } from "~/lib/prefs.server";
import { panelAloneOr404 } from "~/lib/panel.server";
import type { Route } from "./+types/import";

export interface ImportAnswer {
  step: "preview" | "import";
  preview: FilePreview | null;
  problems: Problem[];
  problemCount: number;
  imported: number | null;
}

const body = z.discriminatedUnion("step", [
  z.object({ step: z.literal("preview"), text: z.string() }),
  z.object({
    step: z.literal("import"),
    text: z.string(),
    roles: z.array(z.enum(ROLES)),
    phase: z.enum(Object.keys(PHASES) as [Phase, ...Phase[]]),
    filmUnit: z.enum(["µm", "mil"]),
    lengthUnit: z.enum(["mm", "in"]),
    clientKey: z.string().max(200),
  }),
]);

export async function action({
  request,
  params: { panelId },
}: Route.ActionArgs): Promise<ImportAnswer | ReturnType<typeof data<ImportAnswer>>> {
  const parsed = body.safeParse(await request.json());
  if (!parsed.success) throw data("Not understood", { status: 400 });
  const input = parsed.data;
  const answer = (change: Partial<ImportAnswer>): ImportAnswer => ({
    step: input.step,
    preview: null,
    problems: [],
    problemCount: 0,
    imported: null,
    ...change,
  });
  const look = previewReadings(input.text);
  if (!look.ok) return data(answer(look), { status: 422 });
  const ctx = await serverContext();
  if (input.step === "preview") {
    const known = await profileFor(ctx, look.value.columns);
    return answer({ preview: known ? { ...look.value, roles: known.roles, filmUnit: known.filmUnit } : look.value });
  }
  const view = await panelAloneOr404(ctx, panelId);
  const { by } = await readPrefs(request);
  const file = readReadings(input.text, { ...input, outline: view.panel.shape.outline, spots: view.spotPlan });
  if (!file.ok) return data(answer({ ...file, preview: look.value }), { status: 422 });
  try {
    const imported = await importReadings(ctx, { panelId, spots: file.value, by, clientKey: input.clientKey });
    await keepProfile(ctx, { columns: look.value.columns, roles: input.roles, filmUnit: input.filmUnit });
    return answer({ imported });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return data(answer({ preview: look.value, problems: [{ line: 1, column: null, reason: error.message }], problemCount: 1 }), {
      status: 409,
    });
  }
}
