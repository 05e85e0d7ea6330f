/** Outcomes of computations that can fail for a known reason: errors are values, not exceptions. */
export type Result<T, E> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

export const succeed = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const fail = <E>(error: E): { ok: false; error: E } => ({ ok: false, error });

/** One thing wrong with an input document: where (RFC 6901 pointer) and what, in words for a person. */
export interface InputProblem {
  readonly pointer: string;
  readonly message: string;
}

/** A value that its own checks rule out; reaching it is a fault of the program. */
export function unreachable(value: never): never {
  throw new Error(`unreachable: ${JSON.stringify(value)}`);
}
