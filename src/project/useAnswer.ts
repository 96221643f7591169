import { useEffect, useState } from 'react';
import { fail, ok, type Result } from '@/core/result';

/**
 * Asks the worker or the server once for as long as what the answer depends on stays the same.
 * @param key all that the answer depends on; null while there is nothing to ask
 * @returns the answer or why there is none; null while it is awaited
 */
export function useAnswer<T>(key: string | null, ask: () => Promise<T>): Result<T> | null {
  const [last, setLast] = useState<{ key: string; answer: Result<T> } | null>(null);
  useEffect(() => {
    if (key === null) return;
    let here = true;
    const hear = (answer: Result<T>) => {
      if (here) setLast({ key, answer });
    };
    ask().then(
      (value) => hear(ok(value)),
      (error: unknown) => hear(fail(error instanceof Error ? error.message : String(error))),
    );
    return () => {
      here = false;
    };
  }, [key]); // eslint-disable-line react-hooks/exhaustive-deps -- the key holds everything that the answer depends on
  return last !== null && last.key === key ? last.answer : null;
}

/** The key of an answer that depends on all these; null where one of them is not known yet. */
export const keyOf = (...parts: (string | null | undefined)[]): string | null =>
  parts.some((part) => part === null || part === undefined) ? null : JSON.stringify(parts);

/** What was answered; null while that is awaited and where there is none. */
export const valueOf = <T>(answer: Result<T> | null): T | null => (answer?.ok ? answer.value : null);
