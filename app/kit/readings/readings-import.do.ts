import { data } from "react-router";
import { z } from "zod";
import { PHASES, type Phase } from "#core/record/kinds";
import { importReadings, isThereAlready } from "#server/commands/import-readings";
import { strikeEntries } from "#server/commands/record-entry";
import { acting, inWords } from "~/kit/form/in-words.server";
import { keepProfile, profileFor } from "#server/commands/import-profiles";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/running";
import { type FilePreview, type Problem, ROLES, previewReadings, readReadings } from "#server/interchange/readings-csv";
import { readPrefs } from "~/kit/http/prefs.server";
import { panelAloneOr404 } from "~/kit/http/panel.server";
import { jsonBodyOf } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import type { Route } from "./+types/readings-import.do";

export interface ImportAnswer {
  step: "preview" | "import" | "undo";
  preview: FilePreview | null;
  problems: Problem[];
  problemCount: number;
  imported: number | null;
  /** What an undo takes out again. */
  entryIds?: string[];
  /** All of it is on the panel already: asked about before it is doubled. */
  thereAlready?: boolean;
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
    /** The painter has seen that it is all there already. */
    again: z.boolean().default(false),
  }),
  z.object({ step: z.literal("undo"), entryIds: z.array(z.string()).min(1).max(5000) }),
]);

export const action = acting(
  async ({ request, params: { panelId } }: Route.ActionArgs): Promise<ImportAnswer | ReturnType<typeof data<ImportAnswer>>> => {
    const parsed = body.safeParse(await jsonBodyOf(request));
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
    const ctx = await serverContext();
    if (input.step === "undo") {
      const { by } = await readPrefs(request);
      await panelAloneOr404(ctx, panelId);
      return inWords(async () => {
        await strikeEntries(ctx, panelId, { entryIds: input.entryIds, by, reason: "import undone" });
        return answer({});
      }) as Promise<ImportAnswer>;
    }
    const look = previewReadings(input.text);
    if (!look.ok) return data(answer(look), { status: 422 });
    if (input.step === "preview") {
      const known = await profileFor(ctx, look.value.columns);
      return answer({ preview: known ? { ...look.value, roles: known.roles, filmUnit: known.filmUnit } : look.value });
    }
    const view = await panelAloneOr404(ctx, panelId);
    const { by } = await readPrefs(request);
    const file = readReadings(input.text, { ...input, outline: view.panel.shape.outline, spots: view.spotPlan });
    if (!file.ok) return data(answer({ ...file, preview: look.value }), { status: 422 });
    if (!input.again && (await isThereAlready(ctx, panelId, file.value, input.clientKey)))
      return data(answer({ preview: look.value, thereAlready: true }), { status: 409 });
    try {
      await keepProfile(ctx, { columns: look.value.columns, roles: input.roles, filmUnit: input.filmUnit });
      const { count, entryIds } = await importReadings(ctx, { panelId, spots: file.value, by, clientKey: input.clientKey });
      return answer({ imported: count, entryIds });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      return data(answer({ preview: look.value, problems: [{ line: 1, column: null, reason: error.message }], problemCount: 1 }), {
        status: error.status,
      });
    }
  },
);

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
