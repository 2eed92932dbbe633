/** An expected failure, or its absence: made by `ok` and `err`, read by testing `ok`. */
export type Result<T, E> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

/** A success carrying `value`. */
export const ok = <T>(value: T): Result<T, never> => ({ ok: true, value });

/** An expected failure carrying what was wrong. */
export const err = <E>(error: E): Result<never, E> => ({ ok: false, error });
