import { nanoid } from "nanoid";
import { data } from "react-router";
import type { z } from "zod";
import { ChangedMeanwhile } from "#server/commands/refusal";
import { asRefusal, refusalAnswer } from "./in-words.server";
import { errorsByField } from "./fields";

/** What an action says when something typed was not accepted: messages by field; the page keeps what was typed. */
export interface FormAnswer {
  ok: boolean;
  /** Which of a page's forms this answers. */
  intent: string;
  message: string | null;
  errors: Record<string, string[]>;
  /** Entry made, for an undo. */
  entryId?: string;
  /** Further entries made with it, of the same panel or of others: undone together. */
  also?: readonly string[];
  /** Changes with every accepted form, so that a page can clear it. */
  done?: string;
  /** The version that stands there now, where another window was first: sent again upon it, the form is stored. */
  version?: string;
}

/** Form fields as Zod wants them: absent stays absent, a name sent more than once is a list. */
export function fieldsOf(form: FormData): Record<string, unknown> {
  const lists = new Map<string, FormDataEntryValue[]>();
  for (const [name, value] of form) {
    const list = lists.get(name);
    if (list) list.push(value);
    else lists.set(name, [value]);
  }
  return Object.fromEntries([...lists].map(([name, list]) => [name, list.length > 1 ? list : list[0]]));
}

/**
 * Reads a form with its schema and carries the command out; wrong fields and refusals come back as messages, nothing else is caught.
 */
export async function answerForm<S extends z.ZodType>(
  form: FormData,
  schema: S,
  carryOut: (value: z.infer<S>) => Promise<{ entryId?: string; also?: readonly string[]; message?: string } | void>,
  shows?: Shows,
): Promise<FormAnswer | ReturnType<typeof data<FormAnswer>>> {
  const intent = textOf(form, "intent");
  const parsed = schema.safeParse(fieldsOf(form));
  if (!parsed.success) {
    return data({ ok: false, intent, message: null, errors: errorsByField(parsed.error) }, { status: 422 });
  }
  try {
    const result = (await carryOut(parsed.data)) ?? {};
    return {
      ok: true,
      intent,
      message: result.message ?? null,
      errors: {},
      ...(result.entryId ? { entryId: result.entryId } : {}),
      ...(result.also?.length ? { also: result.also } : {}),
      done: nanoid(),
    };
  } catch (error) {
    if (error instanceof ChangedMeanwhile) return changedAnswer(error, form, intent, shows);
    const refusal = asRefusal(error);
    if (!refusal) throw error;
    return refusalAnswer(refusal, intent);
  }
}

/** A field as it starts, and how a choice is said whose value is a key. */
export type ShownField = string | { value: string; said: string };
/** What a form would show of what stands there, by its fields: the very texts that it starts with. */
export type Shows = (there: never) => Record<string, ShownField>;

/** Another window was first: beside each field that differs stands what is there now; what was typed stays. */
function changedAnswer(error: ChangedMeanwhile, form: FormData, intent: string, shows?: Shows) {
  const there = shows ? shows(error.there as never) : {};
  const errors = Object.fromEntries(
    Object.entries(there).flatMap(([name, field]) => {
      const { value, said } = typeof field === "string" ? { value: field, said: field } : field;
      return form.has(name) && textOf(form, name) !== value ? [[name, [`There now: ${said === "" ? "nothing" : said}`]]] : [];
    }),
  );
  return data<FormAnswer>({ ok: false, intent, message: error.message, errors, version: error.version }, { status: error.status });
}

/** The version of what a form was filled in on, as it says; null where it says none. */
export const versionIn = (form: FormData): string | null => textOf(form, "version") || null;

/** One text field of a form; a file or nothing is an empty text. */
export function textOf(form: FormData, name: string): string {
  const value = form.get(name);
  return typeof value === "string" ? value : "";
}
