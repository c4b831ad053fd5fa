/** A command that could not be carried out for a reason the user can act on. Routes turn it into a message at the field. */
export class Refusal extends Error {
  constructor(
    readonly field: string | null,
    message: string,
  ) {
    super(message);
    this.name = "Refusal";
  }
}
