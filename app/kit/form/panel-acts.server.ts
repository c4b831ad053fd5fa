import { data } from "react-router";
import { serverContext } from "#server/running";
import type { Act, ActAnswer } from "./act";
import { formOf } from "~/kit/http/body.server";
import { panelOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";

interface PanelRequest {
  request: Request;
  params: { jobId: string; panelId: string };
}

/** The action of a page of a panel: the first act that the form belongs to carries it out; one that belongs to none is not understood. */
export const panelActs =
  (...acts: readonly Act[]) =>
  async ({ request, params: { jobId, panelId } }: PanelRequest): Promise<ActAnswer> => {
    const ctx = await serverContext();
    const form = await formOf(request);
    const at = { jobId, panelId, look: () => panelOr404(ctx, jobId, panelId) };
    const sender = await formPrefs(request, form);
    for (const act of acts) {
      const answer = await act(ctx, at, form, sender);
      if (answer) return answer;
    }
    throw data("Not understood", { status: 400 });
  };
