import { conflictsOf } from '@/core/decisions/conflicts';
import { rejectCandidates, reopenCandidates } from '@/core/decisions/decide';
import type { ElementRow } from '@/core/kinds/element';
import { put, type Change } from '@/core/model/edits';
import { follow } from '@/core/model/repeatLevels';
import { Model } from '@/core/model/model';
import { replay } from '@/core/model/replay';
import { emptyState } from '@/core/model/state';
import type { Candidate } from '@/core/reading/candidate';
import { KeptFindings } from '@/core/proof/keptFindings';
import { resolveBuilding } from '@/core/resolved/resolve';
import { crowdedSnaps } from './crowd';
import { carried } from '@/core/tracing/carried';
import { shift } from '@/core/tracing/moved';
import { drawingRow, levelIds, makeModel } from './makeModel';

/** A thing measured: milliseconds, the median of several runs, and how much it may take. */
interface Line {
  what: string;
  took: number;
  floor: number;
}

const now = (): number => Number(process.hrtime.bigint()) / 1e6;

/** The median of runs, each with fresh input. */
function median<T>(runs: number, prepare: (run: number) => T, work: (input: T) => unknown): number {
  const times = Array.from({ length: runs }, (_, run) => {
    const input = prepare(run);
    const start = now();
    work(input);
    return now() - start;
  });
  return times.sort((a, b) => a - b)[runs >> 1];
}

const candidateOf = (element: ElementRow): Candidate =>
  ({
    kind: element.kind,
    key: element.source!.handles[0],
    element: element.shape,
    evidence: [],
    confidence: 1,
    handles: element.source!.handles,
    doubt: null,
  }) as unknown as Candidate;

/** One edit of a column as it was done before this model: the table copied, then the level filtered. */
function byCopying(state: { element: Readonly<Record<string, ElementRow>> }, row: ElementRow, levelId: string): number {
  const element = { ...state.element, [row.id]: row };
  return Object.values(element).filter((one) => one.levelId === levelId).length;
}

/** `./run bench model [elements]`: edits, indices and commands on a large model, each with what it may take. */
export async function benchModel(elements: number): Promise<number> {
  const { model, changes } = makeModel(elements);
  const all = Object.values(model.element);
  const columns = all.filter((element) => element.kind === 'column');
  const walls = all.filter((element) => element.kind === 'wall');
  // Whoever shows the model has asked for boxes; they follow from then on.
  for (const level of levelIds) model.index.touching(level, [0, 0, 1, 1]);
  console.log(`${all.length.toLocaleString('en')} elements on ${levelIds.length} levels`);
  const moved = (row: ElementRow, by: number): Change =>
    put('element', row.kind === 'column' ? { ...row, shape: { ...row.shape, position: [by, by] } } : row);
  const some = (count: number, run: number): Change[] => columns.slice(0, count).map((row) => moved(row, run));
  const many = all.slice(0, 5000);
  const kept = new KeptFindings(model);
  kept.all();
  const inverses: Change[][] = [];
  const lines: Line[] = [
    {
      what: 'one edit with all indices',
      took: median(
        201,
        (run) => [moved(columns[run % columns.length], run)],
        (edit) => inverses.push(model.apply(edit)),
      ),
      floor: 2,
    },
    {
      what: 'its undo',
      took: median(
        201,
        () => inverses.pop()!,
        (inverse) => model.apply(inverse),
      ),
      floor: 2,
    },
    {
      what: 'an edit of 5,000 elements',
      took: median(
        5,
        () => many.map((row) => put('element', { ...row })),
        (edit) => model.apply(edit),
      ),
      floor: 150,
    },
    {
      what: 'rejecting 2,000 walls',
      took: median(
        5,
        () => walls.slice(0, 2000).map(candidateOf),
        (picked) => rejectCandidates(model, drawingRow, picked),
      ),
      floor: 200,
    },
    {
      what: 'reopening 2,000 walls',
      took: median(
        5,
        () => walls.slice(0, 2000).map(candidateOf),
        (picked) => reopenCandidates(model, drawingRow, picked),
      ),
      floor: 200,
    },
    {
      what: 'conflicts of 4,000 candidates',
      took: median(
        5,
        () => all.slice(0, 4000).map((row) => ({ ...candidateOf(row), key: `x${row.id}` })),
        (candidates) => conflictsOf(model, drawingRow, candidates),
      ),
      floor: 200,
    },
    {
      what: 'a level that repeats another',
      took: median(
        5,
        () => 0,
        () => follow(model, levelIds[1], levelIds[0]),
      ),
      floor: 50,
    },
    {
      what: 'what others did, under 50 steps of one\u2019s own',
      took: median(5, pendingSteps, ({ own, pending }) => replay(own, [[moved(columns[999], 3)]], pending)),
      floor: 50,
    },
    {
      what: 'a frame of dragging 500 elements',
      took: median(
        21,
        (run) => run / 10,
        (by) =>
          carried(
            model,
            all.slice(0, 500).map(({ id }) => id),
            shift([by, by]),
            'joined',
          ),
      ),
      floor: 8,
    },
    {
      what: 'what lies in a view of a tenth of a level',
      took: median(
        51,
        () => 0,
        () => model.index.touching(levelIds[0], [0, 0, 40, 40]),
      ),
      floor: 2,
    },
    {
      what: 'what the cursor holds among 8,000 lines in reach',
      took: median(51, (run) => run / 100, crowdedSnaps(8000)),
      floor: 4,
    },
    {
      what: 'findings near one edit',
      took: median(
        11,
        (run) => {
          kept.soon();
          model.apply([moved(columns[run], 10 + run)]);
        },
        () => kept.soon(),
      ),
      floor: 200,
    },
    {
      what: 'the whole building resolved',
      took: median(
        3,
        () => 0,
        () => resolveBuilding({ levels: Object.values(model.level), elements: all }),
      ),
      floor: 1500,
    },
    {
      what: 'a model made of its rows',
      took: median(
        3,
        () => 0,
        () => new Model(model),
      ),
      floor: 400,
    },
    {
      what: 'the same by its changes',
      took: median(
        3,
        () => new Model(emptyState),
        (fresh) => fresh.apply(changes),
      ),
      floor: 600,
    },
  ];
  for (const { what, took, floor } of lines)
    console.log(
      `${what.padEnd(48)} ${took.toFixed(took < 10 ? 3 : 0).padStart(8)} ms, at most ${floor}${took > floor ? '   OVER' : ''}`,
    );
  const copying = median(
    21,
    (run) => columns[run],
    (row) => byCopying(model, { ...row }, levelIds[0]),
  );
  console.log(
    `one edit by copying the table and filtering the level takes ${copying.toFixed(1)} ms: ` +
      `${(copying / lines[0].took).toFixed(0)} times as long`,
  );
  console.log(steadyMemory(model, some));
  return lines.every(({ took, floor }) => took <= floor) ? 0 : 1;

  function pendingSteps() {
    const own = new Model(model);
    const pending = Array.from({ length: 50 }, (_, i) => {
      const edit = [moved(columns[i], i)];
      return { changes: edit, inverse: own.apply(edit), again: null };
    });
    return { own, pending };
  }
}

/** What a thousand edits and their undos leave behind. */
function steadyMemory(model: Model, some: (count: number, run: number) => Change[]): string {
  const heap = (): number => {
    global.gc?.();
    return process.memoryUsage().heapUsed / 1e6;
  };
  const round = () => {
    for (let run = 0; run < 1000; run += 1) model.apply(model.apply(some(10, run)));
  };
  round();
  const before = heap();
  round();
  return `heap after a thousand edits and undos: ${before.toFixed(1)} MB, after a thousand more: ${heap().toFixed(1)} MB`;
}
