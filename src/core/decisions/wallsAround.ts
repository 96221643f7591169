import type { ElementOf } from '@/core/kinds/element';
import type { Wall } from '@/core/kinds/wall';
import { levelsUp, sourceLevel } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import type { WallsAround } from '@/core/reading/walls/bearing';
import { spokenName } from '@/core/sorting/suggest';

/** Words in the names of drawings that show what carries. */
const structuralWords = ['struct', 'tragwerk', 'schal', 'positionsplan', 'framing', 'estructur', 'struttur'];

/** Whether a drawing shows, by its name, what carries. */
export function isStructural(name: string): boolean {
  return spokenName(name)
    .split(/[^a-z]+/)
    .some((word) => structuralWords.some((stem) => word.startsWith(stem)));
}

function wallsOn(model: Model, levelId: string | null): ElementOf<'wall'>[] {
  const source = sourceLevel(model, levelId);
  return source === null
    ? []
    : [...model.index.onLevel(source)].filter((row): row is ElementOf<'wall'> => row.kind === 'wall');
}

const shapesOf = (walls: readonly ElementOf<'wall'>[]): Wall[] | null =>
  walls.length === 0 ? null : walls.map(({ shape }) => shape);

/**
 * The walls that tell whether those of a drawing carry: those of the level beneath its own, and those that came from
 * structural drawings of its level.
 */
export function wallsAround(model: Model, drawing: DrawingRow): WallsAround {
  const levels = levelsUp(model);
  const at = levels.findIndex(({ id }) => id === drawing.levelId);
  const beneath = at > 0 ? wallsOn(model, levels[at - 1].id) : [];
  const structural = isStructural(drawing.name)
    ? []
    : wallsOn(model, drawing.levelId).filter(({ source }) => {
        const from = source && source.drawing !== drawing.id ? model.drawing[source.drawing] : undefined;
        return from !== undefined && isStructural(from.name);
      });
  return { below: shapesOf(beneath), structural: shapesOf(structural) };
}
