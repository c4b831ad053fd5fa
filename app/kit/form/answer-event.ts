import type { FormAnswer } from "./answer";

const NAME = "yakamoz:answer";

const isAnswer = (value: unknown): value is FormAnswer => typeof value === "object" && value !== null && "ok" in value && "intent" in value;

/** Hands what an action answered to whoever listens: the form that asked may be gone by the time the answer comes. */
export function announceAnswer(value: unknown): void {
  if (isAnswer(value)) window.dispatchEvent(new CustomEvent(NAME, { detail: value }));
}

/** Listens to every answer of an action. @returns what stops it */
export function onAnswer(listener: (answer: FormAnswer) => void): () => void {
  const hear = (e: Event) => listener((e as CustomEvent<FormAnswer>).detail);
  window.addEventListener(NAME, hear);
  return () => window.removeEventListener(NAME, hear);
}
