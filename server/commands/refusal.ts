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
