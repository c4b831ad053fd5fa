import { data } from "react-router";
import type { FormAnswer } from "~/forms/answer";
import { announceAnswer } from "./answer-event";

/**
 * Calls a server action; when the server cannot be reached the page stays as it is with a message, and what was typed stays too. Anything
 * the server does answer (redirects, messages, faults) passes unchanged.
 */
export async function guardedAction<T>(serverAction: () => Promise<T>): Promise<T | ReturnType<typeof data<FormAnswer>>> {
  try {
    const answer = await serverAction();
    announceAnswer(answer);
    return answer;
  } catch (error) {
    if (!(error instanceof TypeError)) throw error; // what fetch throws without a connection
    const message = "The server does not answer. Nothing was stored from this form; it is still here. Try again.";
    return data({ ok: false, intent: "", message, errors: {} }, { status: 503 });
  }
}
