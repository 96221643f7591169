import { fail, ok, type Result } from '@/core/result';
import { put, remove, type Edit } from './edits';
import { copiesOf, decisionsOf, followersOf, sourceLevel } from './levels';
import type { Model } from './model';

/**
 * Ends a level's following: it gets the elements of the level it repeated as its own.
 * @param newId gives a fresh UUID
 */
export function makeOwn(state: Model, levelId: string, newId: () => string): Edit {
  const level = state.level[levelId];
  const copies = level.repeats === null ? [] : copiesOf(state, [...state.index.onLevel(level.repeats)], levelId, newId);
  return { label: `${level.name} is its own`, changes: [put('level', { ...level, repeats: null }), ...copies] };
}

/** Lets a level repeat another: its own elements go, those of the other are seen on it. */
export function follow(state: Model, levelId: string, otherId: string): Result<Edit> {
  const [level, root] = [state.level[levelId], sourceLevel(state, otherId)!];
  if (root === levelId)
    return fail(
      `${state.level[otherId].name} repeats ${level.name} already; a level cannot repeat ` +
        `itself. Make ${state.level[otherId].name} its own first.`,
    );
  const own = [...state.index.onLevel(levelId)];
  // What followed this level follows the other from now on.
  const followers = followersOf(state, levelId).map((follower) => put('level', { ...follower, repeats: root }));
  return ok({
    label: `${level.name} repeats ${state.level[root].name}`,
    changes: [
      put('level', { ...level, repeats: root }),
      ...followers,
      ...own.flatMap((element) => [remove('element', element.id), ...decisionsOf(state, element.id)]),
    ],
  });
}
