/** The outcome of something that a person's input can make fail: a value, or a sentence saying why not. */
export type Result<T> = { ok: true; value: T } | { ok: false; message: string };

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

/** @param message what was found, what was expected, and what to do */
export const fail = (message: string): { ok: false; message: string } => ({ ok: false, message });
