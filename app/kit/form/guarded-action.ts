import { data, isRouteErrorResponse } from "react-router";
import type { FormAnswer } from "./answer";
import { announceAnswer } from "./answer-event";

/** Statuses that are an answer of the server about what was sent: the page may show them at the form. */
const isAnswer = (status: number) => status >= 400 && status < 500;

const NO_ANSWER = "The server does not answer. Nothing was stored from this form; it is still here. Try again.";
const FAULT = "The server could not carry this out; it stands in its log. What you typed is still here. Try again.";

/** What a failed action means for the form that sent it, in words; `mayBeStored` where the server gave no answer about it. */
export function wordsOfFailure(error: unknown): { message: string; status: number } | null {
  if (isRouteErrorResponse(error)) {
    const said = typeof error.data === "string" && error.data !== "" && error.data.length < 400 ? error.data : null;
    return { message: said ?? (isAnswer(error.status) ? error.statusText || "Not understood" : FAULT), status: error.status };
  }
  if (error instanceof TypeError) return { message: NO_ANSWER, status: 503 }; // what fetch throws without a connection
  if (error instanceof Error) return { message: FAULT, status: 500 };
  return null;
}

/**
 * Calls a server action; when the server cannot be reached, turns the form away or fails, the page stays as it is with a message, and what
 * was typed stays too. Redirects and answers pass unchanged.
 */
export async function guardedAction<T>(serverAction: () => Promise<T>): Promise<T | ReturnType<typeof data<FormAnswer>>> {
  try {
    const answer = await serverAction();
    announceAnswer(answer);
    return answer;
  } catch (error) {
    const failure = wordsOfFailure(error);
    if (!failure) throw error;
    const answer: FormAnswer = { ok: false, intent: "", message: failure.message, errors: {} };
    announceAnswer(answer);
    return data(answer, { status: failure.status });
  }
}
