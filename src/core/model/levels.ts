import type { ElementRow } from '@/core/kinds/element';
import { levelsTied, retied } from '@/core/kinds/tie';
import { fail, ok, type Result } from '@/core/result';
import { formatLength } from '@/core/units/length';
import { put, remove, type Change, type Edit } from './edits';
import type { Model } from './model';
import type { DrawingRow, LevelRow, ProjectState } from './state';

/** What a level is until somebody says more. */
export const plainLevel = { kind: 'floor', buildUp: 0, slab: 0, repeats: null } as const satisfies Partial<LevelRow>;

/** Levels closer than this are one, metres. */
const sameElevation = 0.001;

/** Thousandths of a millimetre: sums of typed lengths come out clean. */
const tidy = (metres: number): number => Number(metres.toFixed(6));

/** The levels from the lowest up. */
export const levelsUp = (state: Pick<ProjectState, 'level'>): LevelRow[] =>
  Object.values(state.level).sort((a, b) => a.elevation - b.elevation);

/** Where the structure's top of a level lies; the finished floor is above it. */
export const structuralTop = ({ elevation, buildUp }: LevelRow): number => tidy(elevation - buildUp);

/** The level whose elements a level shows: itself, or the one that it repeats. */
export const sourceLevel = (state: Pick<ProjectState, 'level'>, levelId: string | null): string | null =>
  levelId === null ? null : (state.level[levelId]?.repeats ?? levelId);

/**
 * Where ties to levels lead once an element goes from one level to another: to levels as many storeys away; null where
 * there is none.
 */
export function tiesAlong(
  state: Pick<ProjectState, 'level'>,
  from: string | null,
  to: string | null,
): (level: string) => string | null {
  const all = levelsUp(state).map(({ id }) => id);
  const by = from === null || to === null ? 0 : all.indexOf(to) - all.indexOf(from);
  return (level) => (all.includes(level) ? (all[all.indexOf(level) + by] ?? null) : null);
}

/** The levels that repeat a level. */
export const followersOf = (state: Pick<ProjectState, 'level'>, levelId: string): LevelRow[] =>
  levelsUp(state).filter(({ repeats }) => repeats === levelId);

/** The elements seen on a level: its own or those of the level it repeats, and those of no level. */
export function elementsAt(model: Model, levelId: string | null): ElementRow[] {
  const source = sourceLevel(model, levelId);
  const own = source === null ? [] : model.index.onLevel(source);
  return [...model.index.onLevel(null), ...own];
}

/** Whether a drawing is shown on a level: it hangs there, or on the level that is repeated there. */
export function hangsOn(state: Pick<ProjectState, 'level'>, drawing: DrawingRow, levelId: string | null): boolean {
  const levels = [levelId, sourceLevel(state, levelId)];
  return levels.includes(drawing.levelId) || drawing.alsoOn.some((id) => levels.includes(id));
}

/** What hangs on a level itself. */
export function usesOf(
  model: Model,
  levelId: string,
): { drawings: DrawingRow[]; elements: number; followers: LevelRow[] } {
  return {
    drawings: Object.values(model.drawing).filter(
      (drawing) => drawing.levelId === levelId || drawing.alsoOn.includes(levelId),
    ),
    elements: model.index.countOnLevel(levelId),
    followers: followersOf(model, levelId),
  };
}

/** Every height is the distance to the next level; the topmost keeps its own. */
function withHeights(levels: readonly LevelRow[]): LevelRow[] {
  const up = [...levels].sort((a, b) => a.elevation - b.elevation);
  return up.map((level, i) =>
    i + 1 < up.length ? { ...level, height: tidy(up[i + 1].elevation - level.elevation) } : level,
  );
}

/** An edit that leaves the project with these levels, where they are sound. */
function levelsEdit(state: ProjectState, label: string, next: readonly LevelRow[], more: Change[] = []): Result<Edit> {
  const up = withHeights(next.map((level) => ({ ...level, elevation: tidy(level.elevation) })));
  const names = new Map<string, string>();
  for (const [i, level] of up.entries()) {
    if (i > 0 && level.elevation - up[i - 1].elevation < sameElevation)
      return fail(
        `${up[i - 1].name} and ${level.name} would both stand at ` +
          `${formatLength(level.elevation, 'm')}. Levels need different elevations; give one of them another.`,
      );
    const key = level.name.trim().toLowerCase();
    if (names.has(key)) return fail(`Two levels would be called ${level.name}. Give one of them another name.`);
    names.set(key, level.id);
  }
  const changed = up.filter((level) => JSON.stringify(state.level[level.id]) !== JSON.stringify(level));
  const kept = new Set(up.map(({ id }) => id));
  const gone = Object.keys(state.level).filter((id) => !kept.has(id));
  return ok({
    label,
    changes: [...changed.map((level) => put('level', level)), ...gone.map((id) => remove('level', id)), ...more],
  });
}

/** A name that no level has yet. */
function freshName(taken: readonly LevelRow[], wanted: string): string {
  const names = new Set(taken.map(({ name }) => name.toLowerCase()));
  if (!names.has(wanted.toLowerCase())) return wanted;
  let n = 2;
  while (names.has(`${wanted} ${n}`.toLowerCase())) n += 1;
  return `${wanted} ${n}`;
}

/**
 * A fresh level above or below another, a storey away. Levels that are in the way are shifted by its height: those
 * above up, those below down.
 * @param height of the new storey, metres; that of the level beside where it is not given
 */
export function insertLevel(
  state: ProjectState,
  besideId: string,
  where: 'above' | 'below',
  id: string,
  { name, height }: { name?: string; height?: number } = {},
): Result<Edit> {
  const beside = state.level[besideId];
  const all = levelsUp(state);
  const storey = height ?? beside.height;
  if (!(storey > 0)) return fail('A storey height of zero or less was given; type a height of more than zero.');
  const elevation = where === 'above' ? beside.elevation + beside.height : beside.elevation - storey;
  const inTheWay = (level: LevelRow) =>
    where === 'above' ? level.elevation > beside.elevation : level.elevation < beside.elevation;
  const shifted = all.map((level) =>
    inTheWay(level) ? { ...level, elevation: level.elevation + (where === 'above' ? storey : -storey) } : level,
  );
  const row: LevelRow = {
    id,
    name:
      name ??
      freshName(
        all,
        elevation < -sameElevation
          ? 'Basement'
          : `Level ${all.filter((level) => level.elevation >= -sameElevation && level.elevation < elevation).length}`,
      ),
    elevation,
    height: storey,
    kind: 'floor',
    buildUp: beside.buildUp,
    slab: beside.slab,
    repeats: null,
  };
  return levelsEdit(state, `Add ${row.name}`, [...shifted, row]);
}

/** At most this many storeys are repeated at once. */
const mostStoreys = 200;

/**
 * Repeats a storey upwards: n typical levels that follow it, each a height above the one below; levels above are
 * shifted.
 * @param newId gives a fresh UUID
 */
export function repeatStorey(
  state: ProjectState,
  levelId: string,
  count: number,
  height: number,
  newId: () => string,
): Result<Edit> {
  const level = state.level[levelId];
  if (!Number.isInteger(count) || count < 1 || count > mostStoreys)
    return fail(`A count of ${count} was given; type a whole number of storeys from 1 to ${mostStoreys}.`);
  if (!(height > 0)) return fail('A storey height of zero or less was given; type a height of more than zero.');
  const all = levelsUp(state);
  const rows: LevelRow[] = [];
  for (let i = 1; i <= count; i += 1)
    rows.push({
      ...level,
      id: newId(),
      name: freshName([...all, ...rows], `${level.name} ${i + 1}`),
      elevation: level.elevation + i * height,
      height,
      kind: 'floor',
      repeats: level.repeats ?? level.id,
    });
  const above = all.filter((other) => other.elevation > level.elevation);
  // The storey itself takes the height that is repeated.
  const shifted = all.map((other) =>
    other.elevation > level.elevation
      ? { ...other, elevation: other.elevation + (count + 1) * height - (above[0].elevation - level.elevation) }
      : other,
  );
  return levelsEdit(state, `Repeat ${level.name} ${count === 1 ? 'once' : `${count} times`}`, [...shifted, ...rows]);
}

/** Whether a level lies below ground, where heights are counted downwards. */
export const belowGround = ({ elevation }: Pick<LevelRow, 'elevation'>): boolean => elevation < -sameElevation / 2;

/**
 * Changes a level. The ground stays where it is: above it another height moves the next level, another elevation the
 * level itself; below it both
 * move the level.
 * @param shift whether the levels beyond, away from the ground, go along and keep their heights
 */
export function changeLevel(state: ProjectState, row: LevelRow, shift: boolean): Result<Edit> {
  if (!(row.height > 0))
    return fail('A height of zero or less was given; a level needs a height of more than zero to the next.');
  const all = levelsUp(state);
  const at = all.findIndex(({ id }) => id === row.id);
  const before = all[at];
  const grows = Math.abs(row.height - before.height) > sameElevation / 2;
  return belowGround(before) && at + 1 < all.length
    ? changeBelow(state, all, at, row, grows, shift)
    : changeAbove(state, all, at, row, grows, shift);
}

function changeAbove(
  state: ProjectState,
  all: readonly LevelRow[],
  at: number,
  row: LevelRow,
  grows: boolean,
  shift: boolean,
): Result<Edit> {
  const rise = row.elevation - all[at].elevation;
  if (shift && at > 0 && row.elevation < all[at - 1].elevation + sameElevation)
    return fail(
      `${row.name} and those above would come to lie on or below ${all[at - 1].name} at ` +
        `${formatLength(all[at - 1].elevation, 'm')}. Give a higher elevation, or move it alone.`,
    );
  const next = all.map((level, i): LevelRow => {
    if (i === at) return row;
    if (i > at && shift) return { ...level, elevation: level.elevation + rise };
    return level;
  });
  const above = at + 1 < next.length ? next[at + 1] : null;
  // Another height moves the next level to where it ends.
  if (above !== null && grows) {
    const by = row.elevation + row.height - above.elevation;
    const beyond = next[at + 2];
    if (!shift && beyond && above.elevation + by > beyond.elevation - sameElevation)
      return fail(
        `With this height ${above.name} would come to lie on or above ${beyond.name}. Shift the ` +
          'levels above along, or give a height of less than ' +
          `${formatLength(beyond.elevation - row.elevation, 'm')}.`,
      );
    for (let i = at + 1; i < next.length && (shift || i === at + 1); i += 1)
      next[i] = { ...next[i], elevation: next[i].elevation + by };
  }
  return levelsEdit(state, `Change ${row.name}`, next);
}

function changeBelow(
  state: ProjectState,
  all: readonly LevelRow[],
  at: number,
  row: LevelRow,
  grows: boolean,
  shift: boolean,
): Result<Edit> {
  const above = all[at + 1];
  const elevation =
    grows && Math.abs(row.elevation - all[at].elevation) < sameElevation / 2
      ? above.elevation - row.height
      : row.elevation;
  const fall = elevation - all[at].elevation;
  const under = all[at - 1];
  if (shift && elevation > above.elevation - sameElevation)
    return fail(
      `${row.name} and those below would come to lie on or above ${above.name} at ` +
        `${formatLength(above.elevation, 'm')}. Give a lower elevation, or move it alone.`,
    );
  if (!shift && grows && under && elevation < under.elevation + sameElevation)
    return fail(
      `With this height ${row.name} would come to lie on or below ${under.name}. Shift the ` +
        'levels below along, or give a height of less than ' +
        `${formatLength(above.elevation - under.elevation, 'm')}.`,
    );
  return levelsEdit(
    state,
    `Change ${row.name}`,
    all.map((level, i) => {
      if (i === at) return { ...row, elevation };
      if (i < at && shift) return { ...level, elevation: level.elevation + fall };
      return level;
    }),
  );
}

/** What becomes of the drawings and elements of a level that is taken away. */
export type Fate = { kind: 'move'; to: string } | { kind: 'drop' };

/**
 * Takes a level away. Its drawings and elements move to another level, or its elements go and its drawings hang on
 * none.
 * Levels that repeat it become their own. @param newId gives a fresh UUID
 */
export function removeLevel(state: Model, levelId: string, fate: Fate, newId: () => string): Result<Edit> {
  const level = state.level[levelId];
  if (Object.keys(state.level).length === 1)
    return fail(`${level.name} is the only level; a project needs at least one.`);
  const uses = usesOf(state, levelId);
  const to = fate.kind === 'move' ? fate.to : null;
  // Elements on a level that repeats another belong to the other.
  const seenOn = to !== null && state.level[to].repeats !== levelId ? sourceLevel(state, to) : to;
  const more: Change[] = uses.drawings.map((drawing) => {
    const alsoOn = [
      ...new Set(
        drawing.alsoOn.flatMap((id) => {
          if (id === levelId) {
            if (to === null) return [];
            return [to];
          }
          return [id];
        }),
      ),
    ];
    const own = drawing.levelId === levelId ? (to ?? alsoOn[0] ?? null) : drawing.levelId;
    return put('drawing', { ...drawing, levelId: own, alsoOn: alsoOn.filter((id) => id !== own) });
  });
  const own = [...state.index.onLevel(levelId)];
  const untied = (element: ElementRow): ElementRow => retied(element, (id) => (id === levelId ? null : id));
  for (const element of own)
    more.push(
      ...(to === null
        ? [remove('element', element.id), ...decisionsOf(state, element.id)]
        : [put('element', { ...untied(element), levelId: seenOn })]),
    );
  // What was tied to the level is as its own level has it.
  for (const element of Object.values(state.element))
    if (element.levelId !== levelId && levelsTied(element).includes(levelId))
      more.push(put('element', untied(element)));
  const copies = uses.followers.flatMap((follower) => copiesOf(state, own, follower.id, newId));
  const rest = levelsUp(state)
    .filter(({ id }) => id !== levelId)
    .map((other) => (other.repeats === levelId ? { ...other, repeats: null } : other));
  return levelsEdit(state, `Delete ${level.name}`, rest, [...more, ...copies]);
}

/** Copies of elements on another level; copied openings are in the copies of their walls. */
export function copiesOf(
  state: ProjectState,
  elements: readonly ElementRow[],
  levelId: string,
  newId: () => string,
): Change[] {
  const ids = new Map(elements.map(({ id }) => [id, newId()]));
  return elements.map((element) => {
    const carried = retied(element, tiesAlong(state, element.levelId, levelId));
    const copy = { ...carried, id: ids.get(element.id)!, levelId };
    if (copy.kind !== 'opening') return put('element', copy);
    return put('element', { ...copy, shape: { ...copy.shape, wall: ids.get(copy.shape.wall) ?? copy.shape.wall } });
  });
}

/** Decisions that made an element: without it the candidates are open again. */
export const decisionsOf = (model: Model, elementId: string): Change[] =>
  Array.from(model.decisionsOf(elementId), ({ id }) => remove('decision', id));

/** An elevation that was read, and the level it is meant for; a new one where that is null. */
export interface ReadElevation {
  name: string;
  elevation: number;
  levelId: string | null;
}

/** The levels as a section says: existing ones moved, others added. @param newId gives a fresh UUID */
export function takeElevations(state: ProjectState, read: readonly ReadElevation[], newId: () => string): Result<Edit> {
  const all = levelsUp(state);
  const given = new Map(
    read.flatMap((mark) => (mark.levelId === null ? [] : [[mark.levelId, mark.elevation] as const])),
  );
  const moved = all.map((level) => ({ ...level, elevation: given.get(level.id) ?? level.elevation }));
  const added: LevelRow[] = [];
  for (const { name, elevation, levelId } of read)
    if (levelId === null)
      added.push({
        id: newId(),
        name: freshName([...all, ...added], name),
        elevation,
        height: all[all.length - 1]?.height ?? 3,
        ...plainLevel,
      });
  return levelsEdit(state, `Levels as the section says`, [...moved, ...added]);
}
