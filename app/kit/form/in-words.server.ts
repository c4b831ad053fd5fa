import { data } from "react-router";
import { Refusal } from "#server/commands/refusal";
import type { FormAnswer } from "./answer";

/** A refusal as a form's answer: in words, at its field, with the status that says whose doing it is. */
export const refusalAnswer = (error: Refusal, intent = "") =>
  data<FormAnswer>(
    { ok: false, intent, message: error.message, errors: error.field ? { [error.field]: [error.message] } : {} },
    { status: error.status },
  );

/** What an action does, with a refusal answered in words instead of thrown; anything else passes. */
export async function inWords<T>(carryOut: () => Promise<T>): Promise<T | ReturnType<typeof refusalAnswer>> {
  try {
    return await carryOut();
  } catch (error) {
    if (error instanceof Refusal) return refusalAnswer(error);
    throw error;
  }
}
