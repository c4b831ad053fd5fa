/** What a painter is told when a calculation in the worker came to nothing; null when there is nothing to say (none failed, or he stopped it). */
export function faultInWords(error: unknown): string | null {
  if (!error || (error instanceof Error && ["AbortError", "CancelledError"].includes(error.name))) return null;
  if (error instanceof RangeError) return error.message;
  const said = error instanceof Error ? error.message : String(error);
  return `This device could not work it out (${said}). What you typed is kept; load the page again.`;
}
