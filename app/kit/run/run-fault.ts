/** What a painter is told when a calculation in the worker came to nothing; null when there is nothing to say (none failed, or he stopped it). */
export function faultInWords(error: Error | null): string | null {
  if (!error || ["AbortError", "CancelledError"].includes(error.name)) return null;
  if (error instanceof RangeError) return error.message;
  return `This device could not work it out (${error.message}). What you typed is kept; load the page again.`;
}
