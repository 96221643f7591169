import { useCallback, useEffect, useState } from 'react';
import { api } from './api';
import { useSession } from './useSession';

/**
 * What is kept on the server for every project, by name.
 *
 * @param path where it is asked for; the answer holds the list as `key`
 * @returns the list, and `act`, which does some work on it, says what was done or what went wrong, and asks again
 */
export function useShelf<Kept, Key extends string>(path: string, key: Key) {
  const { tell } = useSession();
  const [kept, setKept] = useState<Kept[]>([]);
  const load = useCallback(
    () =>
      api<Record<Key, Kept[]>>(path).then(
        (answer) => setKept(answer[key]),
        () => undefined,
      ),
    [path, key],
  );
  useEffect(() => {
    void load();
  }, [load]);
  const act = (work: Promise<unknown>, done: string) =>
    void work.then(
      () => {
        tell({ kind: 'info', text: done });
        return load();
      },
      (error: Error) => tell({ kind: 'problem', text: error.message }),
    );
  return { kept, act };
}
