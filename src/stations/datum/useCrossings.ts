'use client';
import { useEffect, useState } from 'react';
import { asDrawn, unplace } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { gridOfDrawing } from '@/project/grids';
import { reasonOf } from '@/project/reason';
import { useModel } from '@/project/useSession';
import type { Underlay } from '@/project/underlays';

/** Where two grid lines of a drawing cross, as it is drawn. */
export interface Crossing {
  name: string;
  drawn: Point;
}

/**
 * The crossings of a drawing's grid, read once they are asked for and the drawing is there: null before, and a sentence
 * where they could not be read.
 */
export function useCrossings(
  { id }: DrawingRow,
  { unit, scale }: PlacementRow,
  underlay: Underlay | null,
  asked: boolean,
): Crossing[] | string | null {
  const state = useModel('project', 'library', 'role', 'pick', 'element');
  const [read, setRead] = useState<{ of: string; crossings: Crossing[] | string } | null>(null);
  // What was read of another drawing, or in another unit, is none of this one's.
  const of = `${id} ${unit} ${scale}`;
  const isThere = underlay !== null;
  useEffect(() => {
    if (!asked || !isThere) return undefined;
    let left = false;
    const at = asDrawn(unit, scale);
    const show = (crossings: Crossing[] | string): void => {
      if (!left) setRead({ of, crossings });
    };
    gridOfDrawing(state, id, at).then(
      (lines) =>
        show(
          gridCrossings(lines)
            .map(({ name, point }) => ({ name, drawn: unplace(at, point) }))
            .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true })),
        ),
      (error: unknown) => show(reasonOf(error)),
    );
    return () => {
      left = true;
    };
  }, [asked, isThere, state, id, unit, scale, of]);
  return read?.of === of ? read.crossings : null;
}
