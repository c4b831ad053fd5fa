import { data } from "react-router";
import { z } from "zod";
import { Refusal } from "#server/commands/refusal";
import type { FormAnswer } from "./answer";

/** A refusal as a form's answer: in words, at its field, with the status that says whose doing it is. */
export const refusalAnswer = (error: Refusal, intent = "") =>
  data<FormAnswer>(
    { ok: false, intent, message: error.message, errors: error.field ? { [error.field]: [error.message] } : {} },
    { status: error.status },
  );

/** An error as a refusal in words: a command's own, or that of a model or a schema that cannot work with what was sent. Null: a fault. */
export function asRefusal(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  if (error instanceof z.ZodError) {
    const [issue] = error.issues;
    return new Refusal(issue?.path.join(".") || null, issue?.message ?? "Not understood", 422);
  }
  return error instanceof RangeError
    ? new Refusal(null, `These figures cannot be worked with: ${error.message}. Nothing was stored.`, 422)
    : null;
}

/** What an action does, with a refusal answered in words instead of thrown; anything else passes. */
export async function inWords<T>(carryOut: () => Promise<T>): Promise<T | ReturnType<typeof refusalAnswer>> {
  try {
    return await carryOut();
  } catch (error) {
    const refusal = asRefusal(error);
    if (refusal) return refusalAnswer(refusal);
    throw error;
  }
}

/**
 * Every action of the program stands in this guard: whatever a command refuses, wherever in the action, is answered in words, with the status that
 * says whose doing it is. A rule of lint lets no action stand outside.
 */
export const acting =
  <A extends unknown[], T>(action: (...args: A) => Promise<T>) =>
  (...args: A): Promise<T | ReturnType<typeof refusalAnswer>> =>
    inWords(() => action(...args));
