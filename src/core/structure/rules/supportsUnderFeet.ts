import { elementOf } from '@/core/resolved/elementOf';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { ElementOf } from '@/core/kinds/element';
import type { Freedom } from '@/core/kinds/support';
import type { Edit } from '@/core/model/edits';
import { put } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, ok, type Result } from '@/core/result';
import { axesOfModel, type Axis } from '../derive/axes';
import { Materials } from '../derive/materials';
import { Report } from '@/core/proof/report';
import { feetOnNothing, skeletonOf, type Skeleton } from '../derive/skeleton';

/** A support that a rule says: where, against what, and under which element. */
export interface RuledSupport {
  element: string;
  position: readonly [x: number, y: number, z: number];
  fixed: Freedom[];
}

/** A wall runs along an axis of the project within this, as a sine. */
const alongAxis = 0.01;
const pinned: Freedom[] = ['x', 'y', 'z', 'rz'];
const clamped: Freedom[] = ['x', 'y', 'z', 'rx', 'ry', 'rz'];

/**
 * A column is pinned and held about its own axis, one that nothing joins is clamped; a wall is held along its line, or,
 * where that runs askew, against all.
 */
function fixedUnder({ kind, line }: Axis, alone: boolean): Freedom[] {
  if (kind === 'column' || line === null) return alone ? clamped : pinned;
  const [[x1, y1], [x2, y2]] = line;
  const size = Math.hypot(x2 - x1, y2 - y1) || 1;
  if (Math.abs(y2 - y1) < alongAxis * size) return clamped.filter((freedom) => freedom !== 'rx');
  if (Math.abs(x2 - x1) < alongAxis * size) return clamped.filter((freedom) => freedom !== 'ry');
  return clamped;
}

/** The supports that are missing: under columns and walls whose feet nothing carries. */
export function supportsMissing(model: ReadModel): RuledSupport[] {
  const report = new Report();
  const axes = axesOfModel(model, new Materials(model), report);
  // What is taken for granted where no support is said is to be said now.
  const skeleton = skeletonOf(model, axes, report, false);
  const feet = feetOnNothing(skeleton);
  return [...feet]
    .filter(([node]) => skeleton.supportOf[node] === undefined)
    .flatMap(([, own]) => {
      // Walls hold what stands in their feet.
      const walls = own.filter((i) => axes[i].kind === 'wall');
      return (walls.length > 0 ? walls : own.slice(0, 1)).map((i): RuledSupport => {
        const { start, end, element } = axes[i];
        const position = start[2] <= end[2] ? start : end;
        return { element, position, fixed: fixedUnder(axes[i], standsAlone(skeleton, i)) };
      });
    });
}

/** Whether nothing meets what stands but its own foot. */
function standsAlone({ frame, pieces }: Skeleton, i: number): boolean {
  const own = pieces[i].map(({ member }) => frame.members[member]);
  return (
    own.length === 1 &&
    own[0].nodes.every((node) => frame.members.every((m) => m === own[0] || !m.nodes.includes(node)))
  );
}

/** Says supports under all feet that nothing carries, as one edit. */
export function saySupports(model: Model, missing: readonly RuledSupport[], newId: () => string): Result<Edit> {
  const rows = missing.flatMap(({ element, position: [x, y, z], fixed }): ElementOf<'support'>[] => {
    const { levelId } = model.element[elementOf(element)] ?? { levelId: null };
    if (levelId === null || elementOf(element) !== element) return [];
    const rise = z - model.level[levelId].elevation;
    return [
      {
        id: newId(),
        levelId,
        source: null,
        libraryId: null,
        kind: 'support',
        shape: { position: [x, y], rise, fixed },
      },
    ];
  });
  if (rows.length === 0) return fail('Every column and every wall that carries stands on something already.');
  return ok({
    label: `Draw ${rows.length === 1 ? '1 support' : `${rows.length} supports`} under feet on nothing`,
    changes: rows.map((row) => put('element', row)),
  });
}
