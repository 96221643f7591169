import type { Likeness } from '@/core/sorting/alike';
import { answerWords, asksAlike, type Answer } from '@/core/sorting/answers';
import { roleNames, type Role } from '@/core/sorting/roles';
import { put, remove, type Edit } from './edits';
import type { DrawingRow, PickRow, ProjectState } from './state';

/** What was picked of a drawing, by name: roles of blocks, of lines and of all that is alike, and answers. */
export function picksOf(
  state: Pick<ProjectState, 'pick'>,
  drawingId: string,
): {
  blocks: (PickRow & { kind: 'block' })[];
  lines: (PickRow & { kind: 'lines' })[];
  alike: (PickRow & { kind: 'alike' })[];
  answers: (PickRow & { kind: 'answer' })[];
} {
  const own = Object.values(state.pick)
    .filter((pick) => pick.drawingId === drawingId)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  return {
    blocks: own.filter((pick) => pick.kind === 'block'),
    lines: own.filter((pick) => pick.kind === 'lines'),
    alike: own.filter((pick) => pick.kind === 'alike'),
    answers: own.filter((pick) => pick.kind === 'answer'),
  };
}

/** Gives blocks a role, or, with null, leaves them to their layers. @param newId gives a fresh UUID */
export function setBlockRoles(
  state: ProjectState,
  drawing: DrawingRow,
  roles: ReadonlyMap<string, Role | null>,
  newId: () => string,
): Edit {
  const known = new Map(picksOf(state, drawing.id).blocks.map((pick) => [pick.name, pick]));
  const changes = [...roles].flatMap(([name, role]) => {
    const before = known.get(name);
    if (role === null) return before ? [remove('pick', before.id)] : [];
    return before?.role === role
      ? []
      : [put('pick', { id: before?.id ?? newId(), drawingId: drawing.id, kind: 'block', name, role })];
  });
  const [[name, role]] = roles;
  return {
    label:
      roles.size === 1
        ? `Block ${name.slice(0, 100)}: ${role === null ? 'as its layers' : roleNames[role].toLowerCase()}`
        : `Roles of ${roles.size} blocks`,
    changes,
  };
}

/** Keeps lines picked by hand with a role; lines that were in another set leave it. @param newId gives a fresh UUID */
export function keepLines(
  state: ProjectState,
  drawing: DrawingRow,
  name: string,
  role: Role,
  handles: readonly string[],
  newId: () => string,
): Edit {
  const own = new Set(handles);
  const { lines } = picksOf(state, drawing.id);
  const same = lines.find((pick) => pick.name.toLowerCase() === name.toLowerCase());
  const others = lines.filter((pick) => pick !== same && pick.handles.some((handle) => own.has(handle)));
  return {
    label: `${name}: ${own.size} ${own.size === 1 ? 'line' : 'lines'} as ${roleNames[role].toLowerCase()}`,
    changes: [
      ...others.map((pick) => {
        const left = pick.handles.filter((handle) => !own.has(handle));
        return left.length > 0 ? put('pick', { ...pick, handles: left }) : remove('pick', pick.id);
      }),
      put('pick', {
        id: same?.id ?? newId(),
        drawingId: drawing.id,
        kind: 'lines',
        name: same?.name ?? name,
        role,
        handles: [...new Set([...(same?.handles ?? []), ...own])],
      }),
    ],
  };
}

/** What somebody says of one thing and of all that is alike. */
export interface Lesson {
  role: Role;
  like: Likeness;
}

const isSame = (a: Likeness, b: Likeness): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Gives all that is alike a role in a drawing; what was said of the same before is said anew.
 * @param newId gives a fresh UUID
 */
export function teach(state: ProjectState, drawing: DrawingRow, lessons: readonly Lesson[], newId: () => string): Edit {
  const { alike } = picksOf(state, drawing.id);
  const taken = new Set(alike.map(({ name }) => name));
  const nameFor = (role: Role): string => {
    for (let n = 1; ; n += 1) {
      const name = n === 1 ? `${roleNames[role]} like this` : `${roleNames[role]} like this ${n}`;
      if (taken.has(name)) continue;
      taken.add(name);
      return name;
    }
  };
  const changes = lessons.map(({ role, like }) => {
    const before = alike.find((pick) => isSame(pick.like, like));
    const row = before ?? { id: newId(), drawingId: drawing.id, kind: 'alike' as const, name: nameFor(role), like };
    return put('pick', { ...row, role });
  });
  const [{ role }] = lessons;
  const label = lessons.length === 1 ? `All alike as ${roleNames[role].toLowerCase()}` : `${lessons.length} lessons`;
  return { label, changes };
}

/**
 * Settles in a drawing what it leaves open, for everything alike; an answer to the same takes the place of an earlier
 * one.
 * @param newId gives a fresh UUID
 */
export function answer(state: ProjectState, drawing: DrawingRow, given: readonly Answer[], newId: () => string): Edit {
  const { answers } = picksOf(state, drawing.id);
  const changes = given.map((one) => {
    const id = answers.find((pick) => asksAlike(pick.answer, one))?.id ?? newId();
    return put('pick', { id, drawingId: drawing.id, kind: 'answer', name: answerWords(one), answer: one });
  });
  return { label: given.length === 1 ? answerWords(given[0]) : `${given.length} answers`, changes };
}
