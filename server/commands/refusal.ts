/** A command that could not be carried out for a reason the user can act on. Routes turn it into a message at the field. */
export class Refusal extends Error {
  constructor(
    readonly field: string | null,
    message: string,
    /** HTTP status of the answer: 409, what was asked does not fit what is there. */
    readonly status = 409,
  ) {
    super(message);
    this.name = "Refusal";
  }
}

/**
 * What a form was filled in on is not what stands there now: another window, or another person, was first. Nothing is overwritten; the form is told
 * what stands there, and its version, and may be sent again upon that.
 */
export class ChangedMeanwhile<T = unknown> extends Refusal {
  constructor(
    /** What stands there now, and the version that a form upon it sends. */
    readonly there: T,
    readonly version: string,
  ) {
    super(
      null,
      "This was changed in another window meanwhile. Nothing was overwritten; at each field stands what is there now. Send it again to put yours in its place.",
    );
  }
}

/** @throws ChangedMeanwhile where a form was filled in on another version than what stands there; a form that names none is let through */
export function refuseOther<T>(expected: string | null, there: T, version: string): void {
  if (expected !== null && expected !== version) throw new ChangedMeanwhile(there, version);
}
