/** A refusal with a stable code, a sentence a maker understands and, where one field is to blame, its dotted path. */
export class Failure extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly path?: string,
    /** What the caller needs to recover with, such as the current row of a stale write. */
    readonly detail?: Record<string, unknown>,
  ) {
    super(message);
    this.name = 'Failure';
  }
}
